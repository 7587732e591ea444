import type { ChartSpot } from '$lib/api/client';
import { Boxes, type Box } from './boxes';
import { edgeOf, thickness, type Block } from './edge';
import { ringsFor, toScreen, windowOf, type Point, type View } from './plane';

/** How a text is set, for measuring and for drawing. */
export type Face = 'slot' | 'missing' | 'quiet' | 'water' | 'bearing';

export type Measure = (text: string, face: Face) => number;

/** A text on the chart, with the line that leads to its mark where it stands apart. */
export interface Label {
  text: string;
  face: Face;
  tone: 'plain' | 'conflict' | 'stop' | 'far';
  strong: boolean;
  x: number;
  y: number;
  box: Box;
  lead?: { from: Point; to: Point };
}

/** A plate says what is in marks that would touch. */
export interface Plate {
  held: string;
  missing: number;
  cannot: number;
  box: Box;
  at: Point;
  lead?: { from: Point; to: Point };
}

export interface Mark {
  spot: ChartSpot;
  kind: 'agrees' | 'unverified' | 'conflict' | 'stop' | 'checking' | 'missing' | 'cannot' | 'dot';
  at: Point;
  box: Box;
  /** Those that are drawn as one. */
  group: number;
}

export interface Drawing {
  marks: Mark[];
  labels: Label[];
  plates: Plate[];
  rings: { km: number; mine: boolean; radius: number; label?: Label }[];
  blocks: Block[];
  /** Capes and named places that have their name. */
  places: Point[];
  you: Point;
  /** How many marks found no room for their name. */
  unnamed: number;
}

export interface Scene {
  view: View;
  spots: readonly ChartSpot[];
  /** What the line calls far enough, drawn as a ring of its own; 0 for none. */
  within: number;
  selected: string | undefined;
  names: readonly (Point & { kind: 'cape' | 'water' | 'light' | 'mark'; name: string })[];
  /** What is kept free: the cartouche and the buttons. */
  keep: readonly Box[];
  measure: Measure;
}

const height: Record<Face, number> = { slot: 13, missing: 14, quiet: 13, water: 13, bearing: 13 };
/** Marks that are nearer to each other than this are drawn as one. */
const near = 12;
/** More names than this nobody reads, and each costs time. */
const most = 90;

export const idOf = (s: ChartSpot): string => `${s.id.source}\n${s.id.key}`;

const kindOf = (s: ChartSpot): Mark['kind'] => {
  if (s.held.length > 0) return s.verdict;
  return s.missing > 0 ? 'missing' : 'cannot';
};

/** Puts marks that would touch together: whoever is within reach of any of a group belongs to it. */
export function groupsOf(spots: readonly { at: Point }[]): number[] {
  const of = spots.map((_, i) => i);
  const root = (i: number): number => {
    let r = i;
    while (of[r] !== undefined && of[r] !== r) r = of[r] ?? r;
    for (let at = i; at !== r;) {
      const next = of[at] ?? r;
      of[at] = r;
      at = next;
    }
    return r;
  };
  const squares = new Map<number, number[]>();
  spots.forEach(({ at }, i) => {
    const [cx, cy] = [Math.floor(at.x / near), Math.floor(at.y / near)];
    for (let dx = -1; dx <= 1; dx++)
      for (let dy = -1; dy <= 1; dy++)
        for (const j of squares.get((cx + dx) * 65536 + cy + dy) ?? []) {
          const o = spots[j];
          if (o && Math.hypot(o.at.x - at.x, o.at.y - at.y) < near) of[root(i)] = root(j);
        }
    const key = cx * 65536 + cy;
    squares.set(key, [...(squares.get(key) ?? []), i]);
  });
  return spots.map((_, i) => root(i));
}

interface Wanted {
  rank: number;
  at: Point;
  width: number;
  height: number;
  /** May be left out where there is no room. */
  optional: boolean;
  middle: boolean;
  gap: number;
  own: Box | undefined;
  put: (box: Box, lead: Label['lead']) => void;
}

