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

/** Lifts a label by a level for each neighbour it would cover. */
export function placeLabels(xs: number[]): number[] {
  const need = 24;
  const order = xs.map((x, i) => ({ x, i })).sort((a, b) => a.x - b.x);
  const ends: number[] = [];
  const out = xs.map(() => 0);
  for (const { x, i } of order) {
    let level = ends.findIndex((end) => end <= x - 5);
    if (level < 0) level = ends.length;
    level = Math.min(level, 2);
    ends[level] = x + need;
    out[i] = level;
  }
  return out;
}
