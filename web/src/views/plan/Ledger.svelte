<script lang="ts">
  import { tick } from 'svelte';
  import Evidence from '$parts/Evidence.svelte';
  import ToArrow from '$parts/ToArrow.svelte';
  import type { Ledger, Radio, Row, Verdict } from '$lib/api/client';
  import { columns, editText, nextChoice, type Column } from './columns';
  import type { PlanState } from './plan.svelte';
  import SlotRow from './SlotRow.svelte';

  interface Props {
    plan: PlanState;
    ledger: Ledger;
    radio: Radio;
    /** Goes to the entry line, to write into a vacant slot. */
    write: (slot: number) => void;
  }
  let { plan, ledger, radio, write }: Props = $props();
  const verdicts: Exclude<Verdict, 'checking'>[] = ['agrees', 'unverified', 'conflict', 'stop'];

  let only = $state<Verdict | null>(null);
  let column = $state<Column>('name');
  let editing = $state(false);

  const rows = $derived(new Map(ledger.rows.map((r) => [r.slot, r])));
  const draftSlot = $derived(plan.reading?.channel.receive_hz ? plan.reading.slot : null);
  /** The slots on show: all up to a little past the last one in use. */
  const slots = $derived.by(() => {
    const last = Math.max(ledger.rows.at(-1)?.slot ?? radio.slots.first, draftSlot ?? 0, plan.selected ?? 0);
    const end = Math.min(radio.slots.last, Math.max(last + 2, radio.slots.first + 11));
    const all = Array.from({ length: end - radio.slots.first + 1 }, (_, i) => radio.slots.first + i);
    return only ? all.filter((s) => rows.get(s)?.verdict === only) : all;
  });

  /** The line being typed, as the row it will be. */
  const draft = $derived.by<Row | null>(() => {
    const r = plan.reading;
    if (!r?.channel.receive_hz || r.slot === null || rows.has(r.slot)) return null;
    const flags = Object.fromEntries(r.findings.filter((f) => f.severity === 'stop').map((f) => [f.field, 'stop']));
    return {
      slot: r.slot,
      channel: r.channel,
      short_name: r.short_name,
      watts: r.watts,
      scan: r.scan,
      verdict: r.verdict,
      flags,
      top: null,
      line: plan.line,
      repeater: null,
      id: 0,
    };
  });

  async function select(slot: number, focus = true) {
    plan.selected = slot;
    editing = false;
    await tick();
    const row = document.getElementById(`slot-${String(slot)}`);
    row?.scrollIntoView({ block: 'nearest' });
    if (focus) row?.focus({ preventScroll: true });
  }

  async function edit(slot: number, at: Column) {
    const row = rows.get(slot);
    if (!row) return;
    const next = nextChoice(at, editText(row, at));
    column = at;
    if (next !== undefined) {
      await plan.update(slot, { [at]: next });
      await select(slot);
      return;
    }
    plan.selected = slot;
    editing = true;
  }

  async function done(direction: -1 | 0 | 1) {
    editing = false;
    const slot = plan.selected;
    if (slot === null) return;
    await select(slot);
    const next = columns[columns.indexOf(column) + direction];
    if (direction !== 0 && next !== undefined) {
      column = next;
      if (!nextChoice(next, '')) await edit(slot, next);
    }
  }

  async function save(slot: number, at: Column, text: string): Promise<string | undefined> {
    const wrong = await plan.update(slot, { [at]: text });
    return Object.values(wrong)[0];
  }

  function step(by: number) {
    const at = slots.indexOf(plan.selected ?? -1);
    const to = slots[Math.min(Math.max(at + by, 0), slots.length - 1)];
    if (to !== undefined) void select(to);
  }

  async function move(by: -1 | 1) {
    const from = plan.selected;
    if (from === null || !rows.has(from)) return;
    const wrong = await plan.update(from, { slot: String(from + by), swap: true });
    const said = Object.values(wrong)[0];
    if (said !== undefined) plan.trouble = said;
    await select(plan.selected ?? from);
  }

  /** Acts on a key; false if it is none of the grid's. */
  function act(e: KeyboardEvent): boolean {
    const slot = plan.selected;
    if (e.altKey && (e.key === 'ArrowUp' || e.key === 'ArrowDown')) {
      void move(e.key === 'ArrowUp' ? -1 : 1);
      return true;
    }
    if (e.ctrlKey || e.metaKey || e.altKey || slot === null) return false;
    const row = rows.get(slot);
    switch (e.key) {
      case 'ArrowDown':
        step(1);
        return true;
      case 'ArrowUp':
        step(-1);
        return true;
      case 'PageDown':
        step(10);
        return true;
      case 'PageUp':
        step(-10);
        return true;
      case 'Home':
        step(-slots.length);
        return true;
      case 'End':
        step(slots.length);
        return true;
      case 'ArrowRight':
      case 'ArrowLeft':
        column = columns[columns.indexOf(column) + (e.key === 'ArrowRight' ? 1 : -1)] ?? column;
        return true;
      case 'Enter':
      case 'F2':
        if (row) void edit(slot, column);
        else write(slot);
        return true;
      case 'Delete':
        if (row) void plan.remove(slot).then(() => select(slot));
        return true;
    }
    return false;
  }

  function keydown(e: KeyboardEvent) {
    if (editing) return;
    if (act(e)) {
      e.preventDefault();
      e.stopPropagation();
    }
  }

  /** A click chooses a slot and a cell; a double click edits, or writes into a vacant slot. */
  function point(e: MouseEvent) {
    const target = e.target instanceof Element ? e.target : null;
    const slot = Number(target?.closest('[role="row"][id]')?.id.replace('slot-', '') ?? NaN);
    if (Number.isNaN(slot) || target?.closest('input, button, a')) return;
    const at = columns.find((c) => c === target?.closest<HTMLElement>('[data-column]')?.dataset.column);
    if (e.type === 'dblclick' && at) void edit(slot, at);
    else if (e.type === 'dblclick') write(slot);
    else {
      column = at ?? column;
      void select(slot);
    }
  }

  function fix(row: Row) {
    const first = row.top?.fixes[0];
    if (first) void plan.fix(row.slot, first);
  }
