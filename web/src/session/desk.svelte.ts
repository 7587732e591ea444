import type { QueryClient } from '@tanstack/svelte-query';
import { chosen } from '$lib/api/chosen.svelte';
import type { Ledger, Problem } from '$lib/api/client';
import { link } from '$lib/api/link.svelte';
import { merged } from '$lib/ledger';
import { ledgerQuery } from '$lib/queries';
import { say } from './say.svelte';
import type { Write, Writes } from './writes.svelte';

/** What came of a change of slots. */
export interface Outcome {
  done: boolean;
  problem?: Problem;
  data?: unknown;
}

/** The ledger that an answer is, or holds; an answer that asks something back has none. */
function ledgerIn(data: unknown): Ledger | undefined {
  const d = data as (Partial<Ledger> & { ledger?: Ledger | null }) | undefined;
  return d?.ledger ?? (d?.rows ? (d as Ledger) : undefined);
}

/** Changes the slots of radios, and keeps what is shown as the application holds it. */
export class Desk {
  constructor(
    readonly client: QueryClient,
    readonly writes: Writes,
  ) {}

  ledger(load: number): Ledger | undefined {
    return this.client.getQueryData<Ledger>(['ledger', load]);
  }

  /**
   * Asks for a change. What was typed waits for its turn; an act does not wait
   * behind something that is not saved, because by then it may mean another thing,
   * unless it is true whatever comes before.
   */
  async ask(w: Omit<Write, 'key' | 'person'>, waits = false): Promise<Outcome> {
    const typed = waits || w.line !== undefined || w.cell !== undefined;
    if (!typed && (this.writes.trouble || !link.up)) {
      const why = this.writes.trouble || 'The application does not answer. Start it again.';
      return {
        done: false,
        problem: { type: 'about:blank', title: 'Not done', detail: `Not done. ${why}`, status: 0 },
      };
    }
    const { data, error } = await this.writes.ask({ ...w, person: chosen.person });
    if (error) {
      if (error.ledger) this.take(error.ledger);
      else if (error.status === 0 || error.status === 404) void this.again(w.load);
      return { done: false, problem: error };
    }
    const answer = ledgerIn(data);
    const whole = answer && merged(this.ledger(answer.load), answer);
    if (whole) this.take(whole);
    else await this.again(w.load);
    return { done: true, data };
  }

  /** Reads the slots again as they stand. */
  async again(load: number): Promise<Ledger | undefined> {
    try {
      return await this.client.fetchQuery({ ...ledgerQuery(this.client, load), staleTime: 0, retry: 0 });
    } catch {
      return undefined;
    }
  }

  take(ledger: Ledger): void {
    const known = this.ledger(ledger.load);
    if (!known || known.revision <= ledger.revision) this.client.setQueryData(['ledger', ledger.load], ledger);
  }

  async undo(load: number, redo = false): Promise<boolean> {
    // What is being read may say that there is something newer to take back.
    if (this.client.isFetching({ queryKey: ['ledger', load] }) > 0) await this.again(load);
    const ledger = this.ledger(load);
    const what = redo ? ledger?.redo : ledger?.undo;
    if (!ledger || !what) {
      say.done(redo ? 'Nothing to redo' : 'Nothing to undo');
      return false;
    }
    const { done, problem, data } = await this.ask({
      method: 'POST',
      path: '/api/loads/{load}/undo',
      params: { path: { load } },
      body: { redo, revision: ledger.revision },
      load,
      says: `${redo ? 'redo' : 'undo'}: ${what}`,
    });
    if (done) {
      say.done(`${redo ? 'Redone' : 'Undone'}: ${what}`);
      // It took this radio out of the plan.
      const now = data as Ledger | undefined;
      if (now && now.plan !== ledger.plan) chosen.plan = now.plan; // it took the plan away
      if (now && now.load !== load) chosen.load = now.load;
    } else say.failed(problem?.detail ?? problem?.title ?? '');
    return done;
  }
}
