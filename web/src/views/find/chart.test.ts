import type { Feature, Polygon } from 'geojson';
import { describe, expect, it } from 'vitest';
import { cellAt, cut, world } from './chart';

const polygon = (ring: [number, number][]): Feature<Polygon> => ({
  type: 'Feature',
  properties: {},
  geometry: { type: 'Polygon', coordinates: [ring] },
});

describe('cut', () => {
  it('leaves a coast that does not cross the date line where it is', () => {
    // Clockwise, as d3 wants the outside of a ring.
    const c = cut(
      polygon([
        [10, 10],
        [10, 20],
        [20, 20],
        [20, 10],
        [10, 10],
      ]),
    );
    expect(c.coordinates).toHaveLength(1);
    const xs = c.coordinates[0]?.[0]?.map((p) => Math.round(p[0] ?? NaN));
    const ys = c.coordinates[0]?.[0]?.map((p) => Math.round(p[1] ?? NaN));
    expect([Math.min(...(xs ?? [])), Math.max(...(xs ?? []))]).toEqual([10, 20]);
    expect([Math.min(...(ys ?? [])), Math.max(...(ys ?? []))]).toEqual([10, 20]);
  });

  it('cuts one that crosses it in two', () => {
    const c = cut(
      polygon([
        [170, 0],
        [170, 10],
        [-170, 10],
        [-170, 0],
        [170, 0],
      ]),
    );
    expect(c.coordinates).toHaveLength(2);
    for (const [ring] of c.coordinates) {
      const xs = (ring ?? []).map((p) => p[0] ?? NaN);
      expect(Math.max(...xs) - Math.min(...xs)).toBeLessThan(11);
    }
  });
});

describe('the world', () => {
  it('has no coast that spans the map, and is closed everywhere', async () => {
    const { coordinates } = await world();
    expect(coordinates.length).toBeGreaterThan(1000);
    let wide = 0;
    for (const [ring] of coordinates) {
      expect(ring?.[0]).toEqual(ring?.at(-1));
      const xs = (ring ?? []).map((p) => p[0] ?? NaN);
      if (Math.max(...xs) - Math.min(...xs) > 359) wide++;
    }
    expect(wide).toBeLessThanOrEqual(1); // the ice of the south pole goes all the way round
  });
});

describe('cellAt', () => {
  it('is half as large at each step closer', () => {
    expect(cellAt(3)).toBeCloseTo(cellAt(2) / 2);
    expect(cellAt(0)).toBeCloseTo((44 / 256) * 360);
  });
});
