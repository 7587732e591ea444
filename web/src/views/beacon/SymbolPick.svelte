<script lang="ts">
  import Dialog from '$parts/Dialog.svelte';
  import type { BeaconView } from '$lib/api/client';
  import DrawnSymbol from './DrawnSymbol.svelte';

  /** Both tables of symbols, found by words. */
  interface Props {
    open: boolean;
    symbols: BeaconView['symbols'];
    now: string;
    choose: (id: string) => void;
  }
  let { open = $bindable(), symbols, now, choose }: Props = $props();
  let find = $state('');
  const list = $derived(
    symbols.filter(
      (s) =>
        !s.says.startsWith('reserved') &&
        !s.says.includes('not for use') &&
        s.id !== '\\!' &&
        find
          .toLowerCase()
          .split(/\s+/)
          .every((w) => `${s.says} ${s.id}`.toLowerCase().includes(w)),
    ),
  );
</script>

<Dialog bind:open title="Symbol" wide="full">
  <p class="pb-2">
    <label class="mr-2" for="symbol-find">which</label><input
      id="symbol-find"
      bind:value={find}
      placeholder="car, boat, weather"
      autocomplete="off"
      class="h-8 rounded-[2px] border border-rule2 bg-sheet px-2 max-desk:h-11"
    />
    <span class="ml-3 text-small text-ink2"
      >{list.length} of {symbols.length}; reserved ones and the emergency are not offered</span
    >
  </p>
  <ul>
    {#each list as s (s.id)}
      <li>
        <button
          type="button"
          aria-pressed={s.id === now}
          onclick={() => {
            choose(s.id);
            open = false;
          }}><DrawnSymbol id={s.id} /> <code>{s.id}</code> <span>{s.says}</span></button
        >
      </li>
    {/each}
  </ul>
</Dialog>

<style>
  ul {
    columns: 3 220px;
    max-height: 60vh;
    overflow-y: auto;
  }
  li {
    break-inside: avoid;
  }
  button {
    display: grid;
    grid-template-columns: 30px 30px minmax(0, 1fr);
    width: 100%;
    min-height: 28px;
    align-items: center;
    text-align: left;
    border-bottom: 1px solid var(--rule);
  }
  button:hover,
  [aria-pressed='true'] {
    background: var(--hover);
  }
  code {
    font-family: var(--figs);
    color: var(--ink2);
  }
  @media (max-width: 45em) {
    button {
      min-height: 44px;
    }
  }
</style>
