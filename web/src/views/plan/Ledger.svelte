<script lang="ts">
  import { untrack, type Snippet } from 'svelte';
  import type { Absent, Holding, Ledger, LoadInfo, Row, SetInfo } from '$lib/api/client';
  import { narrow } from '$lib/screen.svelte';
  import { commands } from '$session/commands.svelte';
  import { prints } from '$session/keys';
  import Absents from './Absents.svelte';
  import { Cells } from './cells.svelte';
  import { cellsOf, compareBy, gridOf, matching } from './columns';
  import { Drag } from './drag.svelte';
  import LedgerColumns from './LedgerColumns.svelte';
  import LedgerHead from './LedgerHead.svelte';
  import type { PlanState } from './plan.svelte';
  import SelectionBar from './SelectionBar.svelte';
  import SlotRow from './SlotRow.svelte';
  import { keepOrder, slotCommands } from './slots';
  import { RowWindow } from './window.svelte';

  interface Props {
    plan: PlanState;
    ledger: Ledger;
    load: LoadInfo;
    /** The other radios of the plan, and which has what. */
    others: readonly LoadInfo[];
    holdings: readonly Holding[];
    absent: readonly Absent[];
    sets: readonly SetInfo[];
    /** Goes to the entry line, to write into an empty slot. */
    write: (slot: number, begun?: string) => void;
    /** Shows everything that is found of one kind, to be fixed together. */
    fixAll: (rule: string) => void;
    /** What speaks about the selected slot, to be shown in its row on a phone. */
    evidence: Snippet | undefined;
  }
  let { plan, ledger, load, others, holdings, absent, sets, write, fixAll, evidence }: Props = $props();
  const radio = $derived(load.radio);
  const several = $derived(plan.several);

  let focused = $state(false);
  let high = $state(0);
  let grid = $state<HTMLElement>();
  let list = $state<HTMLElement>();
  let moving = $state<HTMLInputElement>();

  const rows = $derived(new Map(ledger.rows.map((r) => [r.slot, r])));
  const reach = $derived(cellsOf(narrow.is ? [] : others.map((l) => l.id)));
  const draftSlot = $derived(plan.reading?.channel.receive_hz ? plan.reading.slot : null);
  /** Where each other radio has a channel. */
  const held = $derived(Map.groupBy(holdings, (h) => h.channel));
  const counts = $derived(
    new Map(others.map((l) => [l.id, holdings.filter((h) => h.load === l.id && h.slot !== null).length])),
  );
  const set = $derived(sets.find((s) => s.id === plan.set));
  const members = $derived(set && new Set(set.members.map((m) => m.channel)));
  const filtered = $derived(
    plan.only !== null || plan.sought.trim() !== '' || plan.rule !== '' || members !== undefined,
  );
  const setsOf = $derived(
    Map.groupBy(
      sets.flatMap((s) => s.members.map((m) => ({ ...m, set: s }))),
      (m) => m.channel,
    ),
  );
  /** The slots on show: all up to a little past the last one in use. */
  const slots = $derived.by(() => {
    const { sort } = plan;
    if (filtered || sort) {
      const some = ledger.rows.filter(
        (r) =>
          (plan.only === null || r.verdict === plan.only) &&
          (plan.rule === '' || r.rules.includes(plan.rule)) &&
          (members?.has(r.id) ?? true) &&
          matching(r, plan.sought),
      );
      if (sort) some.sort((a, b) => (sort.down ? -1 : 1) * compareBy(sort.column, a, b));
      return some.map((r) => r.slot);
    }
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
      pinned: false,
      standing: { now: 'planned', was: '', person: 0, at: null },
      watts: r.watts,
      scan: r.scan,
      verdict: r.verdict,
      flags,
      rules: [],
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
      return (rowOf(s) ? 54 : 44) + (s === plan.selected && cells.open && rows.has(s) ? high : 0);
    }),
  );
  // svelte-ignore state_referenced_locally
  const cells = new Cells(plan, () => ({
    slots,
    rows,
    cells: reach,
    others,
    held,
    reveal: (n) => {
      view.reveal(list, n);
    },
    focus: () => grid?.focus({ preventScroll: true }),
    write,
  }));
  // svelte-ignore state_referenced_locally
  const drag = new Drag(plan, () => ({ list, slots, view }));

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

  $effect(() =>
    untrack(() =>
      commands.add(
        ...slotCommands({
          plan,
          cells,
          shown: () => slots,
          page: () => Math.max(1, Math.floor((list?.parentElement?.clientHeight ?? 240) / 24) - 2),
          whither: () => moving?.focus(),
        }),
      ),
    ),
  );

  function keydown(e: KeyboardEvent) {
    if (cells.editing || e.target !== grid) return;
    if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'v') {
      over = e.shiftKey; // the browser hands the clipboard over by itself
      return;
    }
    if (commands.act('In the slots', e)) return;
    if (prints(e) && !'=/ '.includes(e.key) && cells.type(e.key)) {
      e.preventDefault();
      e.stopPropagation();
    }
  }

  /** Whether the paste that comes stores over what is there. */
  let over = false;
  function paste(e: ClipboardEvent) {
    if (document.activeElement !== grid || cells.editing) return;
    const text = e.clipboardData?.getData('text/plain') ?? '';
    e.preventDefault();
    const plain = text.trim();
    // One word goes into the cell; a table makes channels.
    if (
      plain &&
      !/[\t\n]/.test(plain) &&
      typeof cells.at === 'string' &&
      cells.at !== 'slot' &&
      several.held.length > 0 &&
      !over
    )
      void several.fill(cells.at, plain, several.held);
    else void several.paste(text, over);
    over = false;
  }

  /** A click chooses a slot and a cell; a double click edits, or writes into an empty slot. On a phone a touch opens the row. */
  function point(e: MouseEvent) {
    const target = e.target instanceof Element ? e.target : null;
    const slot = Number(target?.closest('[role="row"][id]')?.id.replace('slot-', '') ?? NaN);
    if (Number.isNaN(slot) || target?.closest('input, button, a, .opened') || drag.ended) return;
    const cell = target?.closest<HTMLElement>('[data-column]')?.dataset.column;
    const hit = reach.find((c) => String(c) === cell);
    const takes = (narrow.is && plan.choosing) || e.shiftKey || e.ctrlKey || e.metaKey;
    if (takes && e.type === 'dblclick') return; // the two clicks did it
    if (narrow.is && plan.choosing) {
      several.toggle(slot, false);
      return;
    }
    if (narrow.is) {
      const again = slot === plan.selected && cells.open;
      void cells.select(slot).then(() => (cells.open = !again && rows.has(slot)));
      if (!rows.has(slot)) write(slot);
    } else if (e.shiftKey) {
      several.extend(slot, slots);
      grid?.focus({ preventScroll: true });
    } else if (e.ctrlKey || e.metaKey) {
      several.toggle(slot);
      grid?.focus({ preventScroll: true });
    } else if (e.type === 'dblclick' && typeof hit === 'string') void cells.edit(slot, hit);
    else if (e.type === 'dblclick') cells.enter();
    else {
      several.clear();
      cells.at = hit ?? cells.at;
      void cells.select(slot);
    }
  }

  const shown = $derived(view.range);
  const named = (c: typeof cells.at) => (typeof c === 'number' ? `other-${String(c)}` : c);
  const active = $derived(
    plan.selected === null || !slots.slice(shown.first, shown.end).includes(plan.selected)
      ? undefined
      : rows.has(plan.selected)
        ? `cell-${String(plan.selected)}-${named(cells.at)}`
        : `cell-${String(plan.selected)}-slot`,
  );