type Try = readonly [dx: number, dy: number, anchor: 'start' | 'middle' | 'end', led: boolean];

const around = (g: number): Try[] => [
  [g, 0, 'start', false],
  [-g, 0, 'end', false],
  [g - 2, -9, 'start', false],
  [g - 2, 9, 'start', false],
  [-g + 2, -9, 'end', false],
  [-g + 2, 9, 'end', false],
  [0, -15, 'middle', false],
  [0, 14, 'middle', false],
];

const led: Try[] = [20, 30, 42, 56, 72, 90, 112].flatMap((d) =>
  [45, 135, 315, 225, 90, 270, 0, 180, 20, 160, 200, 340, 70, 110, 250, 290].map((a): Try => {
    const [dx, dy] = [Math.sin((a * Math.PI) / 180) * d, -Math.cos((a * Math.PI) / 180) * d];
    return [dx, dy, Math.abs(dx) < 6 ? 'middle' : dx > 0 ? 'start' : 'end', true];
  }),
);

const afloat: Try[] = [
  [0, 0],
  [0, 9],
  [0, -9],
  [12, 0],
  [-12, 0],
  [0, 18],
  [18, 10],
  [-18, 10],
  [26, 0],
  [-26, 0],
  [0, -20],
].map(([dx = 0, dy = 0]): Try => [dx, dy, 'middle', false]);

/** Where a box would lie for a try. */
function boxAt(w: Wanted, [dx, dy, anchor]: Try): Box {
  const x = w.at.x + dx - (anchor === 'start' ? 0 : anchor === 'end' ? w.width : w.width / 2);
  const y = w.at.y + dy - w.height / 2;
  return { x0: x - 2, y0: y - 1, x1: x + w.width + 2, y1: y + w.height + 1 };
}

/** The line from a mark to the nearest side of a box, and what it covers. */
function leadTo(at: Point, b: Box): { lead: NonNullable<Label['lead']>; covers: Box[] } {
  const to = {
    x: at.x < b.x0 ? b.x0 : at.x > b.x1 ? b.x1 : at.x,
    y: at.x < b.x0 || at.x > b.x1 ? (b.y0 + b.y1) / 2 : at.y < b.y0 ? b.y0 : b.y1,
  };
  const d = Math.hypot(to.x - at.x, to.y - at.y);
  const from = { x: at.x + ((to.x - at.x) * 7) / Math.max(7, d), y: at.y + ((to.y - at.y) * 7) / Math.max(7, d) };
  const covers: Box[] = [];
  for (let t = 9; t < d - 1; t += 3) {
    const [x, y] = [at.x + ((to.x - at.x) * t) / d, at.y + ((to.y - at.y) * t) / d];
    covers.push({ x0: x - 1, y0: y - 1, x1: x + 1, y1: y + 1 });
  }
  return { lead: { from, to }, covers };
}

/** Finds a free place for what is wanted; false where there is none. */
function place(w: Wanted, taken: Boxes): boolean {
  const tries = w.middle ? afloat : w.optional ? around(w.gap) : [...around(w.gap), ...led];
  for (const t of tries) {
    const box = boxAt(w, t);
    if (!taken.free(box)) continue;
    if (!t[3]) {
      taken.take(box);
      w.put(box, undefined);
      return true;
    }
    const { lead, covers } = leadTo(w.at, box);
    if (!covers.every((c) => taken.free(c, w.own))) continue;
    taken.take(box);
    for (const c of covers) taken.take(c);
    w.put(box, lead);
    return true;
  }
  return false;
}

