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

  async start(): Promise<void> {
    this.stop();
    this.#acts = [];
    this.at = 0;
    this.skipped = [];
    this.pressed = '';
    this.#touched = 0;
    await this.#do();
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
    this.skipped.push(this.at++);
  }

  async play(): Promise<void> {
    this.stop();
    const run = this.#run;
    this.playing = true;
    while (run === this.#run && !this.over && (await this.#line(run))) await this.#wait(pause);
    if (run === this.#run) this.playing = false;
  }

  /** Presses a key by hand. A pause before it counts: a slot has to be chosen in time. */
  async press(key: string): Promise<void> {
    this.stop();
    const now = Date.now();
    const waited = this.#touched ? Math.floor((now - this.#touched) / 1000) : 0;
    this.#touched = now;
    if (waited > 0) this.#acts.push(`wait ${String(waited)}`);
    if (await this.#do(`key ${key}`)) this.pressed = key;
  }

  async #line(run: number): Promise<boolean> {
    if (this.over) return false;
    if (!(await this.#do(`line ${String(this.at)}`))) return false;
    const view = this.view;
    if (!view) return false;
    const shown: string[] = [];
    for (const f of view.frames) {
      shown.push(f.times > 1 ? `${f.key} × ${String(f.times)}` : f.key);
      this.pressed = shown.slice(-6).join('  ');
      this.display = f.display;
      if (!this.still && run === this.#run && this.playing) await this.#wait(beat);
    }
    this.display = view.display;
    this.trouble = view.trouble;
    if (run !== this.#run) return false; // something else was done meanwhile
    if (view.trouble) return false;
    this.at++;
    return true;
  }

  async #do(act?: string): Promise<boolean> {
    if (act) this.#acts.push(act);
    this.trouble = '';
    try {
      const view = must(
        await api.POST('/api/loads/{load}/entries/{slot}/handset', {
          params: { path: { load: this.load, slot: this.slot } },
          body: { acts: this.#acts },
        }),
      );
      this.view = view;
      if (!act?.startsWith('line')) this.display = view.display;
      return true;
    } catch (e) {
      if (act) this.#acts.pop();
      this.trouble = e instanceof ApiError ? e.message : 'The application does not answer. Try again.';
      return false;
    }
  }

  #wait(ms: number): Promise<void> {
    return new Promise((done) => setTimeout(done, ms));
  }
}
