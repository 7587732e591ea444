<script lang="ts">
  import Evidence from '$parts/Evidence.svelte';
  import Menu from '$parts/Menu.svelte';
  import { narrow } from '$lib/screen.svelte';
  import type { Ledger, LoadInfo, SetInfo, Verdict } from '$lib/api/client';
  import type { PlanState } from './plan.svelte';

  /** How full the radio is, a search in it, and the verdicts, which are its legend and its filter. */
  interface Props {
    plan: PlanState;
    sets: readonly SetInfo[];
    /** Shows everything that is found of one kind, to be fixed together. */
    fixAll: (rule: string) => void;
    ledger: Ledger;
    load: LoadInfo;
    /** Goes from the search into the slots, or back to them. */
    into: () => void;
    back: () => void;
  }
  let { plan, ledger, load, sets, fixAll, into, back }: Props = $props();
  const verdicts: Exclude<Verdict, 'checking'>[] = ['agrees', 'unverified', 'conflict', 'stop'];
  const radio = $derived(load.radio);
  const kind = $derived(ledger.kinds.find((k) => k.rule === plan.rule));
  const kindWords = $derived(
    kind ? `${kind.title}, ${String(kind.channels)}` : `${String(ledger.kinds.length)} kinds of findings`,
  );
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
  {#if narrow.is}<button
      type="button"
      class="link min-h-11"
      aria-pressed={plan.choosing}
      onclick={() => {
        plan.choosing = !plan.choosing;
        plan.several.clear();
      }}>{plan.choosing ? 'Choose one' : 'Choose several'}</button
    >{/if}
  {#if ledger.kinds.length > 0 || sets.length > 0}
    <div class="views flex w-full flex-wrap items-baseline gap-x-4 pl-10 text-small max-desk:pl-0">
      {#if sets.length > 0}
        <span role="group" aria-label="Sets" class="flex flex-wrap items-baseline gap-x-3">
          {#each sets as s (s.id)}
            <button
              type="button"
              class="view max-desk:min-h-11"
              aria-pressed={plan.set === s.id}
              onclick={() => (plan.set = plan.set === s.id ? 0 : s.id)}>{s.name} {s.members.length}</button
            >
          {/each}
        </span>
      {/if}
      {#if ledger.kinds.length > 0}
        <span class="ml-auto flex items-baseline gap-x-3 max-desk:ml-0">
          {#if kind}
            {#if kind.fixable > 0}<button
                type="button"
                class="link"
                onclick={() => {
                  fixAll(kind.rule);
                }}>Fix {kind.fixable === 1 ? 'it' : `all ${String(kind.fixable)}`}…</button
              >{/if}
            <button type="button" class="link" onclick={() => (plan.rule = '')}>Show all</button>
          {/if}
          <Menu
            label="{kindWords}: show one kind alone"
            choices={[
              { value: '', label: 'everything' },
              ...ledger.kinds.map((k) => ({ value: k.rule, label: k.title, detail: String(k.channels) })),
            ]}
            value={plan.rule}
            choose={(v) => (plan.rule = v)}
            >{kind
              ? `${kind.title}, ${String(kind.channels)}`
              : `${String(ledger.kinds.length)} kinds of findings`}</Menu
          >
        </span>
      {/if}
    </div>
  {/if}
</div>

<style>
  .views {
    min-height: 24px;
  }
  .views :global(button) {
    height: auto;
  }
  .view {
    color: var(--ink2);
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  .view[aria-pressed='true'] {
    color: var(--ink);
    font-weight: var(--w-strong);
    text-decoration: none;
    box-shadow: 0 2px 0 var(--ink);
  }
</style>
