import { tick } from 'svelte';
import type { Holding, LoadInfo, Row } from '$lib/api/client';
import { chosen } from '$lib/api/chosen.svelte';
import { choices, editText, nextChoice, type Column } from './columns';
import type { PlanState } from './plan.svelte';

/** What the grid shows at the moment. */
interface Shown {
  /** The slots, in the order in which they are shown. */
  slots: readonly number[];
  rows: ReadonlyMap<number, Row>;
  /** What keys reach in a row: columns, then other radios by their number. */
  cells: readonly (Column | number)[];
  others: readonly LoadInfo[];
  /** Where each channel is in the other radios. */
  held: ReadonlyMap<number, readonly Holding[]>;
  /** Brings a row into view. */
  reveal: (n: number) => void;
  /** Gives the grid the focus. */
  focus: () => void;
  /** Goes to the entry line, to write into an empty slot. */
  write: (slot: number, begun?: string) => void;
}

/** The cell that keys have reached, and what is typed into it. */
export class Cells {
  at = $state<Column | number>('name');
  editing = $state(false);
  /** What the editing began with, where a key began it. */
  begun = $state<string>();
  /** On a phone: whether the selected row is open. */
  open = $state(false);
  /** The revision that was shown when the editing began. */
  #began = 0;

  constructor(
    private readonly plan: PlanState,
    private readonly shown: () => Shown,
  ) {}

  async select(slot: number, focus = true): Promise<void> {
    const { plan } = this;
    if (slot !== plan.selected) this.open = false;
    plan.selected = slot;
    this.editing = false;
    await tick();
    const s = this.shown();
    s.reveal(s.slots.indexOf(slot));
    if (focus) s.focus();
  }

  /** Goes by so many rows; while Shift is held all on the way are chosen. */
  step(by: number, extend = false): void {
    const { slots } = this.shown();
    const n = slots.indexOf(this.plan.selected ?? -1);
    const to = slots[Math.min(Math.max(n + by, 0), slots.length - 1)];
    if (to === undefined) return;
    if (extend) this.plan.several.extend(to, slots);
    else this.plan.several.clear();
    void this.select(to);
  }

  /** Goes to the next end of a run of slots that are in use. */
  leap(by: -1 | 1): void {
    const { slots, rows } = this.shown();
    const from = slots.indexOf(this.plan.selected ?? -1);
    const used = (n: number) => rows.has(slots[n] ?? -1);
    let n = from;
    const end = by > 0 ? slots.length - 1 : 0;
    if (used(n) && used(n + by)) while (n !== end && used(n + by)) n += by;
    else
      do n += by;
      while (n > 0 && n < slots.length - 1 && !used(n));
    this.step(n - from);
  }

  across(by: number): void {
    const { cells } = this.shown();
    this.at = cells[Math.min(Math.max(cells.indexOf(this.at) + by, 0), cells.length - 1)] ?? this.at;
  }

  async edit(slot: number, cell: Column, begun?: string): Promise<void> {
    const row = this.shown().rows.get(slot);
    if (!row) return;
    const next = begun === undefined ? nextChoice(cell, editText(row, cell)) : undefined;
    this.at = cell;
    if (next !== undefined) {
      await this.plan.update(slot, { [cell]: next });
      await this.select(slot);
      return;
    }
    await this.select(slot, false);
    this.#began = this.plan.ledger?.revision ?? 0;
    this.begun = begun;
    this.editing = true;
  }

  /** A sign that was typed begins the cell anew; on an empty slot it begins the line. */
  type(sign: string): boolean {
    const slot = this.plan.selected;
    if (slot === null || typeof this.at === 'number') return false;
    if (this.shown().rows.has(slot)) void this.edit(slot, this.at, sign);
    else this.shown().write(slot, sign);
    return true;
  }

  save(slot: number, cell: Column, text: string): Promise<string | undefined> {
    return this.plan.cell(slot, cell, text, this.#began).then((wrong) => Object.values(wrong)[0]);
  }

  /** Ends editing and goes to the next cell, or with 'down' to the next row. */
  async done(direction: -1 | 0 | 1 | 'down'): Promise<void> {
    this.editing = false;
    this.begun = undefined;
    const slot = this.plan.selected;
    if (slot === null) return;
    if (direction === 'down') {
      this.step(1);
      return;
    }
    await this.select(slot);
    const edits = this.shown().cells.filter((c) => typeof c === 'string');
    const next = edits[edits.indexOf(this.at as Column) + direction];
    if (direction !== 0 && next !== undefined) {
      this.at = next;
      if (!choices[next]) await this.edit(slot, next);
    }
  }

  /** Acts on a cell of another radio: adds the channel, or goes there. */
  async beside(row: Row, other: number): Promise<void> {
    const { held, others, focus } = this.shown();
    const h = held.get(row.id)?.find((x) => x.load === other);
    const name = others.find((l) => l.id === other)?.unit.name ?? '';
    if (!h) return;
    if (h.slot === null) {
      if (h.can) await this.plan.copy(chosen.load, row.slot, other, name);
      else this.plan.trouble = `${name} cannot have it: ${h.losses[0] ?? 'it does not receive this frequency'}`;
      focus();
      return;
    }
    const { slot } = h;
    chosen.load = other;
    await tick();
    this.plan.selected = slot;
  }

  enter(): void {
    const slot = this.plan.selected;
    if (slot === null) return;
    const row = this.shown().rows.get(slot);
    if (!row) this.shown().write(slot);
    else if (typeof this.at === 'number') void this.beside(row, this.at);
    else void this.edit(slot, this.at);
  }
}
