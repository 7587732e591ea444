import { isRecord, tab } from '$lib/storage.svelte';
import { api, type Ledger, type Problem } from '$lib/api/client';
import { link } from '$lib/api/link.svelte';

/** A change that is asked for; it can be kept as text and asked for again. */
export interface Write {
  /** Under this key it takes place once, however often it is asked for. */
  key: string;
  method: 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  path: string;
  params: { path: Record<string, number | string>; query?: Record<string, number | string> };
  body?: Record<string, unknown>;
  person: number;
  /** The radio whose slots it changes; 0 for none. */
  load: number;
  /** What it is, for the person: "store 146.55 Quay". */
  says: string;
  /** The line that was typed, or the cell. */
  line?: string;
  cell?: { slot: number; column: string; text: string };
}

/** What came of it: what the application holds now, what was wrong, or neither where it had taken place before. */
export interface Answer {
  data?: unknown;
  error?: Problem;
}

type Send = (path: string, init: object) => Promise<{ data?: unknown; error?: Problem; response?: Response }>;

/** How long it is tried again after, at first and in the end, in ms. */
const soon = 1000;
const late = 15_000;
const shelf = 'waiting';

const isWrites = (v: unknown): v is Write[] =>
  Array.isArray(v) &&
  v.every(
    (w) =>
      isRecord(w) &&
      typeof w.key === 'string' &&
      typeof w.method === 'string' &&
      ['POST', 'PUT', 'PATCH', 'DELETE'].includes(w.method) &&
      typeof w.path === 'string' &&
      typeof w.says === 'string' &&
      typeof w.person === 'number' &&
      typeof w.load === 'number' &&
      isRecord(w.params),
  );

/**
 * Every change of a plan goes through here, one after the other. One that gets
 * no answer, or that cannot be saved for now, waits and is asked for again by
 * itself, under the same key, until it is done, refused, or given up by the person.
 */
export class Writes {
  queue = $state.raw<readonly Write[]>([]);
  /** Why the first one is not saved yet; empty while nothing stands in the way. */
  trouble = $state('');
  /** Changes of before a reload that were refused: nobody waits for their answer. */
  refused = $state.raw<readonly { write: Write; why: string }[]>([]);
  #waiting: Record<string, ((a: Answer) => void) | undefined> = {};
  #running = false;
  #again: (() => void) | undefined;
  #stuck: (() => void)[] = [];

  constructor(
    private readonly taken: (ledger: Ledger) => void = () => undefined,
    /** The tag of the ledger of a radio that is held: only what is different is answered. */
    private readonly held: (load: number) => string | undefined = () => undefined,
  ) {}

  /** Asks for a change; the answer comes when there is one. */
  ask(w: Omit<Write, 'key'>): Promise<Answer> {
    const write = { ...w, key: crypto.randomUUID() };
    return new Promise((done) => {
      this.#waiting[write.key] = done;
      this.#set([...this.queue, write]);
      void this.#run();
    });
  }

  /** Takes up what was not saved when the page was left. */
  restore(): void {
    const left = tab.read(shelf, isWrites, []);
    if (left.length === 0) return;
    this.#set(left);
    void this.#run();
  }

  /** Tries again at once. */
  now(): void {
    this.#again?.();
  }

  /** Gives a change up that is not saved. The first one may have arrived: what the application holds is shown again. */
  discard(key: string): void {
    const gone = this.queue.find((w) => w.key === key);
    if (!gone) return;
    this.#set(this.queue.filter((w) => w.key !== key));
    this.#settle(gone, {
      error: { type: 'about:blank', title: 'Discarded', detail: 'Not saved: you discarded it.', status: 0 },
    });
    if (this.queue.length === 0) this.trouble = '';
    this.now();
  }

  /** What comes of something that was asked for, or nothing as soon as something stands in its way. */
  orStuck<T>(outcome: Promise<T>): Promise<T | undefined> {
    const stuck = new Promise<undefined>((r) => {
      if (this.trouble) r(undefined);
      else
        this.#stuck.push(() => {
          r(undefined);
        });
    });
    return Promise.race([outcome, stuck]);
  }

  #set(queue: readonly Write[]): void {
    this.queue = queue;
    tab.keep(shelf, queue.length === 0 ? undefined : JSON.stringify(queue));
  }

  async #run(): Promise<void> {
    if (this.#running) return;
    this.#running = true;
    for (let wait = soon, w = this.queue[0]; w !== undefined; w = this.queue[0]) {
      const answer = await this.#send(w);
      if (!this.queue.includes(w)) continue; // given up meanwhile
      if (typeof answer === 'string') {
        this.trouble = answer;
        for (const f of this.#stuck.splice(0)) f();
        await Promise.race([link.again(wait), new Promise<void>((go) => (this.#again = go))]);
        wait = Math.min(wait * 2, late);
        continue;
      }
      wait = soon;
      this.trouble = '';
      this.#set(this.#after(w, answer));
      this.#settle(w, answer);
    }
    this.#running = false;
  }

  /** Asks once. A text says why it is to be asked for again. */
  async #send(w: Write): Promise<Answer | string> {
    try {
      const send = api[w.method] as unknown as Send;
      const { data, error, response } = await send(w.path, {
        params: w.params,
        ...(w.body ? { body: w.body } : {}),
        headers: {
          'Idempotency-Key': w.key,
          ...(w.person ? { 'Mnemos-Person': String(w.person) } : {}),
          ...this.#base(w.load),
        },
      });
      if (!error) return response?.status === 204 ? {} : { data };
      if (error.status >= 500) return error.detail ?? 'Something went wrong in the application.';
      return { error };
    } catch {
      return 'The application does not answer. Start it again.';
    }
  }

  #base(load: number): Record<string, string> {
    const tag = load === 0 ? undefined : this.held(load);
    return tag ? { 'Mnemos-Ledger': tag } : {};
  }

  /** What waits next. What one has changed itself is no reason to refuse the next change of the same slot. */
  #after(w: Write, answer: Answer): readonly Write[] {
    const revision = (answer.data as Partial<Ledger> | undefined)?.revision;
    return this.queue
      .slice(1)
      .map((x) =>
        revision !== undefined && x.cell && w.cell && x.load === w.load && x.cell.slot === w.cell.slot
          ? { ...x, body: { ...x.body, revision } }
          : x,
      );
  }

  #settle(w: Write, answer: Answer): void {
    const done = this.#waiting[w.key];
    this.#waiting[w.key] = undefined;
    if (done) done(answer);
    else if (answer.error)
      this.refused = [...this.refused, { write: w, why: answer.error.detail ?? answer.error.title }];
    else if (answer.data) this.taken(answer.data as Ledger);
  }
}
