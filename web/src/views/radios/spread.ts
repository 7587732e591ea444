/** Moves labels apart that would touch, as little as possible, within a stretch. */
export function spread(at: readonly number[], gap: number, from: number, to: number): number[] {
  const n = at.length;
  if (n === 0) return [];
  const step = Math.min(gap, n > 1 ? (to - from) / (n - 1) : gap);
  const out = at.map((x) => Math.max(from, Math.min(to, x)));
  for (let round = 0; round < 200; round++) {
    let moved = false;
    for (let i = 0; i + 1 < n; i++) {
      const d = step - ((out[i + 1] ?? 0) - (out[i] ?? 0));
      if (d > 0.01) {
        out[i] = (out[i] ?? 0) - d / 2;
        out[i + 1] = (out[i + 1] ?? 0) + d / 2;
        moved = true;
      }
    }
    for (let i = 0; i < n; i++) out[i] = Math.max(from + i * step, Math.min(to - (n - 1 - i) * step, out[i] ?? 0));
    if (!moved) break;
  }
  return out;
}

/** Where a frequency stands on the ruler of all bands, by its logarithm, of a width. */
export function rulerAt(mhz: number, width: number): number {
  return (width * Math.log(Math.max(25, Math.min(1400, mhz)) / 25)) / Math.log(1400 / 25);
}

/** How wide the bands that the plan uses are drawn: by how many channels each has, and none too narrow. */
export function shares(
  channels: readonly number[],
  width: number,
  gap: number,
  least: number,
): { x: number; width: number }[] {
  const room = width - gap * (channels.length - 1) - least * channels.length;
  const all = channels.reduce((a, n) => a + n, 0);
  let x = 0;
  return channels.map((n) => {
    const w = least + (all > 0 ? (room * n) / all : room / channels.length);
    const out = { x, width: w };
    x += w + gap;
    return out;
  });
}
