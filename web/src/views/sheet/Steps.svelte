<script lang="ts">
  import type { KeypadSheet } from '$lib/api/client';
  import Keys from './Keys.svelte';

  interface Props {
    sheet: KeypadSheet['sheet'];
    /** The line that comes next while the sheet is tried; 0 is the start. */
    at?: number;
    skipped?: number[];
    failed?: boolean;
  }
  let { sheet, at, skipped = [], failed = false }: Props = $props();
  const space = ' '; // a blank that stays where a block begins
  const last = $derived(sheet.steps.length + 1);
  const plain = (value: string | undefined) => value === undefined || ['off', 'on', 'check', ''].includes(value);
  /** Shows how far the handset is: done, left out, or next. */
  const done = (line: number) =>
    at === undefined || line >= at ? '' : skipped.includes(line) ? 'left out' : ('done' as const);

  let list = $state<HTMLElement>();
  $effect(() => {
    if (at === undefined) return;
    list
      ?.querySelector('[aria-current]')
      ?.scrollIntoView({ block: matchMedia('(max-width: 62.5em)').matches ? 'start' : 'center' });
  });
</script>

{#snippet mark(line: number)}
  {#if at !== undefined}
    <span class="mark" class:left={done(line) === 'left out'}
      >{done(line) === 'done' ? '✓' : done(line) === 'left out' ? 'left out' : ''}</span
    >
  {:else}
    <span class="mark text-[20px]" aria-hidden="true">☐</span>
  {/if}
{/snippet}

<div bind:this={list} class="mt-3">
  <p class="state" aria-current={at === 0 ? 'step' : undefined} class:failed={failed && at === 0}>
    <b class="font-strong">Start with:</b>
    {#each sheet.start as s, i (i)}{i > 0 ? ', ' : ''}<span class="box whitespace-nowrap">{s}</span>{/each}.
  </p>
  <ol class="border-t border-bold">
    {#each sheet.steps as s (s.number)}
      <li aria-current={at === s.number ? 'step' : undefined} class:failed={failed && at === s.number}>
        <span class="number">{s.number}<span class="sr-only">.</span></span>
        <!-- prettier-ignore -->
        <span class="title"><span class="do">{s.do}</span>{#if s.value}{space}<span class="value" class:font-strong={!plain(s.value)}>{s.value}</span>{/if}{#if s.unit}{space}<span class="unit">{s.unit}</span>{/if}{#if s.again}{space}<span class="do">again</span>{/if}<span class="sr-only">:</span></span>
        <span class="keys"
          ><Keys text={s.keys} /><span class="sr-only">.</span>{#if s.note}<span class="note">({s.note})</span
            >{/if}</span
        >
        {@render mark(s.number)}
      </li>
    {/each}
  </ol>
  <p class="state" aria-current={at === last ? 'step' : undefined} class:failed={failed && at === last}>
    <b class="font-strong">Leave it with:</b>
    {#each sheet.leave as s, i (i)}{i > 0 ? ', ' : ''}<span class="box whitespace-nowrap">{s}</span>{/each}.
  </p>
</div>

<style>
  li {
    display: grid;
    grid-template-columns: 24px minmax(0, 4fr) minmax(0, 9fr) auto;
    gap: 12px;
    align-items: center;
    min-height: 38px;
    padding: 3px 0;
    scroll-margin: 60px;
    border-bottom: 1px solid var(--rule);
    break-inside: avoid;
  }
  .number {
    color: var(--ink2);
    font-family: var(--figs);
    text-align: right;
  }
  .do {
    color: var(--ink2);
  }
  .value {
    font-family: var(--figs);
    font-size: 19px;
    line-height: 24px;
    overflow-wrap: anywhere;
  }
  .unit,
  .note {
    color: var(--ink2);
    font-size: 13px;
  }
  .note {
    margin-left: 6px;
  }
  .keys {
    line-height: 23px;
  }
  .mark {
    min-width: 22px;
    color: var(--ink2);
    text-align: right;
  }
  .mark.left {
    color: var(--conflict);
    font-size: 13px;
  }
  .state {
    padding: 6px 0;
  }
  .box::before {
    content: '☐ ';
    color: var(--ink2);
  }
  [aria-current] {
    margin: 0 -12px;
    padding-right: 12px;
    padding-left: 9px;
    border-left: 3px solid var(--accent);
    background: var(--water);
  }
  .failed {
    border-left-color: var(--stop);
  }
  @media (max-width: 45em) {
    li {
      grid-template-columns: 22px minmax(0, 1fr) auto;
      gap: 2px 8px;
    }
    .keys {
      grid-column: 2 / -1;
      grid-row: 2;
    }
  }
  @media print {
    li {
      min-height: 24px;
      padding: 0;
    }
    .mark {
      font-size: 16px;
    }
    .state {
      padding: 4px 0;
    }
    .value {
      font-size: 16px;
      line-height: 19px;
    }
    .keys {
      font-size: 12.5px;
      line-height: 18px;
    }
    [aria-current] {
      margin: 0;
      padding: 0;
      border: 0;
      background: none;
    }
  }
</style>
