import { describe, expect, it, vi } from 'vitest';
import type { BeaconTrip } from '$lib/api/client';
import type { Desk } from '$session/desk.svelte';
import { BeaconState, type Frame } from './beacon.svelte';
import { chart, full, gaps, words } from './draw';
import { drawings } from './symbols';

const part = (id: string, text: string) => ({ id, name: id, text, says: '', bytes: [1], from: 0, to: 1, stuffed: 0 });
const frame = {
  parts: [
    part('to', 'APZ001'),
    part('from', 'QX2AML-7'),
    part('via0', 'WIDE1-1'),
    part('control', ''),
    part('lat', '4104.52N'),
    part('comment', 'Walk'),
  ],
  total: 840.8,
} as unknown as Frame;

describe('the line of a frame', () => {
  it('fits, keeps its order, and leaves out what has no letters', () => {
    for (const width of [200, 600, 1200]) {
      const l = words(frame, width);
      expect(l.words.map((w) => w.part.id)).toEqual(['to', 'from', 'via0', 'lat', 'comment']);
      expect(l.size).toBeLessThanOrEqual(24);
      const end = l.words.at(-1);
      if (l.size > 9) expect((end?.x ?? 0) + (end?.w ?? 0)).toBeLessThanOrEqual(width + 0.01);
      l.words.slice(1).forEach((w, i) => {
        expect(w.x).toBeGreaterThanOrEqual((l.words[i]?.x ?? 0) + (l.words[i]?.w ?? 0) - 1e-9);
      });
    }
  });

  it('is drawn to whole hundreds of milliseconds', () => {
    expect([full(840.8), full(100), full(1240)]).toEqual([1000, 400, 1300]);
  });
});

const trip = {
  km: 1,
  seconds: 100,
  every: 60,
  points: [
    { lat: 41, lon: -55, t: 0, fixed_m: 0, steered_m: 0 },
    { lat: 41.01, lon: -55, t: 50, fixed_m: 60, steered_m: 250 },
    { lat: 41.01, lon: -54.99, t: 100, fixed_m: 5, steered_m: 10 },
  ],
  fixed: { sent: 2, mean_m: 30, worst_m: 60, worst_at: 1, on_air_s: 2, at: [0, 1] },
  steered: { sent: 1, mean_m: 100, worst_m: 250, worst_at: 1, on_air_s: 1, at: [0] },
} as unknown as BeaconTrip;

describe('a track', () => {
  it('is true to scale, north up', () => {
    const c = chart(trip, 358, 190);
    expect(c.start.y).toBeGreaterThan(c.end.y);
    expect(c.end.x).toBeGreaterThan(c.worst.x);
    expect((c.start.y - c.worst.y) / c.km).toBeCloseTo(1.11, 2);
    expect((c.end.x - c.worst.x) / c.km).toBeCloseTo(1.112 * Math.cos((41 * Math.PI) / 180), 2);
    expect(c.fixed.match(/M/g)).toHaveLength(2);
  });

  it('shows gaps up to a whole hundred metres', () => {
    const g = gaps(trip, 380, 96);
    expect(g.most).toBe(300);
    expect(g.steered).toContain('190.0,16.0');
  });
});

describe('symbols', () => {
  it('are drawn by the dozen, and none calls an emergency', () => {
    expect(Object.keys(drawings).length).toBeGreaterThanOrEqual(40);
    expect(drawings['\\!']).toBeUndefined();
    for (const d of Object.values(drawings)) expect(d).toMatch(/^M[0-9. ,A-Za-z-]+$/);
    expect(new Set(Object.values(drawings)).size).toBe(Object.keys(drawings).length);
  });
});

describe('what is set', () => {
  it('is one setting, merged where it is kept', async () => {
    const ask = vi.fn().mockResolvedValue({ done: true });
    const b = new BeaconState({ ask } as unknown as Desk);
    expect(await b.set(1, { every: 180 }, 'every')).toBe(true);
    const [write] = ask.mock.calls[0] as unknown as [{ body: Record<string, unknown> }];
    expect(write.body).toMatchObject({ set: { every: 180 } });
  });

  it('says why it is refused', async () => {
    const ask = vi
      .fn()
      .mockResolvedValue({ done: false, problem: { errors: [{ field: 'every', message: 'write a number' }] } });
    const b = new BeaconState({ ask } as unknown as Desk);
    expect(await b.act(1, 'profile', 'submarine', 'x')).toBe(false);
    expect([b.trouble, b.faults.every]).toEqual(['write a number', 'write a number']);
  });
});
