import type { QueryClient } from '@tanstack/svelte-query';
import type { Ledger } from '$lib/api/client';
import type { Told } from './stream';

type Row = { table: string; before: Record<string, unknown> | null; after: Record<string, unknown> | null; id: number };

/** What is asked anew when rows of a table change, besides the slots of radios. */
const asks: Record<string, readonly string[]> = {
  plan: ['workspace', 'settings', 'follows', 'holdings', 'find', 'nearby'],
  person: ['workspace', 'people', 'settings', 'follows', 'holdings'],
  unit: ['workspace', 'holdings', 'radios', 'find'],
  load: ['workspace', 'holdings', 'radios', 'find', 'follows', 'history', 'work', 'sets'],
  profile: ['workspace', 'radios', 'holdings', 'find', 'follows'],
  channel: ['holdings', 'find', 'nearby', 'radios', 'history', 'work', 'sets'],
  entry: ['holdings', 'find', 'nearby', 'radios', 'history', 'work', 'sets'],
  team_slot: ['work', 'holdings'],
  channel_set: ['sets', 'history'],
  member: ['sets', 'history'],
  snapshot: ['history'],
  standing: ['holdings', 'work', 'history'],
  template: ['templates'],
  correction: ['find', 'corrections', 'follows'],
  decision: ['find', 'decisions', 'follows'],
  edition: ['find', 'sources', 'nearby', 'workspace', 'follows', 'work'],
};

/** Tables that change what is said of every channel. */
const everywhere = ['plan', 'person', 'unit', 'load', 'profile', 'correction', 'decision', 'edition'];

/** The radios whose slots a change touches; undefined for all of them. */
function loads(changes: readonly Row[], ledgers: readonly Ledger[]): Set<number> | undefined {
  const out = new Set<number>();
  for (const c of changes) {
    if (everywhere.includes(c.table)) return undefined;
    for (const row of [c.before, c.after])
      if ((c.table === 'entry' || c.table === 'standing') && row) out.add(Number(row.load_id));
    if (c.table === 'channel') for (const l of ledgers) if (l.rows.some((r) => r.id === c.id)) out.add(l.load);
  }
  return out;
}

/**
 * Keeps what a tab has read in step with what happens. A change says which rows
 * it touched, and only what shows them is asked for again; the judgement on them
 * is the application's.
 */
export class Deltas {
  #kinds = new Set<string>();
  #loads = new Set<number>();
  #all = false;
  #waits = false;

  constructor(
    private readonly client: QueryClient,
    private readonly pause = 30,
  ) {}

  take(t: Told): void {
    if (t.kind === 'change') this.#change(t.data.event ?? 0, (t.data.changes ?? []) as Row[]);
    else if (t.kind === 'reset' || t.kind === 'catalog') this.#all = true;
    else if (t.kind === 'hello') this.#all ||= this.#behind(t.data.event ?? 0);
    else return;
    if (this.#waits) return;
    this.#waits = true;
    setTimeout(() => {
      this.#flush();
    }, this.pause);
  }

  get #ledgers(): Ledger[] {
    return this.client.getQueriesData<Ledger>({ queryKey: ['ledger'] }).flatMap(([, l]) => (l ? [l] : []));
  }

  /** Whether something happened since the slots were read. */
  #behind(head: number): boolean {
    return this.#ledgers.some((l) => l.revision < head);
  }

  #change(event: number, changes: readonly Row[]): void {
    for (const c of changes) for (const kind of asks[c.table] ?? []) this.#kinds.add(kind);
    const ledgers = this.#ledgers;
    const touched = loads(changes, ledgers);
    // An answer to a change of one's own holds it already.
    for (const l of ledgers) if (l.revision < event && (touched?.has(l.load) ?? true)) this.#loads.add(l.load);
  }

  #flush(): void {
    this.#waits = false;
    const { client } = this;
    if (this.#all) void client.invalidateQueries();
    else {
      for (const load of this.#loads) void client.invalidateQueries({ queryKey: ['ledger', load] });
      for (const kind of this.#kinds) void client.invalidateQueries({ queryKey: [kind] });
    }
    this.#all = false;
    this.#loads.clear();
    this.#kinds.clear();
  }
}
