import { browser } from '$lib/storage.svelte';
import { SvelteSet } from 'svelte/reactivity';
import { api, must, type Arrangement, type Ledger, type Pasted, type Row } from '$lib/api/client';
import { chosen } from '$lib/api/chosen.svelte';
import { say } from '$session/say.svelte';
import type { Write } from '$session/writes.svelte';
import { copied } from './clipboard';
import { runs } from './runs';
import type { PlanState } from './plan.svelte';

/** What is asked of somebody who pastes a table that can be read in two ways, and what was left out of it. */
export interface Pasting {
  text: string;
  slot: number;
  over: boolean;
  pasted: Pasted;
}

/** The slots that are chosen together, and what is done to them: each act is one step that undo takes back. */
export class Several {
  readonly slots = new SvelteSet<number>();
  /** Where a run of them began. */
  #anchor: number | null = null;
  /** The slots that were cut and go where they are pasted, and the text that was copied with them. */
  cut = $state.raw<{ load: number; slots: number[]; text: string } | null>(null);
  pasting = $state.raw<Pasting | null>(null);
  /** The other radios that have the channels in the same slots do the same. */
  everywhere = $state(browser.text('everywhere') === 'on');

  constructor(private readonly plan: PlanState) {}

  setEverywhere(on: boolean): void {
    this.everywhere = on;
    browser.keep('everywhere', on ? 'on' : 'off');
  }

  get ledger(): Ledger | undefined {
    return this.plan.ledger;
  }

  /** The chosen slots that hold something; the selected one where no others are. */
  get held(): number[] {
    const mine = (s: number) => (this.slots.size > 0 ? this.slots.has(s) : s === this.plan.selected);
    return (this.ledger?.rows ?? []).map((r) => r.slot).filter(mine);
  }

  clear(): void {
    this.slots.clear();
    this.#anchor = null;
  }

  /** Chooses all between where a run began and a slot, as they are shown. */
  extend(to: number, shown: readonly number[]): void {
    this.#anchor ??= this.plan.selected ?? to;
    const a = shown.indexOf(this.#anchor);
    const b = shown.indexOf(to);
    if (a < 0 || b < 0) return;
    this.slots.clear();
    for (const s of shown.slice(Math.min(a, b), Math.max(a, b) + 1)) this.slots.add(s);
    this.plan.selected = to;
  }

  /** Takes a slot in, or out again; the first time with the one that is selected already. */
  toggle(slot: number, and = true): void {
    const was = this.plan.selected;
    if (and && this.slots.size === 0 && was !== null && was !== slot) this.slots.add(was);
    if (this.slots.has(slot)) this.slots.delete(slot);
    else this.slots.add(slot);
    this.#anchor = slot;
    this.plan.selected = slot;
  }

  all(shown: readonly number[]): void {
    this.slots.clear();
    for (const s of shown) this.slots.add(s);
  }

  async #act(w: Pick<Write, 'method' | 'path' | 'says'> & Partial<Write>): Promise<Ledger | undefined> {
    const out = await this.plan.desk.ask({ params: { path: { load: this.plan.load } }, load: this.plan.load, ...w });
    this.plan.answered(out);
    return out.done ? (out.data as Ledger | undefined) : undefined;
  }

  /** Whether nothing stands in the way of moving: a view that is sorted shows no order to move in. */
  get movable(): boolean {
    return this.plan.sort === null;
  }

