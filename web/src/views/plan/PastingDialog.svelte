<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Dialog from '$parts/Dialog.svelte';
  import type { PlanState } from './plan.svelte';
  import { runs } from './runs';

  /** What a pasted table asks before it is stored, and what of it was left out. */
  let { plan }: { plan: PlanState } = $props();
  const several = $derived(plan.several);
  const p = $derived(several.pasting);
  const settle = (v: 'operator' | 'repeater') => () => {
    if (p) void several.paste(p.text, p.over, v, p.slot);
  };
</script>

{#if p}
  <Dialog
    bind:open={
      () => true,
      (o) => {
        if (!o) several.pasting = null;
      }
    }
    title={p.pasted.ask ? 'Whose TX is it?' : 'Not everything was pasted'}
    says={p.pasted.ask
      ? 'The table does not prove it, and the tones and frequencies depend on it. Choose the sentence that is true.'
      : `${runs(p.pasted.slots)} ${p.pasted.slots.length === 1 ? 'was' : 'were'} stored. These rows were left out:`}
    close={p.pasted.ask ? 'Cancel' : 'Close'}
  >
    {#if p.pasted.ask}
      <div class="flex flex-col items-start gap-3">
        <Button onclick={settle('operator')}>{p.pasted.ask.operator}</Button>
        <Button onclick={settle('repeater')}>{p.pasted.ask.repeater}</Button>
      </div>
    {:else}
      <ul>
        {#each p.pasted.left as l, nth (nth)}
          <li class="flex gap-3 border-b border-rule py-1">
            <span class="w-16 flex-none text-ink2">row {l.row}</span><span>{l.why}</span>
          </li>
        {/each}
      </ul>
    {/if}
  </Dialog>
{/if}