/** Lays the chart out: what stands where, so that no name covers a mark or another name. */
export function layOut(s: Scene): Drawing {
  const { view: v, measure } = s;
  const taken = new Boxes({
    x0: thickness + 1,
    y0: thickness + 1,
    x1: v.width - thickness - 1,
    y1: v.height - thickness - 1,
  });
  const you = toScreen(v, { x: 0, y: 0 });
  const out: Drawing = { marks: [], labels: [], plates: [], rings: [], blocks: [], places: [], you, unnamed: 0 };
  for (const k of s.keep) taken.take(k);
  taken.take({ x0: you.x - 6, y0: you.y - 6, x1: you.x + 6, y1: you.y + 6 });

  const seen = s.spots
    .map((spot) => ({ spot, at: toScreen(v, spot) }))
    .filter(({ at }) => at.x > 10 && at.y > 10 && at.x < v.width - 10 && at.y < v.height - 10);
  const groups = groupsOf(seen);
  const byGroup = new Map<number, typeof seen>();
  seen.forEach((x, i) => {
    const g = groups[i] ?? i;
    byGroup.set(g, [...(byGroup.get(g) ?? []), x]);
  });
  const wanted: Wanted[] = [];
  const label = (
    w: Omit<Wanted, 'width' | 'height' | 'put'>,
    text: string,
    face: Face,
    tone: Label['tone'],
    strong = false,
  ) => {
    wanted.push({
      ...w,
      width: measure(text, face),
      height: height[face],
      put: (box, lead) =>
        out.labels.push({ text, face, tone, strong, x: box.x0 + 2, y: box.y1 - 4, box, ...(lead ? { lead } : {}) }),
    });
  };

  for (const [g, members] of byGroup) {
    const first = members[0];
    if (!first) continue;
    const chosen = members.some((m) => idOf(m.spot) === s.selected);
    if (members.length === 1 && first.spot.number === 1) {
      const { spot, at } = first;
      const kind = kindOf(spot);
      const up = kind === 'missing' ? 10 : 6;
      const own: Box = { x0: at.x - 6, y0: at.y - up, x1: at.x + 6, y1: at.y + (kind === 'missing' ? 2 : 6) };
      taken.take(own);
      out.marks.push({ spot, kind, at, box: own, group: g });
      const common = {
        at: { x: at.x, y: kind === 'missing' ? at.y - 4 : at.y },
        gap: chosen ? 12 : 9,
        middle: false,
        own,
      };
      if (spot.held.length > 0) {
        const tone = kind === 'conflict' || kind === 'stop' ? kind : 'plain';
        label(
          { ...common, rank: chosen ? 0 : tone === 'plain' ? 3 : 1, optional: false },
          String(spot.held[0]),
          'slot',
          tone,
          chosen,
        );
      } else if (kind === 'missing') {
        label(
          { ...common, rank: chosen ? 0 : 2 + spot.km / 1e5, optional: false },
          spot.title,
          'missing',
          spot.audible ? 'plain' : 'far',
          chosen,
        );
      } else if (chosen) label({ ...common, rank: 0, optional: false }, spot.title, 'quiet', 'plain', true);
      continue;
    }
    const middle = {
      x: members.reduce((a, m) => a + m.at.x, 0) / members.length,
      y: members.reduce((a, m) => a + m.at.y, 0) / members.length,
    };
    let own: Box | undefined;
    for (const m of members) {
      const box = { x0: m.at.x - 3, y0: m.at.y - 3, x1: m.at.x + 3, y1: m.at.y + 3 };
      taken.take(box);
      if (m.at.x === middle.x && m.at.y === middle.y) own = box;
      out.marks.push({ spot: m.spot, kind: 'dot', at: m.at, box, group: g });
    }
    const slots = members.flatMap((m) => m.spot.held).sort((a, b) => a - b);
    const held = slots.length > 3 ? `${slots.slice(0, 2).join(' ')} +${String(slots.length - 2)}` : slots.join(' ');
    const missing = members.reduce((a, m) => a + m.spot.missing, 0);
    const cannot = members.reduce((a, m) => a + m.spot.cannot, 0);
    const part = (n: number) => (n > 0 ? 13 + measure(String(n), 'slot') + 6 : 0);
    wanted.push({
      rank: chosen ? 0 : 0.5,
      at: middle,
      width: 6 + (held ? measure(held, 'slot') + 6 : 0) + part(missing) + part(cannot),
      height: 16,
      optional: false,
      middle: false,
      gap: 9,
      own,
      put: (box, lead) => out.plates.push({ held, missing, cannot, box, at: middle, ...(lead ? { lead } : {}) }),
    });
  }
  for (const n of s.names) {
    if (n.kind === 'light') continue;
    const at = toScreen(v, n);
    if (at.x < 12 || at.y < 12 || at.x > v.width - 12 || at.y > v.height - 12) continue;
    const water = n.kind === 'water';
    const face = water ? 'water' : 'quiet';
    wanted.push({
      rank: water ? 6 : n.kind === 'mark' ? 4 : 5,
      at,
      width: measure(n.name, face),
      height: height[face],
      optional: true,
      middle: water,
      gap: 5,
      own: undefined,
      put: (box) => {
        if (!water) out.places.push(at);
        out.labels.push({ text: n.name, face, tone: 'plain', strong: false, x: box.x0 + 2, y: box.y1 - 4, box });
      },
    });
  }

  wanted.sort((a, b) => a.rank - b.rank);
  let tried = 0;
  for (const w of wanted) {
    const must = !w.optional;
    if (must && tried >= most) {
      out.unnamed++;
      continue;
    }
    if (must) tried++;
    if (!place(w, taken) && must) out.unnamed++;
  }
  ringLabels(s, out, taken);
  const { blocks, bearings } = edgeOf(v);
  out.blocks = blocks;
  for (const b of bearings) {
    const text = `${String(b.degrees).padStart(3, '0')}°`;
    const width = measure(text, 'bearing');
    const x =
      b.side === 'e'
        ? v.width - 8 - width
        : b.side === 'w'
          ? 8
          : Math.max(8, Math.min(v.width - 8 - width, b.x - width / 2));
    const y = b.side === 'n' ? 8 : b.side === 's' ? v.height - 8 - 13 : Math.max(8, Math.min(v.height - 21, b.y - 6));
    const box = { x0: x - 1, y0: y, x1: x + width + 1, y1: y + 13 };
    if (!taken.free(box)) continue;
    taken.take(box);
    out.labels.push({ text, face: 'bearing', tone: 'far', strong: false, x, y: box.y1 - 3, box });
  }
  return out;
}

