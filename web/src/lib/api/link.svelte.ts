const pause = 1000;

/** Whether the application answers. Whoever asks it anything says so here. */
class Link {
  up = $state(true);
  #back: (() => void)[] = [];

  #asking = false;

  lost(): void {
    this.up = false;
    if (this.#asking) return;
    this.#asking = true;
    setTimeout(() => void this.#ask(), pause);
  }

  /** Asks for something small again and again: the stream of what happens may never have been cut. */
  async #ask(): Promise<void> {
    this.#asking = false;
    if (this.up) return;
    try {
      await fetch('/first-paint.js', { cache: 'no-store' });
      this.back();
    } catch {
      this.lost();
    }
  }

  back(): void {
    this.up = true;
    for (const f of this.#back.splice(0)) f();
  }

  /** Waits until it answers again, or some milliseconds have gone by. */
  again(ms: number): Promise<void> {
    return new Promise((done) => {
      const timer = setTimeout(done, ms);
      this.#back.push(() => {
        clearTimeout(timer);
        done();
      });
    });
  }
}

export const link = new Link();
