/** Whether the application answers. Whoever asks it anything says so here. */
class Link {
  up = $state(true);
  #back: (() => void)[] = [];

  lost(): void {
    this.up = false;
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
