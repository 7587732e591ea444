import type { LogBook } from '$lib/api/client';

type Try = LogBook['tries'][number];

/** One test on the line of an evening: the calls of one channel in a row. */
export interface Test {
  slot: number;
  name: string;
  from: number;
  to: number;
  ups: { at: number; back: boolean }[];
  back: boolean;
  /** Which of the two rows of labels has room for it; −1 for neither. */
  row: number;
}

export interface Evening {
  from: number;
  to: number;
  tests: Test[];
  /** Where one stood, and from when until when. */
  places: { from: number; to: number; says: string }[];
  ticks: { at: number; says: string; whole: boolean }[];
  channels: number;
  ups: number;
}

/** Hours without a line between two evenings. */
const pause = 3 * 3600_000;
const ten = 600_000;

/** The newest evening of a log, which is given newest first; undefined where nobody called. */
export function evening(
  tries: readonly Try[],
  width: number,
  zone = new Date().getTimezoneOffset(),
): Evening | undefined {
  const calls: Try[] = [];
  for (const t of tries) {
    if (t.kind !== 'key') continue;
    const next = calls.at(-1);
    if (next && Date.parse(next.at) - Date.parse(t.at) > pause) break;
    calls.push(t);
  }
  calls.reverse();
  const first = calls[0];
  const last = calls.at(-1);
  if (!first || !last) return undefined;
  const from = Math.floor((Date.parse(first.at) - 60_000) / ten) * ten;
  const to = Math.max(from + 3 * ten, Math.ceil((Date.parse(last.at) + 60_000) / ten) * ten);
  const x = (at: number) => ((at - from) / (to - from)) * width;

  const tests: Test[] = [];
  const places: Evening['places'] = [];
  for (const t of calls) {
    const at = Date.parse(t.at);
    const up = { at, back: t.answer !== 'nothing' };
    const test = tests.at(-1);
    if (test?.slot === t.slot && test.name === t.name) {
      test.to = at;
      test.ups.push(up);
      test.back ||= up.back && !t.negative;
    } else tests.push({ slot: t.slot, name: t.name, from: at, to: at, ups: [up], back: up.back, row: -1 });
    const says = [whereWords[t.setting.where] ?? t.setting.where, t.spot].filter((s) => s !== '').join(', ');
    const place = places.at(-1);
    if (place?.says === says) place.to = at;
    else {
      if (place) place.to = at;
      places.push({ from: place ? at : from, to: at, says });
    }
  }
  const end = places.at(-1);
  if (end) end.to = to;
  const free = [-Infinity, -Infinity];
  for (const t of tests) {
    const at = x(t.from);
    t.row = free.findIndex((f) => at - f >= 0);
    if (t.row >= 0) free[t.row] = at + 26 + 8 * String(t.slot).length;
  }
  const step = Math.ceil((to - from) / ten / Math.max(2, width / 84)) * ten;
  const ticks = [];
  for (let at = from; at <= to; at += step) {
    const minutes = (((at / 60_000 - zone) % 1440) + 1440) % 1440;
    const two = (n: number) => String(Math.floor(n)).padStart(2, '0');
    ticks.push({ at, says: `${two(minutes / 60)}:${two(minutes % 60)}`, whole: minutes % 60 === 0 });
  }
  return {
    from,
    to,
    tests,
    places,
    ticks,
    channels: new Set(calls.map((t) => t.name + String(t.slot))).size,
    ups: calls.length,
  };
}

const whereWords: Record<string, string> = { vehicle: 'in the vehicle', open: 'in the open', high: 'higher' };
