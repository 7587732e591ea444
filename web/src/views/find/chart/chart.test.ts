import { describe, expect, it } from 'vitest';
import { geoAzimuthalEquidistant, geoDistance } from 'd3-geo';
import type { ChartSpot } from '$lib/api/client';
import { meet, type Box } from './boxes';
import { clip, coastsOf, namesOf, onLand, ringsOf, shore } from './coast';
import { edgeOf } from './edge';
import { groupsOf, layOut, type Face } from './layout';
import { nextScale, planeAround, radiusAt, ringsFor, scaleFor, scales, toScreen, windowOf, type View } from './plane';

/** Random numbers that are the same every time (Park and Miller). */
function random(seed: number): () => number {
  let s = seed;
  return () => (s = (s * 48271) % 2147483647) / 2147483647;
}

const words = [
  'Low Haven',
  'Marran Light',
  'Stag Rock Light',
  'Herring Gate',
  'Ridge',
  'Old Signal Hill North',
  'Quay',
];
const measure = (text: string, face: Face) => text.length * (face === 'slot' || face === 'bearing' ? 7.4 : 6.4);

function district(seed: number): ChartSpot[] {
  const rnd = random(seed + 1);
  const spread = 10 + rnd() * 140;
  return Array.from({ length: 2 + Math.floor(rnd() * 90) }, (_, i): ChartSpot => {
    const sort = rnd();
    const town = rnd() < 0.3 ? 0.05 : 1; // some stand close together
    return {
      x: (rnd() - 0.5) * spread * town,
      y: (rnd() - 0.5) * spread * town,
      held: sort < 0.4 ? [1 + Math.floor(rnd() * 500)] : [],
      missing: sort >= 0.4 && sort < 0.8 ? 1 : 0,
      cannot: sort >= 0.8 ? 1 : 0,
      number: 1,
      verdict: (['agrees', 'unverified', 'conflict', 'stop'] as const)[Math.floor(rnd() * 4)] ?? 'agrees',
      id: { source: 'List', key: String(i) },
      title: words[Math.floor(rnd() * words.length)] ?? '',
      km: 1,
      audible: rnd() < 0.7,
    };
  });
}

describe('labels', () => {
  it('never overlap, over 200 districts, five zooms and three widths', () => {
    let placed = 0;
    let wanted = 0;
    for (let seed = 0; seed < 200; seed++) {
      const spots = district(seed);
      for (const scale of [0.8, 1.6, 3.1, 6.4, 12.8])
        for (const [width, height] of [
          [390, 270],
          [492, 346],
          [720, 460],
        ] as const) {
          const keep: Box[] = [
            { x0: 8, y0: 8, x1: 130, y1: 46 },
            { x0: width - 70, y0: height - 44, x1: width - 4, y1: height - 4 },
          ];
          const d = layOut({
            view: { at: { x: 0, y: 0 }, scale, width, height },
            spots,
            within: 60,
            selected: seed % 3 === 0 ? 'List\n1' : undefined,
            names: [
              { kind: 'water', name: 'Tern Bight', x: 5, y: 9 },
              { kind: 'cape', name: 'Whelk Point', x: -8, y: -4 },
            ],
            keep,
            measure,
          });
          const ringLabels = d.rings.flatMap((r) => (r.label ? [r.label.box] : []));
          const boxes = [...keep, ...d.labels.map((l) => l.box), ...d.plates.map((p) => p.box), ...ringLabels];
          for (let i = 0; i < boxes.length; i++) {
            const b = boxes[i];
            if (!b) continue;
            for (let j = i + 1; j < boxes.length; j++) {
              const o = boxes[j];
              if (o && meet(b, o)) expect.fail(`district ${String(seed)}, ${String(scale)}: ${JSON.stringify([b, o])}`);
            }
            if (i < keep.length) continue;
            for (const m of d.marks) if (meet(b, m.box)) expect.fail(`district ${String(seed)}: a name on a mark`);
            if (b.x0 < 0 || b.y0 < 0 || b.x1 > width || b.y1 > height) expect.fail(`district ${String(seed)}: outside`);
          }
          placed += d.labels.length + d.plates.length;
          wanted += d.unnamed;
        }
    }
    expect(wanted / (placed + wanted)).toBeLessThan(0.15); // nearly all find room
  }, 60_000);

  it('put what would touch together, and only that', () => {
    const rnd = random(7);
    for (let n = 0; n < 12; n++) {
      const spots = Array.from({ length: 60 }, () => ({ at: { x: rnd() * 300, y: rnd() * 200 } }));
      const g = groupsOf(spots);
      // The plain way: join whoever is near until nothing changes.
      const plain = spots.map((_, i) => i);
      for (let changed = true; changed;) {
        changed = false;
        for (let i = 0; i < spots.length; i++)
          for (let j = 0; j < spots.length; j++) {
            const [a, b] = [spots[i], spots[j]];
            if (a && b && Math.hypot(a.at.x - b.at.x, a.at.y - b.at.y) < 12 && (plain[i] ?? 0) > (plain[j] ?? 0)) {
              plain[i] = plain[j] ?? 0;
              changed = true;
            }
          }
      }
      for (let i = 0; i < spots.length; i++)
        for (let j = 0; j < i; j++)
          if ((g[i] === g[j]) !== (plain[i] === plain[j])) expect.fail(`${String(i)} and ${String(j)}`);
      expect(new Set(g).size).toBe(new Set(plain).size);
    }
  });
});

