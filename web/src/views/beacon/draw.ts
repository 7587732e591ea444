import type { BeaconTrip } from '$lib/api/client';
import type { Frame, Part } from './beacon.svelte';

/** How wide a letter is, in its size. */
export const advance = 0.6;

export interface Word {
  part: Part;
  text: string;
  x: number;
  w: number;
}

/** The letters of a frame in one line, in a size in which they fit; addresses stand apart. */
export function words(frame: Frame, width: number, most = 24): { size: number; words: Word[] } {
  const parts = frame.parts.filter((p) => p.text !== '');
  const gaps = parts.filter((p) => p.id === 'to' || p.id === 'from' || p.id.startsWith('via')).length;
  const letters = parts.reduce((n, p) => n + p.text.length, 0) + 1.2 * gaps;
  const size = Math.max(9, Math.min(most, width / (letters * advance)));
  let x = 0;
  const out = parts.map((part) => {
    const w = part.text.length * advance * size;
    const word = { part, text: part.text, x, w };
    x += w + (part.id === 'to' || part.id === 'from' || part.id.startsWith('via') ? 1.2 * advance * size : 0);
    return word;
  });
  return { size, words: out };
}

/** Whole milliseconds to which the time of a frame is drawn. */
export const full = (total: number): number => Math.max(400, Math.ceil((total + 60) / 100) * 100);

export interface Chart {
  path: string;
  /** Teeth to the left for a fixed interval, to the right for speed and turn. */
  fixed: string;
  steered: string;
  worst: { x: number; y: number };
  start: { x: number; y: number };
  end: { x: number; y: number };
  /** How many pixels a kilometre takes. */
  km: number;
}

/** A track drawn true to scale. */
export function chart(t: BeaconTrip, width: number, height: number): Chart {
  const first = t.points[0] ?? { lat: 0, lon: 0 };
  const k = Math.cos((first.lat * Math.PI) / 180);
  const flat = t.points.map((p) => ({ x: (p.lon - first.lon) * 111.195 * k, y: (p.lat - first.lat) * 111.195 }));
  const [x0, x1] = [Math.min(...flat.map((p) => p.x)), Math.max(...flat.map((p) => p.x))];
  const [y0, y1] = [Math.min(...flat.map((p) => p.y)), Math.max(...flat.map((p) => p.y))];
  const pad = 16;
  const scale = Math.min((width - 2 * pad) / Math.max(0.001, x1 - x0), (height - 2 * pad) / Math.max(0.001, y1 - y0));
  const at = flat.map((p) => ({
    x: (width - (x1 - x0) * scale) / 2 + (p.x - x0) * scale,
    y: (height - (y1 - y0) * scale) / 2 + (y1 - p.y) * scale,
  }));
  const n = (v: number) => v.toFixed(1);
  const tooth = (i: number, side: number) => {
    const [a, b, c] = [at[Math.max(0, i - 1)], at[i], at[Math.min(at.length - 1, i + 1)]];
    if (!a || !b || !c) return '';
    const l = Math.hypot(c.x - a.x, c.y - a.y) || 1;
    return `M${n(b.x)},${n(b.y)}l${n((-(c.y - a.y) / l) * side)},${n(((c.x - a.x) / l) * side)}`;
  };
  const spot = (i: number) => at[i] ?? { x: 0, y: 0 };
  return {
    path: `M${at.map((p) => `${n(p.x)},${n(p.y)}`).join('L')}`,
    fixed: t.fixed.at.map((i) => tooth(i, -4)).join(''),
    steered: t.steered.at.map((i) => tooth(i, 9)).join(''),
    worst: spot(t.steered.worst_at),
    start: spot(0),
    end: spot(at.length - 1),
    km: scale,
  };
}

/** How far the last known place is behind, along the way. */
export function gaps(t: BeaconTrip, width: number, height: number): { fixed: string; steered: string; most: number } {
  const most = Math.max(50, Math.ceil(Math.max(t.fixed.worst_m, t.steered.worst_m) / 100) * 100);
  const line = (of: (p: BeaconTrip['points'][number]) => number) =>
    `M${t.points.map((p) => `${((p.t / t.seconds) * width).toFixed(1)},${(height - (of(p) / most) * height).toFixed(1)}`).join('L')}`;
  return { fixed: line((p) => p.fixed_m), steered: line((p) => p.steered_m), most };
}
