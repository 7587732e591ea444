import type { Holding, LoadInfo } from '$lib/api/client';

/** A channel of the plan, once, with the slot that everybody uses. */
export interface Line {
  id: number;
  number: number | null;
  name: string;
  receive: number;
}

/** What stands in a cell: the slot, a change, or what the radio cannot. */
export function wordOf(h: Holding | undefined, number: number | null): { text: string; loud: boolean } {
  if (!h) return { text: '', loud: false };
  if (h.slot === null) return h.can ? { text: 'add', loud: true } : { text: 'cannot', loud: false };
  const text = `${h.losses.length > 0 ? '≠ ' : ''}${String(h.slot)}`;
  return { text, loud: h.losses.length > 0 || h.slot !== number };
}

/** The channels in the order of their slots; with only those that some radio does not hold as they are. */
export function listed(
  lines: readonly Line[],
  loads: readonly LoadInfo[],
  of: (channel: number, load: number) => Holding | undefined,
  only: boolean,
): Line[] {
  const whole = (l: Line) =>
    loads.every((u) => {
      const h = of(l.id, u.id);
      return h !== undefined && h.slot !== null && h.losses.length === 0;
    });
  return lines
    .filter((l) => !only || !whole(l))
    .sort((a, b) => (a.number ?? 1e6) - (b.number ?? 1e6) || a.receive - b.receive);
}
