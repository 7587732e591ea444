import type { PlanState } from './plan.svelte';
import type { RowWindow } from './window.svelte';

interface Shown {
  list: HTMLElement | undefined;
  slots: readonly number[];
  view: RowWindow;
}

/** How far a pointer goes before it drags, in pixels. */
const far = 5;

/** Moves channels with the mouse: what is chosen, from its slot numbers to another slot. */
export class Drag {
  /** The slot that it would begin at; null while nothing is dragged. */
  to = $state<number | null>(null);
  says = $state('');
  /** Set for a moment after a drag: the click that ends it chooses nothing. */
  ended = false;

  constructor(
    private readonly plan: PlanState,
    private readonly shown: () => Shown,
  ) {}

  down(e: PointerEvent): void {
    const row = e.target instanceof Element ? e.target.closest('[role=row][id]') : null;
    const grip = e.target instanceof Element ? e.target.closest('[data-column=slot]') : null;
    const { several } = this.plan;
    if (e.button !== 0 || !row || !grip || e.pointerType === 'touch' || !several.movable) return;
    const slot = Number(row.id.replace('slot-', ''));
    const y = e.clientY;
    const stop = new AbortController();
    const at = { signal: stop.signal };
    const slots = several.slots.has(slot) ? several.held : [slot];
    addEventListener(
      'pointermove',
      (m) => {
        if (this.to === null && Math.abs(m.clientY - y) < far) return;
        this.#over(m.clientY, slots.length);
      },
      at,
    );
    const end = (act: boolean) => () => {
      stop.abort();
      const { to } = this;
      this.to = null;
      if (to === null) return;
      this.ended = true;
      setTimeout(() => (this.ended = false), 50);
      if (!act || to === slots[0]) return;
      if (!several.slots.has(slot)) {
        several.clear();
        this.plan.selected = slot;
      }
      void several.move(to);
    };
    addEventListener('pointerup', end(true), at);
    addEventListener('pointercancel', end(false), at);
    addEventListener('keydown', (k) => k.key === 'Escape' && end(false)(), at);
  }

  #over(y: number, n: number): void {
    const { list, slots, view } = this.shown();
    if (!list) return;
    const inside =
      (y - list.getBoundingClientRect().top) * (view.whole / Math.max(1, list.getBoundingClientRect().height));
    let i = 0;
    while (i < slots.length - 1 && view.start(i + 1) <= inside) i++;
    this.to = slots[i] ?? null;
    this.says =
      this.to === null ? '' : n === 1 ? `to ${String(this.to)}` : `to ${String(this.to)}–${String(this.to + n - 1)}`;
  }
}
