<script lang="ts">
  import ToArrow from '$parts/ToArrow.svelte';
  import type { LoadInfo } from '$lib/api/client';
  import type { Column } from './columns';
  import type { PlanState } from './plan.svelte';

  /** What stands over the columns, and sorts by them; the names of other radios may take two lines. */
  interface Props {
    plan: PlanState;
    others: readonly LoadInfo[];
    counts: ReadonlyMap<number, number>;
  }
  let { plan, others, counts }: Props = $props();

  /** By slot, then up, then down, then by slot again. */
  function sort(column: Column | 'evidence') {
    const now = plan.sort?.column === column ? plan.sort : null;
    if (column === 'slot' || now?.down) plan.sort = null;
    else plan.sort = { column, down: now !== null };
    plan.several.clear();
  }
</script>

{#snippet over(column: Column | 'evidence', words: string, quiet = false)}
  {@const by = plan.sort?.column === column}
  <span role="columnheader" aria-sort={by ? (plan.sort?.down ? 'descending' : 'ascending') : undefined}>
    <button
      type="button"
      class="over"
      class:by
      tabindex="-1"
      onclick={() => {
        sort(column);
      }}
      ><span class={quiet ? 'sr-only' : ''}>{words}</span>{#if by}<span aria-hidden="true"
          >{plan.sort?.down ? ' ↓' : ' ↑'}</span
        >{/if}</button
    >
  </span>
{/snippet}

<div role="row" class="cols border-b border-bold text-label text-ink2 max-desk:sr-only">
  {@render over('slot', 'slot')}
  {@render over('name', 'name')}
  {#if others.length === 0}{@render over('short_name', 'short')}{/if}
  {@render over('receive', 'receive')}
  {@render over('shift', 'shift')}
  <span role="columnheader">transmit</span>
  {@render over('transmit_tone', 'tone out')}
  <span role="columnheader"><span class="sr-only">to</span><ToArrow /></span>
  {@render over('receive_tone', 'tone in')}
  {#if others.length === 0}
    {@render over('power', 'power')}
    {@render over('scan', 'scan')}
  {/if}
  {@render over('evidence', 'evidence')}
  {#each others as l (l.id)}
    <span role="columnheader" class="radio" title="{l.unit.name}: {counts.get(l.id) ?? 0} channels">{l.unit.name}</span>
  {/each}
</div>

<style>
  .cols {
    position: sticky;
    top: 0;
    z-index: 3;
    background: var(--paper);
    display: grid;
    grid-template-columns: var(--grid);
    align-items: end;
    min-height: 22px;
    line-height: 20px;
  }
  .cols > :first-child {
    padding-left: 4px;
  }
  .over {
    text-align: left;
    white-space: nowrap;
  }
  .over:hover {
    color: var(--ink);
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  .by {
    color: var(--ink);
    font-weight: var(--w-strong);
  }
  .radio {
    padding-left: 4px;
    text-align: right;
    line-height: 13px;
    padding-bottom: 3px;
    max-height: 30px;
    overflow: hidden;
    hyphens: auto;
    overflow-wrap: anywhere;
  }
</style>
