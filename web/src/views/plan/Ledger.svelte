<script lang="ts">
  import { tick, untrack, type Snippet } from 'svelte';
  import { chosen } from '$lib/api/chosen.svelte';
  import type { Absent, Holding, Ledger, LoadInfo, Row } from '$lib/api/client';
  import { narrow } from '$lib/screen.svelte';
  import { commands } from '$session/commands.svelte';
  import Absents from './Absents.svelte';
  import { cellsOf, editText, gridOf, matching, nextChoice, type Column } from './columns';
  import LedgerColumns from './LedgerColumns.svelte';
  import LedgerHead from './LedgerHead.svelte';
  import type { PlanState } from './plan.svelte';
  import SlotRow from './SlotRow.svelte';
  import { slotCommands } from './slots';
  import { RowWindow } from './window.svelte';

  interface Props {
    plan: PlanState;
    ledger: Ledger;
    load: LoadInfo;
    /** The other radios of the plan, and which has what. */
    others: readonly LoadInfo[];
    holdings: readonly Holding[];
    absent: readonly Absent[];
    /** Goes to the entry line, to write into an empty slot. */
    write: (slot: number) => void;
    /** What speaks about the selected slot, to be shown in its row on a phone. */
    evidence: Snippet | undefined;
  }
  let { plan, ledger, load, others, holdings, absent, write, evidence }: Props = $props();
  const radio = $derived(load.radio);

  let at = $state<Column | number>('name');
  let editing = $state(false);
  /** The revision that was shown when the editing began. */
  let began = 0;
  let focused = $state(false);
  /** On a phone: whether the selected row is open. */
  let open = $state(false);
  let high = $state(0);
  let grid = $state<HTMLElement>();
  let list = $state<HTMLElement>();

  const rows = $derived(new Map(ledger.rows.map((r) => [r.slot, r])));
  const cells = $derived(cellsOf(narrow.is ? [] : others.map((l) => l.id)));
  const draftSlot = $derived(plan.reading?.channel.receive_hz ? plan.reading.slot : null);
  /** Where each other radio has a channel. */
  const held = $derived(Map.groupBy(holdings, (h) => h.channel));
  const counts = $derived(
    new Map(others.map((l) => [l.id, holdings.filter((h) => h.load === l.id && h.slot !== null).length])),
  );
  const filtered = $derived(plan.only !== null || plan.sought.trim() !== '');
  /** The slots on show: all up to a little past the last one in use. */
  const slots = $derived.by(() => {
    if (filtered)
      return ledger.rows
        .filter((r) => (plan.only === null || r.verdict === plan.only) && matching(r, plan.sought))
        .map((r) => r.slot);
    const last = Math.max(ledger.rows.at(-1)?.slot ?? radio.slots.first, draftSlot ?? 0, plan.selected ?? 0);
    const end = Math.min(radio.slots.last, Math.max(last + 2, radio.slots.first + 11));
    return Array.from({ length: end - radio.slots.first + 1 }, (_, i) => radio.slots.first + i);
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

  const rowOf = (slot: number) => rows.get(slot) ?? (draft?.slot === slot ? draft : undefined);
  const view = new RowWindow(() =>
    slots.map((s) => {
      if (!narrow.is) return 24;
      return (rowOf(s) ? 54 : 44) + (s === plan.selected && open && rows.has(s) ? high : 0);
    }),
  );

  // A filter shows its first slot in the panel, unless the one that is chosen is among them.
  $effect(() => {
    const first = slots[0];
    if (filtered && first !== undefined && !slots.includes(plan.selected ?? -1)) untrack(() => (plan.selected = first));
  });
  // What is chosen elsewhere, on the ribbon or by storing, is shown here.
  $effect(() => {
    const n = slots.indexOf(plan.selected ?? -1);
    if (n >= 0)
      untrack(() => {
        if (!narrow.is) view.reveal(list, n);
      });
  });

  async function select(slot: number, focus = true) {
    if (slot !== plan.selected) open = false;
    plan.selected = slot;
    editing = false;
    await tick();
    view.reveal(list, slots.indexOf(slot));
    if (focus) grid?.focus({ preventScroll: true });
  }

  async function edit(slot: number, cell: Column) {
    const row = rows.get(slot);
    if (!row) return;
    const next = nextChoice(cell, editText(row, cell));
    at = cell;
    if (next !== undefined) {
      await plan.update(slot, { [cell]: next });
      await select(slot);
      return;
    }
    await select(slot, false);
    began = ledger.revision;
    editing = true;
  }

  /** Acts on a cell of another radio: adds the channel, or goes there. */
  async function beside(row: Row, other: number) {
    const h = held.get(row.id)?.find((x) => x.load === other);
    const name = others.find((l) => l.id === other)?.unit.name ?? '';
    if (!h) return;
    if (h.slot === null) {
      if (h.can) await plan.copy(chosen.load, row.slot, other, name);
      else plan.trouble = `${name} cannot have it: ${h.losses[0] ?? 'it does not receive this frequency'}`;
      grid?.focus();
      return;
    }
    const slot = h.slot;
    chosen.load = other;
    await tick();
    plan.selected = slot;
  }

  async function done(direction: -1 | 0 | 1) {
    editing = false;
    const slot = plan.selected;
    if (slot === null) return;
    await select(slot);
    const edits = cells.filter((c) => typeof c === 'string');
    const next = edits[edits.indexOf(at as Column) + direction];
    if (direction !== 0 && next !== undefined) {
      at = next;
      if (!nextChoice(next, '')) await edit(slot, next);
    }
  }

  async function save(slot: number, cell: Column, text: string): Promise<string | undefined> {
    return Object.values(await plan.cell(slot, cell, text, began))[0];
  }

  function step(by: number) {
    const n = slots.indexOf(plan.selected ?? -1);
    const to = slots[Math.min(Math.max(n + by, 0), slots.length - 1)];
    if (to !== undefined) void select(to);
  }

  function across(by: -1 | 1) {
    at = cells[Math.min(Math.max(cells.indexOf(at) + by, 0), cells.length - 1)] ?? at;
  }

  async function move(by: -1 | 1) {
    const from = plan.selected;
    if (from === null || !rows.has(from)) return;
    const wrong = await plan.update(from, { slot: String(from + by), swap: true });
    const said = Object.values(wrong)[0];
    if (said !== undefined) plan.trouble = said;
    await select(plan.selected ?? from);
  }

  function enter() {
    const slot = plan.selected;
    if (slot === null) return;
    const row = rows.get(slot);
    if (!row) write(slot);
    else if (typeof at === 'number') void beside(row, at);
    else void edit(slot, at);
  }

  function remove() {
    const slot = plan.selected;
    if (slot !== null && rows.has(slot)) void plan.remove(slot).then(() => select(slot));
  }

  $effect(() =>
    untrack(() =>
      commands.add(
        ...slotCommands({
          step,
          page: () => Math.max(1, Math.floor((list?.parentElement?.clientHeight ?? 240) / 24) - 2),
          across,
          enter,
          remove,
          move: (by) => void move(by),
        }),
      ),
    ),
  );

  function keydown(e: KeyboardEvent) {
    if (editing || e.target !== grid) return;
    commands.act('In the slots', e);
  }

  /** A click chooses a slot and a cell; a double click edits, or writes into an empty slot. On a phone a touch opens the row. */
  function point(e: MouseEvent) {
    const target = e.target instanceof Element ? e.target : null;
    const slot = Number(target?.closest('[role="row"][id]')?.id.replace('slot-', '') ?? NaN);
    if (Number.isNaN(slot) || target?.closest('input, button, a, .opened')) return;
    const cell = target?.closest<HTMLElement>('[data-column]')?.dataset.column;
    const hit = cells.find((c) => String(c) === cell);
    if (narrow.is) {
      const again = slot === plan.selected && open;
      void select(slot).then(() => (open = !again && rows.has(slot)));
      if (!rows.has(slot)) write(slot);
    } else if (e.type === 'dblclick' && typeof hit === 'string') void edit(slot, hit);
    else if (e.type === 'dblclick') enter();
    else {
      at = hit ?? at;
      void select(slot);
    }
  }

  const shown = $derived(view.range);
  const named = (c: Column | number) => (typeof c === 'number' ? `other-${String(c)}` : c);
  const active = $derived(
    plan.selected === null
      ? undefined
      : rows.has(plan.selected)
        ? `cell-${String(plan.selected)}-${named(at)}`
        : `cell-${String(plan.selected)}-slot`,
  );
</script>

<section
  aria-label="Slots of {load.unit.name}"
  class="mt-1.5"
  style:--grid={gridOf(narrow.is ? 0 : others.length)}
  style:--least={others.length > 4 ? `${String(640 + others.length * 44)}px` : '0px'}
>
  <LedgerHead
    {plan}
    {ledger}
    {load}
    into={() => {
      const first = slots[0];
      if (first !== undefined) void select(slots.includes(plan.selected ?? -1) ? (plan.selected ?? first) : first);
    }}
    back={() => grid?.focus()}
  />
  <div class={others.length > 4 && !narrow.is ? 'overflow-x-auto' : ''}>
    <div
      role="grid"
      id="slots"
      tabindex="0"
      aria-label="Slots"
      aria-rowcount={slots.length + 1}
      aria-activedescendant={active}
      bind:this={grid}
      onkeydown={keydown}
      onclick={point}
      ondblclick={point}
      onfocus={() => (focused = true)}
      onblur={() => (focused = false)}
      class="grid-box pb-1 outline-none"
    >
      <LedgerColumns {others} {counts} />
      <div {@attach view.attach} bind:this={list} role="rowgroup" class="relative" style:height="{view.whole}px">
        <div class="absolute inset-x-0" style:top="{view.start(shown.first)}px" role="presentation">
          {#each slots.slice(shown.first, shown.end) as slot, n (slot)}
            {@const row = rowOf(slot)}
            {@const chosenHere = plan.selected === slot}
            {#if row}
              <SlotRow
                {row}
                index={shown.first + n + 2}
                draft={!rows.has(slot)}
                selected={chosenHere}
                focused={chosenHere && focused}
                active={chosenHere && rows.has(slot) && (editing || (focused && !narrow.is)) ? at : undefined}
                editing={editing && chosenHere}
                {others}
                held={held.get(row.id) ?? []}
                typed={(c) => plan.typed(slot, c)}
                theirs={(t) => {
                  plan.theirs(t);
                  grid?.focus();
                }}
                mine={(t) => void plan.mine(t)}
                save={(c, text) => save(slot, c, text)}
                done={(d) => void done(d)}
                beside={(other) => void beside(row, other)}
                opened={chosenHere && open && narrow.is && rows.has(slot) ? evidence : undefined}
                bind:high
              />
            {:else}
              <div
                role="row"
                id="slot-{slot}"
                aria-rowindex={shown.first + n + 2}
                aria-selected={chosenHere}
                class="vacant"
                class:chosen={chosenHere}
                class:focused={chosenHere && focused}
                class:fifth={slot % 5 === 0}
              >
                <span role="gridcell" id="cell-{slot}-slot" class="pl-1 font-figs text-ink3">{slot}</span>
                <span role="gridcell" class="text-label text-ink3">
                  empty{chosenHere && focused ? ': Enter writes here from the entry line' : ''}
                </span>
              </div>
            {/if}
          {/each}
        </div>
      </div>
    </div>
  </div>
  {#if slots.length === 0}
    <p class="py-4 pl-10 text-ink2 max-desk:pl-0" role="status">
      {plan.sought.trim()
        ? `Nothing in ${load.unit.name} matches "${plan.sought.trim()}"${plan.only ? ` and is ${plan.only}` : ''}.`
        : `No channel here is ${plan.only ?? ''}.`}
      <button
        type="button"
        class="link"
        onclick={() => {
          plan.only = null;
          plan.sought = '';
        }}>Show all</button
      >
    </p>
  {/if}
  {#if !filtered && absent.length > 0}<Absents {plan} {absent} {load} />{/if}
</section>

<style>
  .grid-box {
    min-width: var(--least);
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
  .focused {
    outline: 2px solid var(--accent);
    outline-offset: -2px;
  }
  @media (max-width: 45em) {
    .vacant {
      grid-template-columns: 32px 1fr;
      height: 44px;
      line-height: 42px;
      border-bottom-color: var(--rule);
    }
  }
</style>
