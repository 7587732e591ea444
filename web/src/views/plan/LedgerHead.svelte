<script lang="ts">
  import Evidence from '$parts/Evidence.svelte';
  import type { Ledger, LoadInfo, Verdict } from '$lib/api/client';
  import type { PlanState } from './plan.svelte';

  /** How full the radio is, a search in it, and the verdicts, which are its legend and its filter. */
  interface Props {
    plan: PlanState;
    ledger: Ledger;
    load: LoadInfo;
    /** Goes from the search into the slots, or back to them. */
    into: () => void;
    back: () => void;
  }
  let { plan, ledger, load, into, back }: Props = $props();
  const verdicts: Exclude<Verdict, 'checking'>[] = ['agrees', 'unverified', 'conflict', 'stop'];
  const radio = $derived(load.radio);
</script>

<div class="head flex flex-wrap items-baseline justify-between gap-x-4 border-t border-rule2 pt-1.5">
  <h2 class="pl-10 font-strong max-desk:sr-only">
    {load.unit.name}, {ledger.rows.length} of {radio.slots.last - radio.slots.first + 1} slots used
  </h2>
  <input
    type="search"
    id="seek"
    aria-label="Find in the plan"
    placeholder="find in the plan"
    autocomplete="off"
    spellcheck="false"
    class="h-6 w-36 rounded-[2px] border border-rule bg-transparent px-2 text-small focus:bg-sheet max-desk:h-11 max-desk:w-full"
    bind:value={plan.sought}
    onkeydown={(e) => {
      if (e.key === 'Escape' && plan.sought === '') back();
      if (e.key === 'Escape') plan.sought = '';
      if (e.key === 'Enter' || e.key === 'ArrowDown') {
        e.preventDefault();
        into();
      }
    }}
  />
  <div class="flex gap-4 text-small max-desk:w-full max-desk:justify-between" role="group" aria-label="Show only">
    {#if ledger.checking}<span role="status"><Evidence kind="checking" word="reading the listings" /></span>{/if}
    {#each verdicts as v (v)}
      <button
        type="button"
        aria-pressed={plan.only === v}
        class="px-0.5 max-desk:min-h-11 {plan.only === v ? 'shadow-[0_2px_0_var(--ink)]' : ''}"
        onclick={() => (plan.only = plan.only === v ? null : v)}
        ><Evidence kind={v} word="{String(ledger.tally[v])} {v}" /></button
      >
    {/each}
  </div>
</div>
