import type { QueryClient } from '@tanstack/svelte-query';
import {
  api,
  ApiError,
  must,
  type Fix,
  type Ledger,
  type Problem,
  type Reading,
  type StatementID,
  type UpdateRequest,
} from '$lib/api/client';

type Answer = { data?: Ledger; error?: Problem };
type Fields = Omit<UpdateRequest, 'revision'>;

/** What the Plan view holds: the line being typed, what is selected, and the actions on the ledger. */
export class PlanState {
  load = $state(0);
  line = $state('');
  /** The slot that the line goes to, if the person chose one. */
  place = $state<number | null>(null);
  reading = $state.raw<Reading | null>(null);
  selected = $state<number | null>(null);
  /** What has just happened, for the screen and for screen readers. */
  message = $state('');
  /** What could not be done, with what to do instead. */
  trouble = $state('');

  /** Lines that were pasted together and wait for their turn. */
  pasted = $state<string[]>([]);

  #asked = 0;
  /** The line that the reading is of. */
  #read = '';

  constructor(readonly client: QueryClient) {}

  open(load: number): void {
    this.load = load;
    this.place = null;
    this.selected = null;
    this.trouble = '';
    // A line that was not stored survives a reload.
    this.line = localStorage.getItem(`line-${String(load)}`) ?? '';
    void this.read();
  }

  get ledger(): Ledger | undefined {
    return this.client.getQueryData<Ledger>(['ledger', this.load]);
  }

  type(line: string): void {
    this.line = line;
    this.trouble = '';
    localStorage.setItem(`line-${String(this.load)}`, line);
    void this.read();
  }

  /**
   * Takes several lines that were pasted at once: each is a channel of its
   * own. What is no channel, such as a heading, is left out by the reading.
   */
  async paste(text: string): Promise<void> {
    try {
      const answer = must(
        await api.POST('/api/loads/{load}/read', {
          params: { path: { load: this.load } },
          body: { line: text, slot: this.place },
        }),
      );
      const lines = answer.offers.map((o) => o.line);
      if (lines.length === 0) this.type(`${this.line}${text.replace(/\s+/g, ' ')}`);
      else {
        if (this.line.trim()) lines.unshift(this.line);
        this.pasted = lines;
        this.next();
      }
    } catch (e) {
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
    if (!line.trim()) {
      this.reading = null;
      this.#read = line;
      return;
    }
    try {
      const answer = await api.POST('/api/loads/{load}/read', {
        params: { path: { load: this.load } },
        body: { line, slot: this.place },
      });
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
    const lines = this.reading?.lines.flat() ?? [];
    const line = lines[n];
    if (line === undefined) return false;
    this.type(line);
    return true;
  }

  /**
   * Stores the line. It is cleared at once, so that the next one can be typed
   * without waiting, and comes back if it could not be stored.
   */
  async store(replace = false): Promise<boolean> {
    if (this.#read !== this.line) await this.read();
    const { line, place, reading } = this;
    const revision = this.ledger?.revision;
    if (!reading || revision === undefined) return false;
    if (reading.occupied && !replace) {
      this.trouble = `Slot ${String(reading.slot)} holds ${reading.occupied}. The fix below uses an empty slot; Shift+Enter stores over it.`;
      return false;
    }
    this.place = null;
    if (reading.complete) this.type('');
    const done = await this.#change(
      api.POST('/api/loads/{load}/entries', {
        params: { path: { load: this.load } },
        // The slot that was shown: if somebody else has it by now, that is said.
        body: { line, slot: place ?? reading.slot, replace, revision },
      }),
      `Stored in slot ${String(reading.slot)}`,
    );
    if (done) {
      this.selected = reading.slot;
      if (this.line === '') this.next();
      return true;
    }
    const { trouble } = this;
    this.place = place;
    if (this.line === '') this.type(line);
    this.trouble = this.line === line ? trouble : `${trouble} Not stored: ${line}`;
    return false;
  }

  /** Changes fields of a slot as typed; returns what is wrong with each. */
  async update(slot: number, fields: Fields): Promise<Record<string, string>> {
    const revision = this.ledger?.revision ?? 0;
    const answer = await api.PATCH('/api/loads/{load}/entries/{slot}', {
      params: { path: { load: this.load, slot } },
      body: { ...fields, revision },
    });
    const faults = answer.error?.errors;
    if (faults) return Object.fromEntries(faults.map((f) => [f.field, f.message]));
    await this.#change(Promise.resolve(answer), `Changed slot ${String(slot)}`);
    if (fields.slot !== undefined) this.selected = Number(fields.slot.replace('#', ''));
    return {};
  }

  fix(slot: number, fix: Fix): Promise<boolean> {
    if (fix.slot !== undefined) return this.update(slot, { slot: String(fix.slot) }).then(() => true);
    const revision = this.ledger?.revision ?? 0;
    return this.#change(
      api.POST('/api/loads/{load}/entries/{slot}/fix', {
        params: { path: { load: this.load, slot } },
        body: { id: fix.id, revision },
      }),
      `${fix.label}: done in slot ${String(slot)}`,
    );
  }

  /** Adds published repeaters, each to the next vacant slot. */
  async add(ids: StatementID[]): Promise<boolean> {
    const revision = this.ledger?.revision ?? 0;
    const answer = await api.POST('/api/loads/{load}/found', {
      params: { path: { load: this.load } },
      body: { ids, revision },
    });
    const skipped = answer.data?.skipped ?? [];
    const done = await this.#change(
      Promise.resolve(answer.data ? { data: answer.data.ledger } : { error: answer.error }),
      `Added ${String(answer.data?.slots.length ?? 0)}`,
    );
    if (skipped.length > 0) this.trouble = `Not added: ${skipped.map((s) => s.why).join('; ')}`;
    return done;
  }

