import { browser } from '$lib/storage.svelte';
import { SvelteMap } from 'svelte/reactivity';
import {
  api,
  ApiError,
  must,
  type Added,
  type Fix,
  type Ledger,
  type Reading,
  type Row,
  type StatementID,
  type UpdateRequest,
  type Verdict,
} from '$lib/api/client';
import { chosen } from '$lib/api/chosen.svelte';
import { link } from '$lib/api/link.svelte';
import { putsWords } from '$lib/puts';
import type { Desk, Outcome } from '$session/desk.svelte';
import { say } from '$session/say.svelte';
import type { Write } from '$session/writes.svelte';
import { editText, published, type Column } from './columns';
import { Several } from './several.svelte';

/** What the panel at the right shows. */
export type SideView = 'channel' | 'work' | 'sets' | 'history';

type Fields = Omit<UpdateRequest, 'revision'>;

/** What was typed into a cell and is not saved: it waits, or it was refused. */
export interface Typed {
  slot: number;
  column: Column;
  text: string;
  state: 'waiting' | 'refused';
  why: string;
}

const path = '/api/loads/{load}/entries/{slot}';
const place = (slot: number, column: string) => `${String(slot)} ${column}`;

/** What the Plan view holds: the line being typed, what is selected, and the acts on the slots. */
export class PlanState {
  line = $state('');
  /** The slot that the line goes to, if the person chose one. */
  place = $state<number | null>(null);
  reading = $state.raw<Reading | null>(null);
  selected = $state<number | null>(null);
  /** What could not be done, with what to do instead. */
  trouble = $state('');
  /** Lines that were pasted together and wait for their turn. */
  pasted = $state<string[]>([]);
  /** The verdict that is shown alone, and the text that is looked for. */
  only = $state<Verdict | null>(null);
  sought = $state('');
  /** The rule that is shown alone, and the set; 0 for none. */
  rule = $state('');
  set = $state(0);
  /** By which column the view is sorted; null for the order of the slots. */
  sort = $state<{ column: Column | 'evidence'; down: boolean } | null>(null);
  readonly several = new Several(this);
  side = $state<SideView>('channel');
  /** The rule of which everything is fixed together, while that is looked at; and whether the matrix is open. */
  fixing = $state('');
  matrix = $state(false);
  files = $state(false);
  columns = $state(false);
  /** On a phone: whether a touch takes a slot into the choice. */
  choosing = $state(false);

  #refused = new SvelteMap<string, Typed>();
  #asked = 0;
  /** The radio whose slots are shown; 0 for none yet. */
  #opened = 0;
  /** The line that the reading is of. */
  #read = '';

  constructor(readonly desk: Desk) {}

  /** Takes every filter away. */
  showAll(): void {
    this.only = null;
    this.sought = '';
    this.rule = '';
    this.set = 0;
  }

  get load(): number {
    return chosen.load;
  }

  open(): void {
    this.place = null;
    this.selected = null;
    this.trouble = '';
    this.showAll();
    this.sort = null;
    this.several.clear();
    this.#refused.clear();
    // A line that was not stored survives a reload; one that was begun before the
    // slots were there is for these.
    const begun = this.#opened === 0 ? this.line : '';
    this.#opened = this.load;
    this.line = begun || (browser.text(`line-${String(this.load)}`) ?? '');
    void this.read();
  }

  get ledger(): Ledger | undefined {
    return this.desk.ledger(this.load);
  }

  type(line: string): void {
    this.line = line;
    this.trouble = '';
    browser.keep(`line-${String(this.load)}`, line);
    void this.read();
  }

