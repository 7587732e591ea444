<script lang="ts">
  import StandingBars from '$parts/StandingBars.svelte';
  import type { Holding } from '$lib/api/client';

  /** Where another radio has the channel: quiet in the same slot, strong in another, ≠ where it holds it with a change. */
  interface Props {
    held: Holding | undefined;
    slot: number;
    name: string;
    act: () => void;
  }
  let { held, slot, name, act }: Props = $props();
  const loss = $derived(held && held.losses.length > 0 ? held.losses.join('; ') : undefined);
</script>

{#if held}
  {#if held.slot !== null}
    <span
      class={held.slot === slot ? 'text-ink2' : 'font-strong'}
      title={loss ? `${name} holds it with a change: ${loss}` : `${name}, slot ${String(held.slot)}`}
      ><span class="sr-only">{name}, slot </span>{#if loss}<span aria-hidden="true">≠</span><span class="sr-only"
          >with a change,
        </span>{/if}{held.slot}{#if held.state && held.state !== 'planned'}<span class="ml-1"
          ><StandingBars now={held.state} /></span
        >{/if}</span
    >
  {:else if held.can}
    <button
      type="button"
      tabindex="-1"
      class="underline decoration-rule2 underline-offset-2"
      aria-label="Add it to {name}"
      onclick={act}>add</button
    >
  {:else}<span class="font-text text-label text-ink3" title="{name}: {loss ?? 'it does not receive this frequency'}"
      >cannot</span
    >{/if}
{/if}