  remove(slot: number): Promise<boolean> {
    const revision = this.ledger?.revision ?? 0;
    return this.#change(
      api.DELETE('/api/loads/{load}/entries/{slot}', {
        params: { path: { load: this.load, slot }, query: { revision } },
      }),
      `Slot ${String(slot)} is empty now; Ctrl+Z undoes it`,
    );
  }

  undo(redo = false): Promise<boolean> {
    const ledger = this.ledger;
    if (!ledger || !(redo ? ledger.redo : ledger.undo)) {
      this.message = redo ? 'Nothing to redo' : 'Nothing to undo';
      return Promise.resolve(false);
    }
    return this.#change(
      api.POST('/api/loads/{load}/undo', {
        params: { path: { load: this.load } },
        body: { redo, revision: ledger.revision },
      }),
      redo ? `Redone: ${ledger.redo}` : `Undone: ${ledger.undo}`,
    );
  }

  async #change(request: Promise<Answer>, message: string): Promise<boolean> {
    this.trouble = '';
    try {
      this.#take(must(await request));
      this.message = message;
      return true;
    } catch (e) {
      if (e instanceof ApiError && e.problem.ledger) this.#take(e.problem.ledger);
      this.fail(e);
      return false;
    }
  }

  #take(ledger: Ledger): void {
    this.client.setQueryData(['ledger', ledger.load], ledger);
    if (ledger.load !== this.load) {
      // The change took this radio out of the plan.
      localStorage.setItem('load', String(ledger.load));
      this.open(ledger.load);
      void this.client.invalidateQueries({ queryKey: ['workspace'] });
    }
    // The radios of a plan share its channels, so the others are read again.
    void this.client.invalidateQueries({
      predicate: (q) => q.queryKey[0] === 'ledger' && q.queryKey[1] !== ledger.load,
    });
    void this.read();
  }

  fail(e: unknown): void {
    this.trouble =
      e instanceof ApiError ? e.message : 'The application does not answer. Is it still running? Your line is kept.';
  }
}