</script>

<svelte:document onpaste={paste} />

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
    {sets}
    {fixAll}
    into={() => {
      const first = slots[0];
      if (first !== undefined)
        void cells.select(slots.includes(plan.selected ?? -1) ? (plan.selected ?? first) : first);
    }}
    back={() => grid?.focus()}
  />
  <SelectionBar
    {plan}
    {sets}
    several={others.length > 0}
    keep={() => void keepOrder(plan, slots)}
    back={() => grid?.focus()}
    bind:moving
  />
  <div class={others.length > 4 && !narrow.is ? 'overflow-x-auto' : ''}>
    <div
      role="grid"
      id="slots"
      tabindex="0"
      aria-label="Slots"
      aria-rowcount={slots.length + 1}
      aria-multiselectable="true"
      aria-activedescendant={active}
      bind:this={grid}
      onkeydown={keydown}
      onclick={point}
      ondblclick={point}
      onpointerdown={(e) => {
        if (!narrow.is) drag.down(e);
      }}
      onfocus={() => (focused = true)}
      onblur={() => (focused = false)}
      class="grid-box pb-1 outline-none"
    >
      <LedgerColumns {plan} {others} {counts} />
      <div {@attach view.attach} bind:this={list} role="rowgroup" class="relative" style:height="{view.whole}px">
        {#if drag.to !== null}<div class="drop" style:top="{view.start(slots.indexOf(drag.to))}px" aria-hidden="true">
            {drag.says}
          </div>{/if}
        <div class="absolute inset-x-0" style:top="{view.start(shown.first)}px" role="presentation">
          {#each slots.slice(shown.first, shown.end) as slot, n (slot)}
            {@const row = rowOf(slot)}
            {@const chosenHere = plan.selected === slot}
            {@const among = several.slots.has(slot)}
            {#if row}
              <SlotRow
                {row}
                index={shown.first + n + 2}
                draft={!rows.has(slot)}
                selected={chosenHere}
                {among}
                cut={several.cut?.load === ledger.load && several.cut.slots.includes(slot)}
                focused={chosenHere && focused}
                active={chosenHere && rows.has(slot) && (cells.editing || (focused && !narrow.is))
                  ? cells.at
                  : undefined}
                editing={cells.editing && chosenHere}
                begun={cells.begun}
                {others}
                held={held.get(row.id) ?? []}
                sets={plan.side === 'sets' ? (setsOf.get(row.id) ?? []) : []}
                offers={(c) => plan.offers(slot, c)}
                typed={(c) => plan.typed(slot, c)}
                theirs={(t) => {
                  plan.theirs(t);
                  grid?.focus();
                }}
                mine={(t) => void plan.mine(t)}
                save={(c, text) => cells.save(slot, c, text)}
                done={(d) => void cells.done(d)}
                beside={(other) => void cells.beside(row, other)}
                opened={chosenHere && cells.open && narrow.is && rows.has(slot) ? evidence : undefined}
                bind:high
              />
            {:else}
              <div
                role="row"
                id="slot-{slot}"
                aria-rowindex={shown.first + n + 2}
                aria-selected={chosenHere || among}
                class="vacant"
                class:chosen={chosenHere}
                class:among
                class:focused={chosenHere && focused}
                class:fifth={slot % 5 === 0}
              >
                <span role="gridcell" id="cell-{slot}-slot" class="pl-1 font-figs text-ink3">{slot}</span>
                <span role="gridcell" class="text-label text-ink3">
                  empty{chosenHere && focused ? ': type here, or press Enter' : ''}
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
        : set
          ? `${load.unit.name} has no channel of ${set.name}.`
          : `No channel here is ${plan.only ?? 'of this kind'}.`}
      <button
        type="button"
        class="link"
        onclick={() => {
          plan.showAll();
        }}>Show all</button
      >
    </p>
  {/if}
  {#if !filtered && !plan.sort && absent.length > 0}<Absents {plan} {absent} {load} />{/if}
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
  .among {
    background: var(--hover);
    box-shadow: inset 4px 0 0 var(--ink3);
  }
  .drop {
    position: absolute;
    inset-inline: -10px 0;
    z-index: 4;
    border-top: 2px solid var(--accent);
    color: var(--accent);
    font-size: var(--t-note);
    line-height: 14px;
    padding-left: 10px;
    pointer-events: none;
    text-shadow: 0 0 3px var(--paper);
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
