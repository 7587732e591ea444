import { api, ApiError, must, type Handset, type HandsetDisplay } from '$lib/api/client';

/** How long a key is shown while the handset plays by itself, in ms. */
const beat = 220;
const pause = 700;

/**
 * A simulated radio on which a sheet is tried. The server keeps nothing: it
 * replays everything that was done since the start.
 */
export class HandsetState {
  view = $state<Handset>();
  /** What is on the display now; while a step plays, one of its frames. */
  display = $state<HandsetDisplay>();
  /** The keys pressed by the step that was done last, for the eye. */
  pressed = $state('');
  /** The line that comes next: 0 is the state to start with. */
  at = $state(0);
  playing = $state(false);
  trouble = $state('');
  skipped = $state<number[]>([]);
  #acts: string[] = [];
  #touched = 0;
  #run = 0;
  /** One thing after the other: a key that is pressed early waits for the answer before it. */
  #queue: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly load: number,
    private readonly slot: number,
    /** How many lines there are: the start, the steps, the end. */
    private readonly lines: number,
    private readonly still = false,
  ) {}

  get over(): boolean {
    return this.at >= this.lines;
  }

  start(): Promise<void> {
    this.stop();
    return this.#after(async () => {
      this.#acts = [];
      this.at = 0;
      this.skipped = [];
      this.pressed = '';
      this.#touched = 0;
      await this.#do();
      this.display = this.view?.display;
    });
  }

  stop(): void {
    this.#run++;
    this.playing = false;
  }

  /** Does the next line of the sheet. */
  async step(): Promise<void> {
    this.stop();
    await this.#line(this.#run);
  }

  /** Leaves the next line out, to see what comes of it. */
  skip(): void {
    this.stop();
    void this.#after(() => {
      if (!this.over) this.skipped.push(this.at++);
    });
  }

  async play(): Promise<void> {
    this.stop();
    const run = this.#run;
    this.playing = true;
    while (run === this.#run && (await this.#line(run))) await wait(pause);
    if (run === this.#run) this.playing = false;
  }

  /** Presses a key by hand. A pause before it counts: a slot has to be chosen in time. */
  press(key: string): Promise<void> {
    this.stop();
    const now = Date.now();
    const waited = this.#touched ? Math.floor((now - this.#touched) / 1000) : 0;
    this.#touched = now;
    return this.#after(async () => {
      const acts = [...(waited > 0 ? [`wait ${String(waited)}`] : []), `key ${key}`];
      if (!(await this.#do(...acts))) return;
      this.pressed = key;
      this.display = this.view?.display;
    });
  }

  /** Does the next line; false where there is none, or where it stopped. */
  #line(run: number): Promise<boolean> {
    return this.#after(async () => {
      if (this.over || !(await this.#do(`line ${String(this.at)}`)) || !this.view) return false;
      const { frames, display, trouble } = this.view;
      const shown: string[] = [];
      for (const f of frames) {
        shown.push(f.times > 1 ? `${f.key} × ${String(f.times)}` : f.key);
        this.pressed = shown.slice(-6).join('  ');
        this.display = f.display;
        if (!this.still && run === this.#run && this.playing) await wait(beat);
      }
      this.display = display;
      this.trouble = trouble;
      if (trouble) return false;
      this.at++;
      return true;
    });
  }

  async #do(...acts: string[]): Promise<boolean> {
    this.trouble = '';
    try {
      this.view = must(
        await api.POST('/api/loads/{load}/entries/{slot}/handset', {
          params: { path: { load: this.load, slot: this.slot } },
          body: { acts: [...this.#acts, ...acts] },
        }),
      );
      this.#acts.push(...acts);
      return true;
    } catch (e) {
      this.trouble = e instanceof ApiError ? e.message : 'The application does not answer. Try again';
      return false;
    }
  }

  #after<T>(f: () => T | Promise<T>): Promise<T> {
    const done = this.#queue.then(f);
    this.#queue = done.catch(() => undefined);
    return done;
  }
}

const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
