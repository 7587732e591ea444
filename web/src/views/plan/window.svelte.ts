/** How far beyond the screen rows are drawn, in pixels: what is scrolled to is there already. */
const beyond = 600;

/**
 * Says which rows of a long list are on the screen. Each has a height that is
 * known beforehand, so that nothing has to be drawn to be measured.
 */
export class RowWindow {
  #view = $state.raw({ from: 0, to: 1200 });
  #frame = 0;

  constructor(
    /** The heights of all rows, in order. */
    private readonly heights: () => readonly number[],
  ) {}

  readonly #starts = $derived.by(() => {
    let at = 0;
    const out = this.heights().map((h) => {
      const start = at;
      at += h;
      return start;
    });
    return [...out, at];
  });

  /** How high all of it is. */
  get whole(): number {
    return this.#starts.at(-1) ?? 0;
  }

  start(n: number): number {
    return this.#starts[n] ?? 0;
  }

  /** The first row that is drawn, and the one after the last. */
  get range(): { first: number; end: number } {
    const { from, to } = this.#view;
    const starts = this.#starts;
    const n = starts.length - 1;
    let first = 0;
    let high = n;
    while (first < high) {
      const middle = (first + high) >> 1;
      if ((starts[middle + 1] ?? 0) <= from - beyond) first = middle + 1;
      else high = middle;
    }
    let end = first;
    while (end < n && (starts[end] ?? 0) < to + beyond) end++;
    return { first, end };
  }

  /** Follows where the list stands on the screen. */
  attach = (list: HTMLElement) => {
    const look = () => {
      this.#frame = 0;
      const grown = Number(getComputedStyle(list).getPropertyValue('--grown')) || 1;
      const from = -list.getBoundingClientRect().top / grown;
      // A little way is within what is drawn already.
      if (Math.abs(from - this.#view.from) > beyond / 4 || this.#view.to - this.#view.from !== innerHeight / grown)
        this.#view = { from, to: from + innerHeight / grown };
    };
    const later = () => {
      this.#frame ||= requestAnimationFrame(look);
    };
    look();
    addEventListener('scroll', later, { capture: true, passive: true });
    addEventListener('resize', later);
    return () => {
      cancelAnimationFrame(this.#frame);
      removeEventListener('scroll', later, { capture: true });
      removeEventListener('resize', later);
    };
  };

  /** Scrolls so far that a row can be seen. */
  reveal(list: HTMLElement | undefined, n: number): void {
    if (!list) return;
    const box = scroller(list);
    const grown = Number(getComputedStyle(list).getPropertyValue('--grown')) || 1;
    const top = box === document.scrollingElement ? 60 : box.getBoundingClientRect().top / grown;
    const bottom = box === document.scrollingElement ? innerHeight / grown - 70 : top + box.clientHeight;
    const at = list.getBoundingClientRect().top / grown + this.start(n);
    const high = this.start(n + 1) - this.start(n);
    if (at < top) box.scrollTop += at - top - 2;
    else if (at + high > bottom) box.scrollTop += Math.min(at + high - bottom + 2, at - top - 2);
  }
}

function scroller(e: HTMLElement): Element {
  for (let p = e.parentElement; p; p = p.parentElement)
    if (/auto|scroll/.test(getComputedStyle(p).overflowY) && p.scrollHeight > p.clientHeight) return p;
  return document.scrollingElement ?? document.documentElement;
}