  async arrange(act: Arrangement['act'], more: Partial<Arrangement> = {}): Promise<boolean> {
    const slots = more.slots ?? this.held;
    const done = await this.#act({
      method: 'POST',
      path: '/api/loads/{load}/arrange',
      body: { act, ...more, slots, everywhere: this.everywhere, revision: this.ledger?.revision ?? 0 },
      says: `${act} ${runs(slots)}`,
    });
    if (!done) return false;
    say.done(this.ledger?.undo ?? '');
    return true;
  }

  /** Moves what is chosen so that it begins at a slot; the choice goes along. */
  async move(to: number): Promise<void> {
    const from = this.held;
    const several = this.slots.size > 0;
    if (from.length === 0 || !(await this.arrange('move', { to }))) return;
    this.#follow(
      from.map((_, i) => to + i),
      several,
    );
  }

  async step(by: -1 | 1): Promise<void> {
    const from = this.held;
    const several = this.slots.size > 0;
    if (from.length === 0 || !(await this.arrange('step', { count: by }))) return;
    this.#follow(
      from.map((s) => s + by),
      several,
    );
  }

  #follow(to: readonly number[], several: boolean): void {
    this.clear();
    if (several) for (const s of to) this.slots.add(s);
    this.plan.selected = to[0] ?? this.plan.selected;
  }

  /** The two that are chosen change places. */
  async swap(): Promise<void> {
    const [a, b] = [...this.slots].sort((x, y) => x - y);
    if (a !== undefined && b !== undefined) await this.arrange('swap', { slots: [a], to: b });
  }

  async remove(): Promise<void> {
    const slots = this.held;
    if (slots.length === 0) return;
    const done = await this.#act({
      method: 'DELETE',
      path: '/api/loads/{load}/several',
      params: {
        path: { load: this.plan.load },
        query: { slots: slots.join(','), revision: this.ledger?.revision ?? 0 },
      },
      says: `empty ${runs(slots)}`,
    });
    if (!done) return;
    this.clear();
    say.done(
      slots.length === 1
        ? `Slot ${runs(slots)} is empty now; Ctrl+Z undoes it`
        : `Emptied ${runs(slots)}; Ctrl+Z undoes it`,
    );
  }

  async duplicate(): Promise<void> {
    const slots = this.held;
    if (slots.length === 0) return;
    if (
      await this.#act({
        method: 'POST',
        path: '/api/loads/{load}/several/copy',
        body: { slots, revision: this.ledger?.revision ?? 0 },
        says: `duplicate ${runs(slots)}`,
      })
    )
      say.done(this.ledger?.undo ?? '');
  }

  /** Works the short names of what is chosen out again; of all channels where nothing is. */
  async rename(): Promise<void> {
    const slots = this.slots.size > 0 ? this.held : [];
    if (
      await this.#act({
        method: 'POST',
        path: '/api/loads/{load}/names',
        body: { slots, revision: this.ledger?.revision ?? 0 },
        says: 'new short names',
      })
    )
      say.done(
        this.ledger?.undo.startsWith('name')
          ? 'Short names worked out again; Ctrl+Z undoes it'
          : 'The short names are as they should be',
      );
  }

  /** Gives the first value of what is chosen to the others. */
  async fill(column: string, text: string, slots: readonly number[] = this.held.slice(1)): Promise<boolean> {
    if (slots.length === 0) {
      this.plan.trouble = 'Choose the channel with the value and those below it: hold Shift and press ↓.';
      return false;
    }
    const done = await this.#act({
      method: 'PATCH',
      path: '/api/loads/{load}/several',
      body: { slots, fields: { [column]: text }, revision: this.ledger?.revision ?? 0 },
      says: `fill ${column.replace('_', ' ')} of ${runs(slots)}: ${text}`,
    });
    if (done) say.done(`Changed ${runs(slots)}`);
    return done !== undefined;
  }

  /** Copies what is chosen as a table for any spreadsheet. */
  async copy(cut = false): Promise<void> {
    const slots = this.held;
    if (slots.length === 0) {
      this.plan.trouble = 'Choose a channel to copy.';
      return;
    }
    try {
      const { text } = must(
        await api.GET('/api/loads/{load}/table', {
          params: { path: { load: this.plan.load }, query: { slots: slots.join(',') } },
        }),
      );
      await copied(text);
      this.cut = cut ? { load: this.plan.load, slots, text } : null;
      const n = slots.length === 1 ? '1 channel' : `${String(slots.length)} channels`;
      say.done(cut ? `Cut ${n}: they go where you paste them` : `Copied ${n}`);
    } catch (e) {
      this.plan.fail(e);
    }
  }

  /** Pastes a table from the selected slot on; what was cut here moves, and nothing of it is lost. */
  async paste(text: string, over = false, viewpoint?: 'operator' | 'repeater', at = this.plan.selected): Promise<void> {
    const slot = at ?? this.ledger?.rows[0]?.slot ?? 1;
    const { cut } = this;
    if (cut && cut.load === this.plan.load && same(cut.text, text)) {
      this.cut = null;
      if (await this.arrange('move', { slots: cut.slots, to: slot }))
        this.#follow(
          cut.slots.map((_, i) => slot + i),
          cut.slots.length > 1,
        );
      return;
    }
    const out = await this.plan.desk.ask({
      method: 'POST',
      path: '/api/loads/{load}/table',
      params: { path: { load: this.plan.load } },
      body: { text, slot, replace: over, ...(viewpoint ? { viewpoint } : {}), revision: this.ledger?.revision ?? 0 },
      load: this.plan.load,
      says: 'paste a table',
    });
    this.plan.answered(out);
    if (!out.done) return;
    const pasted = out.data as Pasted | undefined;
    this.pasting = pasted && (pasted.ask || pasted.left.length > 0) ? { text, slot, over, pasted } : null;
    if (!pasted?.ledger) return;
    say.done(`Pasted ${String(pasted.slots.length)} into ${runs(pasted.slots)}`);
    this.#follow(pasted.slots, pasted.slots.length > 1);
  }

  /** Applies fixes of one kind. */
  async fixAll(rule: string, fixes: readonly { slot: number; id: string }[]): Promise<boolean> {
    const done = await this.#act({
      method: 'POST',
      path: '/api/loads/{load}/kinds',
      body: { rule, fixes, revision: this.ledger?.revision ?? 0 },
      says: `fix ${String(fixes.length)} channels`,
    });
    if (done) say.done(this.ledger?.undo ?? '');
    return done !== undefined;
  }

  /** Says how far channels have come into the radio. */
  async stand(state: Row['standing']['now'], slots: readonly number[] = this.held): Promise<boolean> {
    if (slots.length === 0) return false;
    const done = await this.#act({
      method: 'POST',
      path: '/api/loads/{load}/standing',
      body: { slots, state, revision: this.ledger?.revision ?? 0 },
      says: `mark ${runs(slots)} as ${state}`,
    });
    if (done) say.done(this.ledger?.undo ?? '');
    return done !== undefined;
  }

  /** Puts the plan back as it was after a change. */
  async back(event: number): Promise<boolean> {
    const done = await this.#act({
      method: 'POST',
      path: '/api/loads/{load}/back',
      body: { event, revision: this.ledger?.revision ?? 0 },
      says: 'go back',
    });
    if (!done) return false;
    if (done.load !== this.plan.load) chosen.load = done.load; // the radio came later
    say.done('The plan is as it was then; Ctrl+Z undoes it');
    return true;
  }
}

/** Whether two texts hold the same cells; a clipboard may change how lines end. */
function same(a: string, b: string): boolean {
  const plain = (s: string) => s.replace(/\r\n?/g, '\n').trim();
  return plain(a) === plain(b);
}