describe('the plane', () => {
  it('is the azimuthal equidistant projection of d3-geo', () => {
    const from = { lat: 41.02, lon: -55.31 };
    const ours = planeAround(from);
    const theirs = geoAzimuthalEquidistant()
      .rotate([-from.lon, -from.lat])
      .scale(radiusAt(from.lat))
      .translate([0, 0])
      .precision(0);
    for (const [lat, lon] of [
      [41.5, -55],
      [-30, 120],
      [89, 0],
      [41.02, -55.31],
      [10, -60],
    ] as const) {
      const [x, y] = theirs([lon, lat]) ?? [NaN, NaN];
      expect(ours(lat, lon).x).toBeCloseTo(x, 6);
      expect(ours(lat, lon).y).toBeCloseTo(-y, 6);
      expect(Math.hypot(x, y)).toBeCloseTo(radiusAt(from.lat) * geoDistance([from.lon, from.lat], [lon, lat]), 6);
    }
  });

  it('has rings that are far enough apart to be read, and zooms in steps', () => {
    for (const scale of scales) {
      const rings = ringsFor(scale, 500 / scale);
      for (let i = 1; i < rings.length; i++)
        expect(((rings[i] ?? 0) - (rings[i - 1] ?? 0)) * scale).toBeGreaterThan(50);
    }
    const scale = scaleFor(60, 492, 346);
    const view: View = { at: { x: 0, y: 0 }, scale, width: 492, height: 346 };
    expect(windowOf(view).north).toBeCloseTo(60);
    expect(nextScale(nextScale(1.6, 1), -1)).toBeCloseTo(1.6);
    expect(nextScale(scales.at(-1) ?? 0, 1)).toBe(scales.at(-1));
    expect(toScreen(view, { x: 0, y: 0 })).toEqual({ x: 246, y: 173 });
  });

  it('has a compass for an edge', () => {
    const view: View = { at: { x: 0, y: 0 }, scale: 3, width: 492, height: 346 };
    const { blocks, bearings } = edgeOf(view);
    const top = bearings.find((b) => b.degrees === 0);
    expect(top?.x).toBeCloseTo(246, -1);
    expect(bearings.find((b) => b.degrees === 90)?.side).toBe('e');
    expect(new Set(bearings.map((b) => b.degrees)).size).toBe(12);
    // Half of the bearings are dark: each block covers its ten degrees.
    const north = blocks.filter((b) => b.y === 0 && b.height === 5 && b.x <= 246 && b.x + b.width >= 246);
    expect(north[0]?.x).toBeCloseTo(246, -1);
    expect(north[0]?.width).toBeCloseTo(173 * Math.tan((10 * Math.PI) / 180), -1);
  });
});

describe('coasts', () => {
  const square = { type: 'Polygon', coordinates: [[[-56, 40], [-54, 40], [-54, 42], [-56, 42], [-56, 40]]] }; // prettier-ignore
  const collection = {
    features: [
      { properties: {}, geometry: square },
      { properties: { kind: 'cape', name: 'Whelk Point' }, geometry: { type: 'Point', coordinates: [-55, 41] } },
      { properties: { kind: 'town', name: 'Nowhere' }, geometry: { type: 'Point', coordinates: [-55, 41] } },
    ],
  };
  const view: View = { at: { x: 0, y: 0 }, scale: 3, width: 492, height: 346 };

  it('are read from GeoJSON, with the names that it has', () => {
    expect(ringsOf(collection)).toHaveLength(1);
    expect(namesOf(collection)).toEqual([{ kind: 'cape', name: 'Whelk Point', lat: 41, lon: -55 }]);
  });

  it('are cut to what is near, and land stays land', () => {
    const box = { west: -55.5, east: -54.5, south: 40.5, north: 41.5 };
    const ring = [
      { x: -56, y: 40 },
      { x: -54, y: 40 },
      { x: -54, y: 42 },
      { x: -56, y: 42 },
    ];
    const cut = clip(ring, box);
    expect(cut.every((p) => p.x >= -55.5 && p.x <= -54.5 && p.y >= 40.5 && p.y <= 41.5)).toBe(true);
    expect(cut).toHaveLength(4);
    const rings = shore(coastsOf(ringsOf(collection)), { lat: 41, lon: -55 }, view);
    expect(onLand(rings, { x: 246, y: 173 })).toBe(true);
    const far = { ...view, at: { x: 400, y: 0 } };
    expect(onLand(shore(coastsOf(ringsOf(collection)), { lat: 41, lon: -55 }, far), { x: 246, y: 173 })).toBe(false);
  });

  it('are drawn on both sides of the date line', () => {
    const island = [179, 0, 181, 0, 181, 2, 179, 2];
    const rings = shore(coastsOf([island]), { lat: 1, lon: -179.5 }, view);
    expect(rings.length).toBe(1);
  });
});
