import type { Feature, Polygon } from 'geojson';
import { describe, expect, it, vi } from 'vitest';
import { cut, world } from '../../../coasts';

vi.mock('leaflet', () => ({ default: { CircleMarker: { extend: (x: unknown) => x } } })); // it wants a window
const { cellAt, coastsOf, ringsOf, visible } = await import('./chart');

const polygon = (ring: [number, number][]): Feature<Polygon> => ({
  type: 'Feature',
  properties: {},
  geometry: { type: 'Polygon', coordinates: [ring] },
});
const across = (ring: number[]) => ring.filter((_, i) => i % 2 === 0);
const span = (xs: number[]) => Math.max(...xs) - Math.min(...xs);

describe('cut', () => {
  it('leaves a coast that does not cross the date line where it is', () => {
    // Clockwise, as d3 wants the outside of a ring.
    const rings = cut(
      polygon([
        [10, 10],
        [10, 20],
        [20, 20],
        [20, 10],
        [10, 10],
      ]),
    );
    expect(rings).toHaveLength(1);
    const c = coastsOf(rings)[0];
    expect(c).toMatchObject({ south: 10, west: 10, north: 20, east: 20 });
    expect(c?.points[0]).toEqual(c?.points.at(-1));
  });

  it('cuts one that crosses it in two', () => {
    const rings = cut(
      polygon([
        [170, 0],
        [170, 10],
        [-170, 10],
        [-170, 0],
        [170, 0],
      ]),
    );
    expect(rings).toHaveLength(2);
    for (const r of rings) expect(span(across(r))).toBeLessThan(11);
  });
});

describe('the world', () => {
  it('has no coast that spans the map, but the ice of the south pole', () => {
    const rings = world();
    expect(rings.length).toBeGreaterThan(1000);
    expect(rings.filter((r) => span(across(r)) > 359).length).toBeLessThanOrEqual(1);
  });
});

describe('what can be seen', () => {
  const square = (at: number, size: number) =>
    coastsOf([[at, at, at + size, at, at + size, at + size, at, at + size, at, at]]);
  it('is in the box and no speck', () => {
    const all = [...square(0, 1), ...square(50, 1), ...square(2, 0.001)];
    expect(visible(all, [-1, -1, 5, 5], 0.01)).toHaveLength(1);
    expect(visible(all, [-90, -180, 90, 180], 0.01)).toHaveLength(2);
    expect(visible(all, [-90, -180, 90, 180], 0.0001)).toHaveLength(3);
  });

  it('holds the polygons of GeoJSON', () => {
    const ring = [
      [1, 2],
      [3, 4],
      [1, 2],
    ];
    const collection = {
      features: [
        { geometry: { type: 'Polygon', coordinates: [ring] } },
        { geometry: { type: 'MultiPolygon', coordinates: [[ring], [ring]] } },
        { geometry: { type: 'Point', coordinates: [1, 2] } },
        {},
      ],
    };
    expect(ringsOf(collection)).toEqual([
      [1, 2, 3, 4, 1, 2],
      [1, 2, 3, 4, 1, 2],
      [1, 2, 3, 4, 1, 2],
    ]);
    expect(ringsOf({})).toEqual([]);
  });
});

describe('cellAt', () => {
  it('is half as large at each step closer', () => {
    expect(cellAt(3)).toBeCloseTo(cellAt(2) / 2);
    expect(cellAt(0)).toBeCloseTo((44 / 256) * 360);
  });
});
