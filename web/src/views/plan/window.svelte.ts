import { untrack } from 'svelte';

/** How far beyond what is seen rows are drawn, in pixels: what is scrolled to is there already. */
const margin = 240;
/** How high the heading is that stays above the rows. */
const heading = 30;

/** How much larger the letters are than usual; all that is measured is in grown pixels. */
const grown = Number(getComputedStyle(document.documentElement).getPropertyValue('--grown')) || 1;

/**
 * Says which rows of a long list are on the screen. Each has a height that is
 * known beforehand, so that nothing has to be drawn to be measured.
 */
export class RowWindow {
  #view = $state.raw({ from: 0, to: 300 });
  /** After a leap only what is seen is drawn, and the rest a moment later, so that no step is long. */
  #beyond = $state(0);
  #frame = 0;
  #rest: ReturnType<typeof setTimeout> | undefined;

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
      if ((starts[middle + 1] ?? 0) <= from - this.#beyond) first = middle + 1;
      else high = middle;
    }
    let end = first;
    while (end < n && (starts[end] ?? 0) < to + this.#beyond) end++;
    return { first, end };
  }

  /** Follows where the list stands on the screen. */
  attach = (list: HTMLElement) => {
    let from = 0;
    let to = 0;
    const look = () => {
      this.#frame = 0;
      const top = list.getBoundingClientRect().top / grown;
      const { from: above, to: below } = seen(scroller(list));
      from = above - top;
      to = below - top;
      const way = Math.abs(from - this.#view.from);
      const drawn = this.#beyond >= margin && this.#view.to - this.#view.from === to - from;
      if (drawn && way <= margin / 2) return; // a little way is within what is drawn already
      if (way > 2 * margin || !drawn) {
        // A leap: the first half of it now, the rest in steps.
        this.#beyond = 0;
        this.#view = { from, to: from + (to - from) / 2 };
        clearTimeout(this.#rest);
        this.#rest = setTimeout(more, 16);
      } else this.#view = { from, to };
    };
    const more = () => {
      if (this.#view.to < to) this.#view = { from, to };
      else this.#beyond += margin / 2;
      if (this.#beyond < margin) this.#rest = setTimeout(more, 16);
    };
    const later = () => {
      this.#frame ||= requestAnimationFrame(look);
    };
    untrack(look);
    addEventListener('scroll', later, { capture: true, passive: true });
    addEventListener('resize', later);
    return () => {
      cancelAnimationFrame(this.#frame);
      clearTimeout(this.#rest);
      removeEventListener('scroll', later, { capture: true });
      removeEventListener('resize', later);
    };
  };

  /** Scrolls so far that a row can be seen. */
  reveal(list: HTMLElement | undefined, n: number): void {
    if (!list) return;
    const box = scroller(list);
    const { from: top, to: bottom } = seen(box);
    const at = list.getBoundingClientRect().top / grown + this.start(n);
    const high = this.start(n + 1) - this.start(n);
    if (at < top) box.scrollTop += at - top - 2;
    else if (at + high > bottom) box.scrollTop += Math.min(at + high - bottom + 2, at - top - 2);
  }
}

/** What of the page is seen through what scrolls: on a phone without the head and the foot. */
function seen(box: Element): { from: number; to: number } {
  if (box === document.scrollingElement) return { from: 60, to: innerHeight / grown - 70 };
  const top = box.getBoundingClientRect().top / grown;
  return { from: top + heading, to: top + box.clientHeight };
}

function scroller(e: HTMLElement): Element {
  for (let p = e.parentElement; p; p = p.parentElement)
    if (/auto|scroll/.test(getComputedStyle(p).overflowY) && p.scrollHeight > p.clientHeight) return p;
  return document.scrollingElement ?? document.documentElement;
}
