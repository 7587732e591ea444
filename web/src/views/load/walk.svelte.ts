import { browser, isRecord } from '$lib/storage.svelte';
import { api, must, type SheetStep, type Walk, type WalkStop, type WrongShown } from '$lib/api/client';
import type { Desk } from '$session/desk.svelte';
import { beats, learn, readPace, seconds } from './pace';

/** Where somebody stands in a walk: before it, at a step, looking at the display, comparing, keying into a dummy load, at its end. */
export type Phase = 'before' | 'step' | 'rest' | 'else' | 'dummy' | 'end' | 'done';

/** What is kept of a walk while the page is closed. */
interface Kept {
  walk: Walk;
  at: number;
  step: number;
  phase: Phase;
  time: number;
}

const isKept = (v: unknown): v is Kept =>
  isRecord(v) &&
  isRecord(v.walk) &&
  Array.isArray(v.walk.stops) &&
  isRecord(v.walk.end) &&
  typeof v.at === 'number' &&
  typeof v.step === 'number' &&
  typeof v.phase === 'string' &&
  typeof v.time === 'number';

const shelf = (load: number) => `walk ${String(load)}`;

/** A walk through a radio. It is held whole, so that it goes on while the application does not answer. */
export class WalkState {
  walk = $state.raw<Walk>();
  at = $state(0);
  step = $state(0);
  phase = $state<Phase>('before');
  names = $state(true);
  again = $state(false);
  trouble = $state('');
  /** A walk that was left in the middle, and when. */
  kept = $state.raw<Kept>();
  wrong = $state.raw<readonly WrongShown[] | null>(null);
  pace = $state.raw(readPace());
  #since = 0;
  /** The last question: an answer that comes when somebody walks already is of no use. */
  #asked = 0;
  #begins = false;

  constructor(
    private readonly desk: Desk,
    readonly load: number,
    private readonly now: () => number = Date.now,
  ) {
    this.kept = browser.read<Kept | undefined>(shelf(load), isKept, undefined);
  }

  get stops(): readonly WalkStop[] {
    return this.walk?.stops ?? [];
  }

  get stop(): WalkStop | undefined {
    return this.phase === 'end' || this.phase === 'done' ? undefined : this.stops[this.at];
  }

  /** The steps that are gone through now. */
  get steps(): readonly SheetStep[] {
    return (this.phase === 'end' ? this.walk?.end.steps : this.stop?.sheet.steps) ?? [];
  }

  get current(): SheetStep | undefined {
    return this.phase === 'step' || this.phase === 'end' ? this.steps[this.step] : undefined;
  }

  get going(): boolean {
    return this.phase !== 'before' && this.phase !== 'done';
  }

  get secondsAPress(): number {
    return seconds(this.pace);
  }

  /** What is still to come, as it takes time. */
  get left(): number {
    const here = beats(...this.steps.slice(this.step));
    if (this.phase === 'end') return here;
    const rest = this.phase === 'step' ? here : 0;
    return rest + beats(...this.stops.slice(this.at + 1).map((s) => s.effort), ...(this.walk?.end.steps ?? []));
  }

  get secondsLeft(): number {
    return this.left * this.secondsAPress;
  }

