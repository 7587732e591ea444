<script lang="ts">
  import type { Snippet } from 'svelte';
  import { narrow } from '$lib/screen.svelte';
  import type { SideView } from './plan.svelte';

  /** The words over the panel: what speaks for the channel, what to do next, sets, history. */
  interface Props {
    view: SideView;
    choose: (view: SideView) => void;
    children?: Snippet;
  }
  let { view, choose, children }: Props = $props();
  const all = $derived<[SideView, string][]>([
    ['channel', narrow.is ? 'slots' : 'channel'],
    ['work', 'to do'],
    ['sets', 'sets'],
    ['history', 'history'],
  ]);
</script>

<div class="tabs" role="group" aria-label="The panel shows">
  {#each all as [id, says] (id)}
    <button
      type="button"
      aria-pressed={view === id}
      class="max-desk:min-h-11"
      onclick={() => {
        choose(id);
      }}>{says}</button
    >
  {/each}
</div>
{@render children?.()}

<style>
  .tabs {
    display: flex;
    gap: 18px;
    margin-bottom: 6px;
    font-size: var(--t-small);
    color: var(--ink2);
    border-bottom: 1px solid var(--rule);
  }
  .tabs button {
    padding: 0 1px 3px;
  }
  .tabs button[aria-pressed='true'] {
    color: var(--ink);
    font-weight: var(--w-strong);
    box-shadow: 0 2px 0 var(--ink);
  }
</style>
