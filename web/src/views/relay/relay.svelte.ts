import { api, must, type RelayView } from '$lib/api/client';
import type { Desk } from '$session/desk.svelte';
import { say } from '$session/say.svelte';

export type Report = NonNullable<RelayView['report']>;
export type Finding = Report['findings'][number];
export type Fix = Finding['fixes'][number];

/** What somebody writes of a relay, and what is kept of it. */
export class RelayState {
  /** As they are written; undefined for as they are kept. */
  a = $state<string>();
  b = $state<string>();
  way = $state<string>();
  /** The run card is open. */
  card = $state(false);
  faults = $state.raw<Record<string, string>>({});
  trouble = $state('');

  constructor(private readonly desk: Desk) {}

  /** Another vehicle has a relay of its own. */
  again(): void {
    this.a = this.b = this.way = undefined;
    this.card = false;
    this.faults = {};
    this.trouble = '';
  }

  ask(load: number, a?: string, b?: string, way?: string): Promise<RelayView> {
    const query = { ...(a === undefined ? {} : { a }), ...(b === undefined ? {} : { b }), ...(way ? { way } : {}) };
    return api.GET('/api/loads/{load}/relay', { params: { path: { load }, query } }).then(must);
  }

  /** Keeps what is said. */
  async set(load: number, form: Record<string, unknown>, says: string, revision: number): Promise<boolean> {
    return this.#send(load, 'PUT', '/api/loads/{load}/relay', { ...form, revision }, says);
  }

  /** Keeps both sides as they are written. */
  async keep(v: RelayView, load: number): Promise<boolean> {
    const done = await this.set(
      load,
      { a: this.a ?? v.a.line, b: this.b ?? v.b.line, way: this.way ?? v.way },
      'keep both sides',
      v.revision,
    );
    if (done) this.a = this.b = this.way = undefined;
    return done;
  }

  /** A fix writes the sides anew, and keeps them with whatever else it sets. */
  async fix(v: RelayView, load: number, fix: Fix): Promise<boolean> {
    const form: Record<string, unknown> = {
      a: fix.a ?? this.a ?? v.a.line,
      b: fix.b ?? this.b ?? v.b.line,
      way: fix.way || (this.way ?? v.way),
    };
    for (const [name, value] of Object.entries(fix.set)) {
      form[name.toLowerCase()] = value === 'no' ? false : /^\d+$/.test(value) ? Number(value) : value;
    }
    const done = await this.set(load, form, fix.label, v.revision);
    if (done) this.a = this.b = this.way = undefined;
    return done;
  }

  async take(load: number, revision: number): Promise<boolean> {
    const done = await this.#send(
      load,
      'POST',
      '/api/loads/{load}/relay/take',
      { revision },
      'take the relay into the plan',
    );
    if (done) say.done('Both sides are in the plan, and on both radios');
    return done;
  }

  async #send(
    load: number,
    method: 'PUT' | 'POST',
    path: string,
    body: Record<string, unknown>,
    says: string,
  ): Promise<boolean> {
    this.faults = {};
    this.trouble = '';
    const { done, problem } = await this.desk.ask({ method, path, params: { path: { load } }, body, load, says });
    if (!done) {
      this.faults = Object.fromEntries((problem?.errors ?? []).map((f) => [f.field, f.message]));
      this.trouble = problem?.errors?.map((f) => f.message).join('. ') ?? problem?.detail ?? problem?.title ?? '';
      say.failed(this.trouble);
    }
    return done;
  }
}
