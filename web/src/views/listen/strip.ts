import type { ListenReport } from '$lib/api/client';

export type Half = ListenReport['half'];

export interface Placed {
  slot: number;
  y: number;
}

/** What a half minute looks like, in seconds and pixels; the page scales it. */
export interface Drawn {
  overs: { x: number; w: number; y: number; slot: number }[];
  heard: { x: number; w: number; y: number }[];
  looks: { x: number; y: number }[];
  holds: { x: number; w: number; y: number }[];
  /** The way of the receiver down the rows, and where it flies back up. */
  way: string;
  flights: string;
  away: { from: number; to: number; says: string }[];
}

/** Draws the receiver's way through what is on the air, over a width. */
export function draw(half: Half, rows: readonly Placed[], width: number, chosen: number): Drawn {
  const at = new Map(rows.map((r) => [r.slot, r.y]));
  const x = (t: number): number => (Math.max(0, Math.min(half.seconds, t)) / half.seconds) * width;
  const out: Drawn = { overs: [], heard: [], looks: [], holds: [], way: '', flights: '', away: [] };
  for (const t of half.traffic) {
    const y = at.get(t.slot);
    if (y === undefined) continue;
    for (const o of t.overs) {
      out.overs.push({ x: x(o.from), w: Math.max(1.5, x(o.to) - x(o.from)), y, slot: t.slot });
      for (const [from = 0, to = 0] of o.heard) out.heard.push({ x: x(from), w: Math.max(1, x(to) - x(from)), y });
    }
  }
  let before: { x: number; y: number; priority: boolean } | undefined;
  for (const v of half.visits) {
    const y = at.get(v.slot);
    if (y === undefined) continue;
    const middle = x((v.from + v.to) / 2);
    const [start, end] = v.stop ? [x(v.from), x(v.to)] : [middle, middle];
    if (v.stop) out.holds.push({ x: start, w: end - start, y });
    else if (v.from >= 0 && v.to <= half.seconds + 1) out.looks.push({ x: middle, y });
    if (v.priority && !v.stop) continue; // a glance aside: a dot, never joined
    if (before) {
      const line = `M${before.x.toFixed(1)},${String(before.y)}L${start.toFixed(1)},${String(y)}`;
      if (y > before.y && !v.priority && !before.priority) out.way += line;
      else out.flights += line;
    }
    before = { x: end, y, priority: v.priority };
  }
  // How long it is away from the chosen channel: true lengths, also where the window cuts them.
  const mine = half.visits.filter((v) => v.slot === chosen);
  mine.slice(1).forEach((v, i) => {
    const left = mine[i]?.to ?? 0;
    if (v.from < 0.5 || left > half.seconds - 0.5 || v.from - left < 1) return;
    out.away.push({ from: left, to: v.from, says: `${(v.from - left).toFixed(1)} s away` });
  });
  return out;
}

/** What happens on a channel in a half minute, in words. */
export function spoken(half: Half, slot: number): string {
  const overs = half.traffic.find((t) => t.slot === slot)?.overs ?? [];
  if (overs.length === 0) return 'silent';
  const heard = overs.filter((o) => o.heard.length > 0).length;
  return `${String(overs.length)} ${overs.length === 1 ? 'over' : 'overs'}, ${String(heard)} heard`;
}
