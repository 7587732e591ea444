<script lang="ts">
  import Evidence from '$parts/Evidence.svelte';
  import Mark from '$parts/Mark.svelte';
  import Frequency from '$parts/Frequency.svelte';
  import Tone from '$parts/Tone.svelte';
  import type { Cell, Evidence as Case } from '$lib/api/client';

  /** The witnesses side by side, field by field. */
  let { found }: { found: Case } = $props();
  /** Something was answered on the air. */
  const heard = $derived(found.rows.some((r) => r.heard.kind !== ''));
  const names: Record<string, string> = {
    bandwidth: 'width',
    receive: 'receive',
    shift: 'shift',
    transmit: 'transmit',
    transmit_tone: 'tone out',
    receive_tone: 'tone in',
  };
  const marks = { agrees: 'agrees', differs: 'conflict', 'no evidence': 'unverified' } as const;
</script>

{#snippet cell(c: Cell, same: boolean, hot: boolean)}
  {#if c.kind === ''}<span class="text-ink3">–<span class="sr-only">no evidence</span></span>
  {:else if c.kind === 'frequency'}<span class:text-conflict={hot}><Frequency text={c.text} same={same && !hot} /></span
    >
  {:else if c.kind === 'offset'}<span class:text-conflict={hot}
      ><Frequency text={c.text} signed same={same && !hot} /></span
    >
  {:else if c.kind === 'tone'}<Tone text={c.text} {hot} pad />
  {:else}<span class="text-small {hot ? 'font-strong text-conflict' : 'text-ink2'}">{c.text}</span>{/if}
{/snippet}

<table class="w-full table-fixed border-collapse">
  <caption class="sr-only">The witnesses, field by field</caption>
  <colgroup
    ><col class="w-[15%]" /><col class="w-[20%]" /><col class="w-[20%]" /><col class="w-[20%]" />{#if heard}<col
        class="w-[20%]"
      />{/if}<col /></colgroup
  >
  <thead>
    <tr class="border-b border-bold align-top text-label text-ink2">
      <th scope="col"><span class="sr-only">field</span></th>
      <th scope="col">entered</th>
      <th scope="col"
        >published<small
          >{found.statements === 0
            ? 'nothing'
            : found.statements === 1
              ? '1 listing'
              : `${String(found.statements)} listings`}</small
        ></th
      >
      <th scope="col">band plan<small>{found.band || 'no band'}</small></th>
      {#if heard}<th scope="col">heard</th>{/if}
      <th scope="col"><span class="sr-only">verdict</span></th>
    </tr>
  </thead>
  <tbody>
    {#each found.rows as row (row.field)}
      <tr class="border-b border-rule align-baseline">
        <th scope="row" class="text-body">{names[row.field] ?? row.field}</th>
        <td>{@render cell(row.entered, false, false)}</td>
        <td
          >{@render cell(
            row.published,
            row.mark !== 'differs',
            row.mark === 'differs' && row.published.kind !== '',
          )}</td
        >
        <td>{@render cell(row.plan, true, row.mark === 'differs' && row.published.kind === '')}</td>
        {#if heard}<td
            >{@render cell(row.heard, row.mark !== 'differs', row.mark === 'differs' && row.heard.kind !== '')}</td
          >{/if}
        <td class="text-small"
          >{#if heard}<Mark kind={marks[row.mark]} /><span class="sr-only">{row.mark}</span>{:else}<Evidence
              kind={marks[row.mark]}
              word={row.mark}
            />{/if}</td
        >
      </tr>
    {/each}
  </tbody>
</table>

<style>
  th {
    font-weight: var(--w-normal);
    text-align: left;
    color: var(--ink2);
    padding: 0;
    line-height: 1.2;
  }
  thead th {
    padding-bottom: 3px;
  }
  small {
    display: block;
    font-size: var(--t-note);
    color: var(--ink3);
  }
  td,
  tbody th {
    padding: 0;
    height: 22px;
    line-height: 21px;
    font-size: 13.5px;
    white-space: nowrap;
  }
  @media (max-width: 45em) {
    td {
      height: 28px;
      font-size: 12.5px;
    }
  }
</style>
