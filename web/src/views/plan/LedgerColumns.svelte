<script lang="ts">
  import ToArrow from '$parts/ToArrow.svelte';
  import type { LoadInfo } from '$lib/api/client';

  /** What stands over the columns; the names of other radios may take two lines. */
  let { others, counts }: { others: readonly LoadInfo[]; counts: ReadonlyMap<number, number> } = $props();
</script>

<div role="row" class="cols border-b border-bold text-label text-ink2 max-desk:sr-only">
  <span role="columnheader" class="pl-1">slot</span>
  <span role="columnheader">name</span>
  {#if others.length === 0}<span role="columnheader"><span class="sr-only">short name</span></span>{/if}
  <span role="columnheader">receive</span>
  <span role="columnheader">shift</span>
  <span role="columnheader">transmit</span>
  <span role="columnheader">tone out</span>
  <span role="columnheader"><span class="sr-only">to</span><ToArrow /></span>
  <span role="columnheader">tone in</span>
  {#if others.length === 0}
    <span role="columnheader">power</span>
    <span role="columnheader">scan</span>
  {/if}
  <span role="columnheader">evidence</span>
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
