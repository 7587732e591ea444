import { browser } from '$lib/storage.svelte';
import { api, must, type TestCard } from '$lib/api/client';
import type { Desk } from '$session/desk.svelte';
import { say } from '$session/say.svelte';
import { stamp } from './time';

export type Act = TestCard['acts'][number];
export type Setting = TestCard['setting'];

/** What came of a file of contacts. */
export interface Brought {
  added: number;
  known: number;
  losses: string[];
}

/** A file that is larger is no log of one person. */
const mostBytes = 8_000_000;

/** Which channel is tested, how it is set for the next try, and what waits to be told. */
export class LogState {
  slot = $state(-1);
  /** The act that is on the card; undefined for the first one. */
  chosen = $state<number>();
  /** A call that is to fail. */
  negative = $state(false);
  /** The tone is searched for. */
  searching = $state(false);
  brought = $state.raw<Brought>();
  where = $state('');
  aerial = $state('');
  spot = $state(browser.text('log spot') ?? '');
  station = $state('');
  note = $state('');
  faults = $state.raw<Record<string, string>>({});
  trouble = $state('');
  /** How many tries wait until somebody listens. */
  waiting = $state(0);

  constructor(private readonly desk: Desk) {}

  choose(slot: number): void {
    this.slot = slot;
    this.chosen = undefined;
    this.negative = false;
    this.searching = false;
    this.station = '';
    this.note = '';
    this.where = '';
    this.aerial = '';
    this.faults = {};
    this.trouble = '';
  }

  card(load: number, slot: number): Promise<TestCard> {
    return api.GET('/api/loads/{load}/entries/{slot}/card', { params: { path: { load, slot } } }).then(must);
  }

  /** Tells of a try. While nobody listens it waits, and is told once. */
  async record(
    load: number,
    kind: string,
    setting: Setting,
    what: { answer?: string; yes?: boolean },
  ): Promise<boolean> {
    const body = {
      kind,
      setting,
      ...what,
      negative: this.negative,
      station: what.answer === 'reply' ? this.station : '',
      note: this.note,
    };
    if (!(await this.#tell(load, '/api/loads/{load}/entries/{slot}/card', body, what.answer ?? kind))) return false;
    this.chosen = undefined;
    this.negative = false;
    this.station = '';
    this.note = '';
    return true;
  }

  /** Tells what a search for a tone came to. */
  search(load: number, what: { side: string; system: string; tone: string }): Promise<boolean> {
    const body = { ...what, station: this.station };
    return this.#tell(load, '/api/loads/{load}/entries/{slot}/card/search', body, what.tone || 'nothing found');
  }

  /** Tells of what was found out on the air just now, wherever one stands. */
  async #tell(load: number, path: string, body: Record<string, unknown>, says: string): Promise<boolean> {
    this.faults = {};
    this.trouble = '';
    browser.keep('log spot', this.spot);
    this.waiting += 1;
    const { done, problem } = await this.desk.ask(
      {
        method: 'POST',
        path,
        params: { path: { load, slot: this.slot } },
        body: { ...body, at: stamp(), spot: this.spot },
        load,
        says,
      },
      true,
    );
    this.waiting -= 1;
    if (!done) {
      this.faults = Object.fromEntries((problem?.errors ?? []).map((f) => [f.field, f.message]));
      this.trouble = problem?.errors?.map((f) => f.message).join('. ') ?? problem?.detail ?? problem?.title ?? '';
      say.failed(this.trouble);
      return false;
    }
    say.done(`Noted: ${says}`);
    return true;
  }

  /** Brings the contacts of another log. */
  async bring(load: number, file: File): Promise<void> {
    this.brought = undefined;
    this.trouble = '';
    if (file.size > mostBytes) {
      say.failed((this.trouble = 'The file is larger than 8 MB: split it'));
      return;
    }
    const { data, error } = await api.POST('/api/loads/{load}/log/file', {
      params: { path: { load } },
      body: { text: await file.text() },
    });
    if (data) this.brought = data;
    else say.failed((this.trouble = error.errors?.map((f) => f.message).join('. ') ?? error.title));
  }

  async send(
    load: number,
    method: 'PUT' | 'POST' | 'PATCH' | 'DELETE',
    path: string,
    params: { path: Record<string, string | number> },
    body: Record<string, unknown>,
    says: string,
  ): Promise<boolean> {
    this.trouble = '';
    const { done, problem } = await this.desk.ask({
      method,
      path,
      params,
      ...(method === 'DELETE' ? {} : { body }),
      load,
      says,
    });
    if (!done) {
      this.trouble = problem?.errors?.map((f) => f.message).join('. ') ?? problem?.detail ?? problem?.title ?? '';
      say.failed(this.trouble);
    }
    return done;
  }
}
