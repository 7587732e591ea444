import { api, must, type Diary, type ListenReport } from '$lib/api/client';
import type { Desk } from '$session/desk.svelte';
import { say } from '$session/say.svelte';

export type Change = ListenReport['parts'][number]['changes'][number];
export type Row = ListenReport['rows'][number];

/** What the line says, which channel is looked at, for when, and what is shown. */
export class ListenState {
  /** What was typed; undefined for what is kept. */
  line = $state<string>();
  slot = $state(-1);
  at = $state('');
  /** The half minute after the change. */
  then = $state(false);
  others = $state(false);
  /** What is wrong with a form, by field. */
  faults = $state.raw<Record<string, string>>({});

  constructor(private readonly desk: Desk) {}

  /** Makes changes as one step. */
  change(load: number, changes: readonly Change[]): Promise<boolean> {
    return this.#write(load, 'POST', '/api/loads/{load}/listen/changes', {
      changes: changes.map(({ kind, slot, resume, stay, stays }) => ({
        kind,
        slot,
        ...(resume ? { resume } : {}),
        ...(stay ? { stay } : {}),
        ...(stays && stays.length > 0 ? { stays } : {}),
      })),
    });
  }

  /** Says how the radio scans. */
  set(load: number, form: object): Promise<boolean> {
    return this.#write(load, 'PUT', '/api/loads/{load}/listen', form);
  }

  async #write(load: number, method: 'POST' | 'PUT', path: string, body: object): Promise<boolean> {
    this.faults = {};
    const { done, problem } = await this.desk.ask({
      method,
      path,
      params: { path: { load } },
      body: { ...body, revision: this.desk.ledger(load)?.revision ?? 0 },
      load,
      says: 'how it scans',
    });
    if (done) {
      const undo = this.desk.ledger(load)?.undo ?? '';
      say.done(undo ? `${undo.replace(/^./, (c) => c.toUpperCase())}; Ctrl+Z undoes it` : 'Done');
    } else {
      this.faults = Object.fromEntries((problem?.errors ?? []).map((f) => [f.field, f.message]));
      say.failed(problem?.errors?.[0]?.message ?? problem?.detail ?? problem?.title ?? '');
    }
    return done;
  }

  /** Notes in the diary; what cannot be told now is told as soon as somebody answers. */
  async note(load: number, what: 'heard' | 'begin' | 'stop', slot: number, name: string): Promise<Diary | undefined> {
    const { done, problem, data } = await this.desk.ask(
      {
        method: 'POST',
        path: '/api/loads/{load}/diary',
        params: { path: { load } },
        body: { do: what, slot },
        load,
        says: what === 'heard' ? `heard ${name}` : what,
      },
      true,
    );
    if (!done) {
      say.failed(problem?.errors?.[0]?.message ?? problem?.detail ?? '');
      return undefined;
    }
    if (what === 'heard') say.done(`Heard ${name}, noted`);
    return data as Diary;
  }

  ask(load: number, line: string | undefined): Promise<ListenReport> {
    return api
      .GET('/api/loads/{load}/listen', {
        params: {
          path: { load },
          query: { ...(line ? { line } : {}), slot: this.slot, ...(this.at ? { at: this.at } : {}) },
        },
      })
      .then(must);
  }
}
