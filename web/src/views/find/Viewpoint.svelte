<script lang="ts">
  import { untrack } from 'svelte';
  import Button from '$parts/Button.svelte';
  import type { ImportPreview } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import type { BringState } from './bring.svelte';

  /** Whose TX it is, as a sentence with a real row; one key turns it round. */
  let { bring, view }: { bring: BringState; view: ImportPreview['view'] } = $props();
  const asked = $derived(!view.settled);
  const other = $derived(view.viewpoint === 'operator' ? ('repeater' as const) : ('operator' as const));

  const turn = () => {
    if (!asked) void bring.turn(other);
  };
  $effect(() =>
    untrack(() =>
      commands.add({
        id: 'turn',
        says: 'Turn it round: whose TX it is',
        scope: 'Importing',
        keys: ['Alt+KeyT'],
        listed: false,
        run: turn,
      }),
    ),
  );
</script>

<svelte:window
  onkeydown={(e) => {
    commands.act('Importing', e);
  }}
/>

<section
  aria-label="Whose TX it is"
  class="my-3 border px-3 py-2 {asked ? 'border-2 border-conflict' : 'border-rule2'}"
  aria-live="polite"
>
  {#if asked}
    <p class="font-strong">Whose TX is it? The table does not tell. Choose the sentence that is true:</p>
    <div class="mt-2 flex flex-col items-start gap-2">
      {#each [{ v: view.viewpoint, says: view.sentence }, { v: other, says: view.other }] as x (x.v)}
        <button
          type="button"
          class="rounded-[2px] border border-rule2 bg-sheet px-3 py-1.5 text-left text-[16px] hover:bg-hover max-desk:min-h-11"
          onclick={() => void bring.turn(x.v)}>{x.says}</button
        >
      {/each}
    </div>
  {:else}
    <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
      <p class="mr-auto text-[16px]">{view.sentence}</p>
      <Button key={commands.key('turn')} onclick={() => void bring.turn(other)}>Turn it round</Button>
    </div>
  {/if}
  {#if view.reasons.length > 0}<p class="mt-1 text-label text-ink2">Why: {view.reasons.join('; ')}.</p>{/if}
</section>