</script>

<section aria-label="Slots of {radio.name}" class="mt-1.5">
  <div class="head flex items-baseline justify-between border-t border-rule2 pt-1.5 max-desk:-mx-4 max-desk:px-4">
    <h2 class="pl-10 font-strong max-desk:sr-only">
      {radio.name}, {ledger.rows.length} of {radio.slots.last - radio.slots.first + 1} slots used
    </h2>
    <div class="flex gap-4 text-small max-desk:w-full max-desk:justify-between" role="group" aria-label="Show only">
      {#if ledger.checking}<span role="status"><Evidence kind="checking" word="reading the listings" /></span>{/if}
      {#each verdicts as v (v)}
        <button
          type="button"
          aria-pressed={only === v}
          class="px-0.5 {only === v ? 'shadow-[0_2px_0_var(--ink)]' : ''}"
          onclick={() => (only = only === v ? null : v)}
          ><Evidence kind={v} word="{String(ledger.tally[v])} {v}" /></button
        >
      {/each}
    </div>
  </div>
  <!-- svelte-ignore a11y_interactive_supports_focus -->
  <div role="grid" aria-label="Slots" onkeydown={keydown} onclick={point} ondblclick={point} class="pb-3">
    <div role="row" class="cols border-b border-bold text-label text-ink2 max-desk:sr-only">
      <span role="columnheader" class="pl-1">slot</span>
      <span role="columnheader">name</span>
      <span role="columnheader"><span class="sr-only">short name</span></span>
      <span role="columnheader">receive</span>
      <span role="columnheader">shift</span>
      <span role="columnheader">transmit</span>
      <span role="columnheader">tone out</span>
      <span role="columnheader"><ToArrow /></span>
      <span role="columnheader">tone in</span>
      <span role="columnheader">power</span>
      <span role="columnheader">scan</span>
      <span role="columnheader">evidence</span>
    </div>
    {#each slots as slot (slot)}
      {@const row = rows.get(slot)}
      {#if row ?? (draft?.slot === slot ? draft : undefined)}
        {@const shown = row ?? draft}
        {#if shown}
          <SlotRow
            row={shown}
            draft={!row}
            selected={plan.selected === slot}
            active={plan.selected === slot && row ? column : undefined}
            editing={editing && plan.selected === slot}
            save={(at, text) => save(slot, at, text)}
            done={(d) => void done(d)}
            fix={() => {
              fix(shown);
            }}
          />
        {/if}
      {:else}
        <div
          role="row"
          id="slot-{slot}"
          tabindex={plan.selected === slot ? 0 : -1}
          aria-selected={plan.selected === slot}
          class="vacant group"
          class:chosen={plan.selected === slot}
          class:fifth={slot % 5 === 0}
        >
          <span role="gridcell" class="pl-1 font-figs text-ink3">{slot}</span>
          <span role="gridcell" class="text-label text-ink3">
            empty<span class="hidden group-focus:inline">: Enter writes here from the entry line</span>
          </span>
        </div>
      {/if}
    {:else}
      <p class="py-4 pl-10 text-ink2">
        No channel here is {only}. <button type="button" class="link" onclick={() => (only = null)}>Show all</button>
      </p>
    {/each}
  </div>
</section>

<style>
  .cols {
    display: grid;
    grid-template-columns: 40px 106fr 58fr 86fr 64fr 88fr 62px 28px 76fr 44fr 58fr 98fr;
    align-items: baseline;
    height: 22px;
    line-height: 20px;
  }
  .vacant {
    display: grid;
    grid-template-columns: 40px 1fr;
    align-items: baseline;
    height: var(--row);
    line-height: 22px;
    border-top: 1px solid transparent;
    border-bottom: 1px solid transparent;
    position: relative;
  }
  .vacant:hover {
    background: var(--hover);
  }
  .fifth {
    border-bottom-color: var(--rule);
  }
  .chosen::before {
    content: '';
    position: absolute;
    left: -10px;
    top: -1px;
    bottom: -1px;
    width: 4px;
    background: var(--ink);
  }
  .vacant:focus-visible {
    outline: 2px solid var(--accent);
    outline-offset: -2px;
  }
  @media (max-width: 720px) {
    .vacant {
      grid-template-columns: 32px 1fr;
      height: 44px;
      line-height: 42px;
      border-bottom-color: var(--rule);
    }
  }
</style>