/** The rings of distance, each with its kilometres where there is room on it. */
function ringLabels(s: Scene, out: Drawing, taken: Boxes): void {
  const { view: v, measure } = s;
  const w = windowOf(v);
  const far = Math.max(
    Math.hypot(w.west, w.north),
    Math.hypot(w.east, w.south),
    Math.hypot(w.west, w.south),
    Math.hypot(w.east, w.north),
  );
  const all = ringsFor(v.scale, far).filter((km) => km !== s.within);
  if (s.within > 0 && s.within < far) all.push(s.within);
  for (const km of all) {
    const ring: Drawing['rings'][number] = { km, mine: km === s.within, radius: km * v.scale };
    out.rings.push(ring);
    const text = `${String(km)} km`;
    const width = measure(text, 'quiet');
    for (let b = 52; b < 412; b += 4) {
      const p = toScreen(v, { x: km * Math.sin((b * Math.PI) / 180), y: km * Math.cos((b * Math.PI) / 180) });
      const box = { x0: p.x - width / 2 - 3, y0: p.y - 7, x1: p.x + width / 2 + 3, y1: p.y + 7 };
      if (!taken.free(box)) continue;
      taken.take(box);
      ring.label = { text, face: 'quiet', tone: 'far', strong: ring.mine, x: p.x - width / 2, y: p.y + 4, box };
      break;
    }
  }
}
