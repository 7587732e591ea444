import type { RelayView } from '$lib/api/client';

type Report = NonNullable<RelayView['report']>;
export type Over = NonNullable<Report['over']>;
export type Loop = NonNullable<Report['loop']>;

/** Where the posts stand: the two ends and the two sides of the vehicle. They go on downwards as time. */
export interface Ground {
  width: number;
  phone: boolean;
  left: number;
  a: number;
  b: number;
  right: number;
  out: number;
  back: number;
  /** Where the time begins. */
  time: number;
}

/** The legs take the width that is left; nothing else is stretched. */
export function ground(width: number, phone: boolean): Ground {
  if (phone)
    return {
      width,
      phone,
      left: 34,
      a: width / 2 - 36,
      b: width / 2 + 36,
      right: width - 34,
      out: 84,
      back: 208,
      time: 272,
    };
  const leg = (width - 92 - 96 - 144) / 2;
  return { width, phone, left: 92, a: 92 + leg, b: 188 + leg, right: 188 + 2 * leg, out: 50, back: 158, time: 222 };
}

export const postOf = (g: Ground, of: string): number =>
  ({ endA: g.left, A: g.a, B: g.b, endB: g.right })[of] ?? g.left;

/** A scale in two parts: the first second wide, then what comes after letting go. */
export interface Scale {
  y: (t: number) => number;
  /** Between these the scale is broken. */
  from: number;
  to: number;
  foot: number;
  ticks: { y: number; says: string }[];
}

export function overScale(o: Over, top: number, phone: boolean): Scale {
  const first = Math.max(1, Math.ceil(o.wait * 2 + 0.2) / 2);
  const fast = (phone ? 170 : 155) / first;
  const gap = 32;
  const lead = 0.1;
  const end = Math.max(4, Math.ceil(o.again + 0.6));
  const slow = (phone ? 48 : 42) * Math.min(1, 5 / end);
  const y1 = top + first * fast;
  const y2 = y1 + gap;
  const y = (t: number) =>
    t <= first
      ? top + t * fast
      : t < o.release - lead
        ? y1 + ((t - first) / Math.max(0.01, o.release - lead - first)) * gap
        : y2 + (Math.min(t, o.release + end) - o.release + lead) * slow;
  const ticks = [];
  for (let t = 0; t <= first + 0.001; t += 0.5) ticks.push({ y: y(t), says: t === 0 ? '0' : t.toFixed(1) });
  for (let t = 0; t <= end; t += end > 6 ? 2 : 1)
    ticks.push({ y: y(o.release + t), says: t === 0 ? '0' : `+${String(t)}` });
  return { y, from: y1, to: y2, foot: y(o.release + end), ticks };
}

/** A loop stands on one scale, as far as its first turns. */
export function loopScale(l: Loop, top: number): Scale {
  const until = l.does
    ? Math.min(30, Math.ceil(l.call + 2.6 * l.period))
    : Math.min(30, Math.ceil(l.call + l.quiet + 2));
  const each = Math.min(16, 370 / until);
  const y = (t: number) => top + Math.min(t, until) * each;
  const ticks = [];
  for (let t = 0; t <= until; t += 5) ticks.push({ y: y(t), says: String(t) });
  return { y, from: y(until), to: y(until), foot: y(until), ticks };
}

export interface Bar {
  x: number;
  y: number;
  h: number;
  speech: boolean;
}

/** What was on the air as bars: speech up to where the key was let go, carrier after it. */
export function bars(sent: Over['sent'], g: Ground, s: Scale, release: number): Bar[] {
  const out: Bar[] = [];
  const put = (of: string, from: number, to: number, speech: boolean) => {
    const [y1, y2] = [s.y(from), Math.min(s.y(to), s.foot)];
    if (to <= from || y2 - y1 < 0.5) return;
    // Nothing is drawn over the break of the scale.
    if (s.to > s.from && y1 < s.from && y2 > s.to) {
      out.push({ x: postOf(g, of), y: y1, h: s.from - y1, speech });
      out.push({ x: postOf(g, of), y: s.to, h: y2 - s.to, speech });
    } else out.push({ x: postOf(g, of), y: y1, h: y2 - y1, speech });
  };
  for (const b of sent) {
    put(b.of, b.from, Math.min(b.to, release), !b.tail);
    put(b.of, Math.max(b.from, release), b.to, false);
  }
  return out;
}

/** About how wide a text is, to set a mark before it. */
export const wide = (text: string): number => text.length * 6.5;

/** Breaks a text into lines that are no wider. */
export function wrap(text: string, width: number): string[] {
  const out: string[] = [];
  for (const word of text.split(' ')) {
    const last = out.at(-1);
    if (last !== undefined && wide(`${last} ${word}`) <= width) out[out.length - 1] = `${last} ${word}`;
    else out.push(word);
  }
  return out;
}

/** Seconds as they are written. */
export const sec = (t: number, digits = 2): string => t.toFixed(digits);