  async ask(order: readonly number[] = []): Promise<boolean> {
    if (this.#begins && order.length === 0) return false; // a walk begins with what it asked for
    this.trouble = '';
    const mine = ++this.#asked;
    try {
      const walk = must(
        await api.GET('/api/loads/{load}/walk', {
          params: {
            path: { load: this.load },
            query: { names: this.names, again: this.again, ...(order.length > 0 ? { order: order.join(',') } : {}) },
          },
        }),
      );
      if (mine !== this.#asked) return false;
      this.walk = walk;
      return true;
    } catch (e) {
      if (mine !== this.#asked) return false;
      this.trouble = e instanceof Error ? e.message : '';
      return false;
    }
  }

  start(): void {
    this.#go(0, 0, 'step');
  }

  /** Goes on where it was left: the radio is as it was. */
  goOn(): void {
    const { kept } = this;
    if (!kept) return;
    this.walk = kept.walk;
    this.kept = undefined;
    this.#go(kept.at, kept.step, kept.phase === 'else' ? 'rest' : kept.phase);
  }

  /** Nothing is known of the radio any more: what is left begins from the stated state. */
  async anew(): Promise<void> {
    const { kept } = this;
    const order = (kept?.walk.stops ?? this.stops).slice(kept?.at ?? this.at).map((s) => s.slot);
    this.kept = undefined;
    const asked = this.ask(order);
    this.#begins = true;
    const there = await asked;
    this.#begins = false;
    if (there) this.start();
  }

  /** Does the step, and goes to the next. */
  done(): void {
    const s = this.current;
    if (!s) return;
    if (!s.guess) this.pace = learn(this.pace, s, (this.now() - this.#since) / 1000);
    if (this.step + 1 < this.steps.length) this.#go(this.at, this.step + 1, this.phase);
    else if (this.phase === 'end') this.finish();
    else this.#go(this.at, this.step + 1, 'rest');
  }

  back(): void {
    if (this.phase === 'else' || this.phase === 'dummy') this.#go(this.at, this.step, 'rest');
    else if (this.phase === 'rest') this.#go(this.at, this.steps.length - 1, 'step');
    else if (this.step > 0) this.#go(this.at, this.step - 1, this.phase);
    else if (this.phase === 'end') this.#go(this.stops.length - 1, 0, 'rest');
    else if (this.at > 0) this.#go(this.at - 1, 0, 'rest');
  }

  /** The display shows what it must. With the read-out that proves the transmit side too. */
  shows(): void {
    const { stop } = this;
    if (!stop) return;
    this.#tick(stop, stop.sure === 'read-out' ? 'keyed' : 'stored');
    if (stop.sure === 'dummy load') this.#go(this.at, this.step, 'dummy');
    else this.#next();
  }

  /** It was keyed into a dummy load, and showed the right transmit frequency. */
  keyed(shown: boolean): void {
    if (shown && this.stop) this.#tick(this.stop, 'keyed');
    this.#next();
  }

  async elsewise(): Promise<void> {
    const { stop } = this;
    if (!stop) return;
    this.wrong = null;
    this.#go(this.at, this.step, 'else');
    try {
      const { shown } = must(
        await api.GET('/api/loads/{load}/walk/wrong', {
          params: {
            path: { load: this.load },
            query: {
              order: this.stops.map((s) => s.slot).join(','),
              names: this.names,
              again: this.again,
              slot: stop.slot,
            },
          },
        }),
      );
      this.wrong = shown;
    } catch {
      this.wrong = [];
    }
  }

  /** Goes back to a step of this channel. */
  to(step: number): void {
    this.#go(this.at, Math.max(0, step - 1), 'step');
  }

  /** Leaves it for now; it is found again. */
  leave(): void {
    if (this.going && this.walk)
      this.kept = { walk: this.walk, at: this.at, step: this.step, phase: this.phase, time: this.now() };
    this.phase = 'before';
  }

  finish(): void {
    browser.keep(shelf(this.load), undefined);
    this.kept = undefined;
    this.phase = 'done';
  }

  /** Forgets where it was left. */
  forget(): void {
    browser.keep(shelf(this.load), undefined);
    this.kept = undefined;
  }

  #next(): void {
    if (this.at + 1 < this.stops.length) this.#go(this.at + 1, 0, 'step');
    else if ((this.walk?.end.steps.length ?? 0) > 0) this.#go(this.stops.length, 0, 'end');
    else this.finish();
  }

  #go(at: number, step: number, phase: Phase): void {
    this.#asked += 1; // what is asked for now comes too late
    this.at = at;
    this.step = step;
    this.phase = phase;
    this.#since = this.now();
    if (!this.walk) return;
    browser.write(shelf(this.load), { walk: this.walk, at, step, phase, time: this.now() } satisfies Kept);
  }

  /** What was done to the radio is true whatever the application says: it waits until it is heard. */
  #tick(stop: WalkStop, state: 'stored' | 'keyed'): void {
    void this.desk.ask(
      {
        method: 'POST',
        path: '/api/loads/{load}/walk/ticks',
        params: { path: { load: this.load } },
        body: { channel: stop.channel, fingerprint: stop.fingerprint, state },
        load: this.load,
        says: `mark ${stop.name} as ${state}`,
      },
      true,
    );
  }
}
