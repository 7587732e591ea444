import type { Ribbon } from '$lib/api/client';

/** The ribbon is drawn this wide and scaled to the page. */
export const WIDTH = 1232;

/** The graduation of a band: a round step that makes 20 to 60 blocks. */
function graduation(lower: number, upper: number): number {
  const span = upper - lower;
  return [10e3, 25e3, 50e3, 100e3, 250e3, 500e3, 1e6, 2.5e6].find((s) => span / s <= 60) ?? 5e6;
}

/** Every second block of the graduated edge, as on the border of a chart. */
export function blocks(lower: number, upper: number): { from: number; to: number }[] {
  const step = graduation(lower, upper);
  const out: { from: number; to: number }[] = [];
  for (let at = lower; at < upper; at += 2 * step) out.push({ from: at, to: Math.min(at + step, upper) });
  return out;
}

/** The frequencies that are written under the ribbon, about eight of them. */
export function labels(lower: number, upper: number): number[] {
  const step = [50e3, 100e3, 250e3, 500e3, 1e6, 2.5e6, 5e6, 10e6, 20e6].find((s) => (upper - lower) / s <= 9) ?? 50e6;
  const out: number[] = [];
  for (let at = Math.ceil(lower / step) * step; at <= upper; at += step) out.push(at);
  return out;
}

/** The arc from an output to its input; wider pairs stand higher. */
export function arc(from: number, to: number): string {
  const wide = Math.abs(to - from);
  const high = Math.min(40, 14 + wide * 0.12);
  return `M${String(from)},46A${String(wide / 2)},${String(high)} 0 0 ${to > from ? '1' : '0'} ${String(to)},46`;
}

/** What a label is: where its mark stands, and how wide its text is. */
export interface Label {
  x: number;
  wide: number;
  /** It is written whatever it covers. */
  must?: boolean;
}

/**
 * Lifts a mark by a level for each neighbour it would cover, up to three. A
 * number for which there is no room is left out, unless it must be written; its
 * mark stays.
 */
export function placeLabels(labels: readonly Label[]): { level: number; written: boolean }[] {
  const gap = 5;
  const levels = 3;
  const order = labels
    .map((l, i) => ({ ...l, i }))
    .sort((a, b) => Number(b.must ?? false) - Number(a.must ?? false) || a.x - b.x);
  const taken: { from: number; to: number }[][] = Array.from({ length: levels }, () => []);
  const out = labels.map(() => ({ level: 0, written: false }));
  for (const { x, wide, must = false, i } of order) {
    const free = (wanted: number) => taken.findIndex((row) => row.every((r) => x - gap > r.to || x + wanted < r.from));
    let level = free(wide);
    const written = must || level >= 0;
    if (level < 0) level = Math.max(0, free(gap));
    out[i] = { level, written };
    taken[level]?.push({ from: x - gap, to: x + (written ? wide : gap) });
  }
  return out;
}

/** A place where channels of one radio get into each other, with everything that is said of it. */
export interface Clash {
  hz: number;
  harmonic: boolean;
  says: string[];
}

/** The places in a band where channels meet: a shared input, an output that another transmits on, a third harmonic. */
export function clashes(ribbon: Ribbon): Clash[] {
  const { lower_hz, upper_hz } = ribbon.band;
  const at: Record<string, Clash> = {};
  const add = (hz: number, harmonic: boolean, says: string) => {
    if (hz < lower_hz || hz > upper_hz) return;
    const c = (at[`${String(hz)} ${String(harmonic)}`] ??= { hz, harmonic, says: [] });
    if (!c.says.includes(says)) c.says.push(says);
  };
  for (const c of ribbon.channels)
    for (const m of c.meets)
      add(m.at_hz, m.kind === 'harmonic', `slot ${String(c.slot)} and slot ${String(m.slot)}: ${m.says}`);
  for (const t of ribbon.thirds) add(t.at_hz, true, t.says);
  return Object.values(at).sort((a, b) => a.hz - b.hz);
}

/** Whether a text at a place is clear of others. */
export function clear(from: number, to: number, others: readonly { from: number; to: number }[]): boolean {
  return others.every((o) => to < o.from || from > o.to);
}
