import type { QueryClient } from '@tanstack/svelte-query';
import { api, ApiError, did, must, type Rejects } from '$lib/api/client';

export type RejectedRow = Rejects['rows'][number];

/** Rows of a listing that could not be read, to be corrected one by one. */
export class RejectedState {
  rows = $state<RejectedRow[]>([]);
  columns = $state<string[]>([]);
  more = $state(false);
  /** What is typed, by row; it stays until the row is in the listing. */
  typed = $state<Record<number, string[]>>({});
  /** What is wrong with a row as it was typed last, by row and column; -1 is the row as a whole. */
  wrong = $state<Record<number, Record<number, string>>>({});
  message = $state('');
  trouble = $state('');

  constructor(
    private readonly source: () => string,
    private readonly client: QueryClient,
  ) {}

  async open(): Promise<void> {
    await this.#try(async () => {
      const path = { source: this.source() };
      const r = must(await api.GET('/api/sources/{source}/rejects', { params: { path } }));
      this.columns = r.columns;
      this.rows = r.rows;
      this.more = r.more;
      for (const row of r.rows) this.#begin(row);
    });
  }

  /** As many cells as the table has columns: one that is missing can be typed. */
  #begin(row: RejectedRow): void {
    if (row.id in this.typed) return;
    const width = Math.max(row.cells.length, this.columns.length, ...row.faults.map((f) => f.column + 1));
    this.typed[row.id] = Array.from({ length: width }, (_, i) => row.cells[i] ?? '');
    this.wrong[row.id] = {};
    for (const f of row.faults) this.#blame(row.id, f.column, f.message);
  }

  #blame(id: number, column: number, message: string): void {
    const wrong = (this.wrong[id] ??= {});
    wrong[column] = [wrong[column], message].filter(Boolean).join('; ');
  }

  /** Reads a row as it is typed; true if it is in the listing now. */
  async check(id: number): Promise<boolean> {
    const cells = this.typed[id];
    if (!cells) return false;
    let done = false;
    await this.#try(async () => {
      try {
        const path = { source: this.source(), reject: id };
        const record = must(
          await api.PUT('/api/sources/{source}/rejects/{reject}', { params: { path }, body: { cells: [...cells] } }),
        );
        this.rows = this.rows.filter((r) => r.id !== id);
        this.message = `${record.locality || record.callsign || record.key} is in the listing.`;
        done = true;
        void this.client.invalidateQueries(); // the cursor does not wait for it
      } catch (e) {
        if (!(e instanceof ApiError) || !e.problem.errors) throw e;
        this.wrong[id] = {};
        for (const f of e.problem.errors) {
          this.#blame(id, Number(/^cells\/(-?\d+)$/.exec(f.field)?.[1] ?? -1), f.message);
        }
      }
    });
    return done;
  }

  /** Keeps a row for later, discards it, or takes that back. */
  async set(id: number, state: RejectedRow['state']): Promise<void> {
    await this.#try(async () => {
      const path = { source: this.source(), reject: id };
      did(await api.PATCH('/api/sources/{source}/rejects/{reject}', { params: { path }, body: { state } }));
      const row = this.rows.find((r) => r.id === id);
      if (row) row.state = state;
      this.message = { '': 'Taken back.', later: 'Kept for later.', discarded: 'Discarded.' }[state];
      void this.client.invalidateQueries(); // the cursor does not wait for it
    });
  }

  async #try(f: () => Promise<void>): Promise<void> {
    this.trouble = '';
    try {
      await f();
    } catch (e) {
      this.trouble =
        e instanceof ApiError ? e.message : 'The application does not answer. What you typed is kept here.';
    }
  }
}