  #ask(line: string) {
    return api.POST('/api/loads/{load}/read', {
      params: { path: { load: this.load } },
      body: { line, slot: this.place, also: [...chosen.also] },
    });
  }

  /**
   * Takes several lines that were pasted at once: each is a channel of its
   * own. What is not a channel, such as a heading, is left out by the reading.
   */
  async paste(text: string): Promise<void> {
    try {
      const answer = must(await this.#ask(text));
      const lines = answer.offers.map((o) => o.line);
      if (lines.length === 0) this.type(`${this.line}${text.replace(/\s+/g, ' ')}`);
      else {
        if (this.line.trim()) lines.unshift(this.line);
        this.pasted = [...this.pasted, ...lines];
        if (!this.line.trim() || this.line === lines[0]) this.next();
      }
    } catch (e) {
      this.type(`${this.line}${text.trim().replace(/\s+/g, ' ')}`);
      this.fail(e);
    }
  }

  /** Puts a pasted line into the entry line; the others keep waiting. */
  next(n = 0): void {
    const line = this.pasted[n];
    if (line === undefined) return;
    const rest = this.pasted.filter((_, i) => i !== n);
    if (this.line.trim() && this.line !== line) rest.unshift(this.line);
    this.pasted = rest;
    this.type(line);
  }

  /** Reads the line; an answer that a later one has overtaken is dropped. */
  async read(): Promise<void> {
    const asked = ++this.#asked;
    const line = this.line;
    if (!line.trim() || this.load === 0) {
      this.reading = null;
      this.#read = line;
      return;
    }
    try {
      const answer = await this.#ask(line);
      if (asked !== this.#asked) return;
      this.reading = must(answer);
      this.#read = line;
    } catch (e) {
      if (asked === this.#asked) this.fail(e);
    }
  }

  /**
   * Applies the nth fix of the line, counted over all its findings. A reading
   * of an earlier state of the line would undo what was typed since.
   */
  async fixLine(n: number): Promise<boolean> {
    if (this.#read !== this.line) await this.read();
    if (this.#read !== this.line) return false;
    const line = this.reading?.lines.flat()[n];
    if (line === undefined) return false;
    this.type(line);
    return true;
  }

  /**
   * Stores the line. It is cleared at once, so that the next one can be typed
   * without waiting, and comes back if it was refused. While nothing can be
   * saved it waits with those before it.
   */
  async store(replace = false): Promise<boolean> {
    const down = !link.up || this.desk.writes.trouble !== '';
    if (!down && this.#read !== this.line) await this.read();
    const { line, place } = this;
    const reading = this.#read === line && link.up ? this.reading : null;
    const revision = this.ledger?.revision;
    if (revision === undefined || (!reading && link.up && !down)) return false;
    if (reading?.occupied && !replace) {
      this.trouble = `Slot ${String(reading.slot)} holds ${reading.occupied}. The fix below uses an empty slot; Shift+Enter stores over it.`;
      return false;
    }
    const slot = place ?? reading?.slot ?? null;
    this.place = null;
    if (reading?.complete ?? true) this.type('');
    const out = await this.desk.ask({
      method: 'POST',
      path: '/api/loads/{load}/entries',
      params: { path: { load: this.load } },
      // The slot that was shown: if somebody else has it by now, that is said.
      body: { line, slot, replace, revision, also: [...chosen.also] },
      load: this.load,
      says: `store ${line}`,
      line,
    });
    if (out.done) {
      const at = slot ?? (out.data as Ledger | undefined)?.rows.find((r) => r.line === line)?.slot ?? null;
      this.#said(
        out,
        at === null ? 'Stored' : `Stored in slot ${String(at)}${putsWords((out.data as Ledger | undefined)?.puts)}`,
      );
      if (at !== null) this.selected = at;
      if (this.line === '') this.next();
      return true;
    }
    this.#said(out);
    const { trouble } = this;
    this.place = place;
    if (this.line === '') this.type(line);
    else if (this.line !== line) this.pasted = [line, ...this.pasted];
    this.trouble = this.line === line ? trouble : `${trouble} Not stored: ${line}`;
    return false;
  }

  /** What was typed into a cell and is not saved yet. */
  typed(slot: number, column: Column): Typed | undefined {
    const { writes } = this.desk;
    const waits = writes.trouble
      ? writes.queue.findLast((w) => w.load === this.load && w.cell?.slot === slot && w.cell.column === column)
      : undefined;
    if (waits?.cell) return { slot, column, text: waits.cell.text, state: 'waiting', why: writes.trouble };
    return this.#refused.get(place(slot, column));
  }

  /** What stands there is right, and not what was typed. */
  theirs(t: Typed): void {
    this.#refused.delete(place(t.slot, t.column));
  }

  /** What was typed is right: it is saved over what stands there. */
  async mine(t: Typed): Promise<void> {
    this.theirs(t);
    const wrong = Object.values(await this.cell(t.slot, t.column, t.text))[0];
    if (wrong !== undefined) this.#refused.set(place(t.slot, t.column), { ...t, state: 'refused', why: wrong });
  }

  #update(
    slot: number,
    fields: Fields,
    { seen, ...more }: Pick<Write, 'says' | 'cell'> & { seen?: number | undefined },
  ): Promise<Outcome> {
    return this.desk.ask({
      method: 'PATCH',
      path,
      params: { path: { load: this.load, slot } },
      body: { ...fields, revision: seen ?? this.ledger?.revision ?? 0 },
      load: this.load,
      ...more,
    });
  }

  /**
   * Saves what was typed into a cell; returns what is wrong with it. What cannot
   * be saved for now waits, and what somebody else has changed meanwhile is shown
   * beside theirs, for the person to choose: seen is the revision when they began.
   */
  async cell(slot: number, column: Column, text: string, seen?: number): Promise<Record<string, string>> {
    const { writes } = this.desk;
    this.trouble = '';
    const fields = { [column]: text } as Fields;
    const out = this.#update(slot, fields, {
      says: `${column.replace('_', ' ')} of slot ${String(slot)}: ${text}`,
      cell: { slot, column, text },
      seen,
    });
    const over = (o: Outcome, late: boolean): Record<string, string> => {
      if (o.done) {
        say.done(`Changed slot ${String(slot)}`);
        if (fields.slot !== undefined) this.selected = Number(fields.slot.replace('#', ''));
        void this.read();
        return {};
      }
      const faults = o.problem?.errors;
      if (faults && !late) return Object.fromEntries(faults.map((f) => [f.field, f.message]));
      if (o.problem?.status === 0) return {}; // given up by the person
      const why = faults?.map((f) => f.message).join(' ') ?? o.problem?.detail ?? o.problem?.title ?? '';
      this.#refused.set(place(slot, column), { slot, column, text, state: 'refused', why });
      return {};
    };
    const first = await writes.orStuck(out);
    if (first) return over(first, false);
    void out.then((o) => {
      over(o, true);
    });
    return {};
  }

  /** Changes fields of a slot that nobody types; returns what is wrong with each. */
  async update(slot: number, fields: Fields): Promise<Record<string, string>> {
    const out = await this.#update(slot, fields, { says: `change slot ${String(slot)}` });
    const faults = out.problem?.errors;
    if (faults) return Object.fromEntries(faults.map((f) => [f.field, f.message]));
    this.#said(out, `Changed slot ${String(slot)}`);
    if (out.done && fields.slot !== undefined) this.selected = Number(fields.slot.replace('#', ''));
    return {};
  }

  async fix(slot: number, fix: Fix): Promise<boolean> {
    if (fix.slot !== undefined) return Object.keys(await this.update(slot, { slot: String(fix.slot) })).length === 0;
    return this.#act(
      { method: 'POST', path: `${path}/fix`, body: { id: fix.id }, says: `${fix.label} in slot ${String(slot)}` },
      slot,
      `${fix.label}: done in slot ${String(slot)}`,
    );
  }

  /** Puts a channel into another radio of the plan too. */
  async copy(from: number, slot: number, to: number, name: string): Promise<boolean> {
    const out = await this.desk.ask({
      method: 'POST',
      path: `${path}/copy`,
      params: { path: { load: from, slot } },
      body: { load: to, revision: this.ledger?.revision ?? 0 },
      load: from,
      says: `add slot ${String(slot)} to ${name}`,
    });
    this.#said(out, `Added to ${name}`);
    return out.done;
  }

  /** Adds published repeaters, each to the next empty slot. */
  async add(ids: StatementID[]): Promise<boolean> {
    const out = await this.desk.ask({
      method: 'POST',
      path: '/api/loads/{load}/found',
      params: { path: { load: this.load } },
      body: { ids, revision: this.ledger?.revision ?? 0, also: [...chosen.also] },
      load: this.load,
      says: `add ${String(ids.length)} repeaters`,
    });
    const added = out.data as Added | undefined;
    this.#said(out, `Added ${String(added?.slots.length ?? 0)}${putsWords(added?.puts)}`);
    if (added && added.skipped.length > 0) this.trouble = `Not added: ${added.skipped.map((s) => s.why).join('; ')}`;
    return out.done;
  }

  /** What may be written into a cell instead: other short names, or what is published on the frequency. */
  async offers(slot: number, column: Column): Promise<string[]> {
    const at = { params: { path: { load: this.load, slot } } };
    try {
      if (column === 'short_name') return must(await api.GET(`${path}/names`, at)).names;
      const { matches, channel } = must(await api.GET(path, at));
      const all = matches.map((m) => published(m, column)).filter((t) => t !== '');
      return all.filter((t, i) => all.indexOf(t) === i && t !== editText({ channel } as Row, column)).slice(0, 6);
    } catch {
      return []; // an offer is no more than that
    }
  }

  remove(slot: number): Promise<boolean> {
    return this.#act(
      { method: 'DELETE', path, says: `empty slot ${String(slot)}` },
      slot,
      `Slot ${String(slot)} is empty now; Ctrl+Z undoes it`,
    );
  }

  async #act(act: Pick<Write, 'method' | 'path' | 'says' | 'body'>, slot: number, message: string): Promise<boolean> {
    const revision = this.ledger?.revision ?? 0;
    const out = await this.desk.ask({
      ...act,
      params: { path: { load: this.load, slot }, ...(act.body ? {} : { query: { revision } }) },
      ...(act.body ? { body: { ...act.body, revision } } : {}),
      load: this.load,
    });
    this.#said(out, message);
    return out.done;
  }

  /** What came of a change of several slots. */
  answered(out: Outcome): void {
    this.#said(out);
  }

  #said(out: Outcome, message = ''): void {
    this.trouble = '';
    if (!out.done) {
      const p = out.problem;
      this.trouble = p?.errors?.map((e) => e.message).join(' ') ?? p?.detail ?? p?.title ?? '';
    } else if (message) say.done(message);
    void this.read();
  }

  fail(e: unknown): void {
    if (e instanceof ApiError) this.trouble = e.message;
    else this.reading = null; // that there is no answer is said above, and the line is kept
  }
}
