import { describe, expect, it } from 'vitest';
import { draw, spoken, type Half } from './strip';
import { goes, hour, next, round, seconds, ten } from './words';

const half: Half = {
  seconds: 30,
  traffic: [
    {
      slot: 2,
      overs: [
        { from: 1, to: 5, heard: [[3, 5]] },
        { from: 20, to: 40, heard: [] },
      ],
    },
  ],
  visits: [
    { slot: 1, from: 0, to: 1, stop: false, priority: false },
    { slot: 2, from: 1, to: 6, stop: true, priority: false },
    { slot: 3, from: 6, to: 7, stop: false, priority: false },
    { slot: 1, from: 7, to: 8, stop: false, priority: true },
    { slot: 1, from: 8, to: 9, stop: false, priority: false },
    { slot: 2, from: 12, to: 13, stop: false, priority: false },
  ],
};
const rows = [1, 2, 3].map((slot) => ({ slot, y: 24 * slot }));

describe('the strip', () => {
  const d = draw(half, rows, 300, 2);
  it('draws what is heard over what is on the air, to scale, and cuts it at the window', () => {
    expect(d.overs).toEqual([
      { x: 10, w: 40, y: 48, slot: 2 },
      { x: 200, w: 100, y: 48, slot: 2 },
    ]);
    expect(d.heard).toEqual([{ x: 30, w: 20, y: 48 }]);
    expect(d.holds).toEqual([{ x: 10, w: 50, y: 48 }]);
  });
  it('joins looks on the way down, flies back up, and never joins a priority look', () => {
    // 1 at 0.5 s to the stop at 1 s; from its end at 6 s to 3 at 6.5 s; the glance at 1 is a dot
    expect(d.way).toBe('M5.0,24L10.0,48M60.0,48L65.0,72M85.0,24L125.0,48');
    expect(d.flights).toBe('M65.0,72L85.0,24');
    expect(d.looks).toContainEqual({ x: 75, y: 24 });
  });
  it('says how long the receiver is away from the chosen channel', () => {
    expect(d.away).toEqual([{ from: 6, to: 12, says: '6.0 s away' }]);
  });
  it('speaks', () => {
    expect(spoken(half, 2)).toBe('2 overs, 1 heard');
    expect(spoken(half, 3)).toBe('silent');
  });
});

describe('words', () => {
  it('writes shares, times and counts as they are read', () => {
    expect([ten(0.48), ten(1)]).toEqual(['4.8', '10.0']);
    expect([seconds(5.04), seconds(600), seconds(7200), seconds(undefined)]).toEqual([
      '5.0 s',
      '10 min',
      '2.0 h',
      'never',
    ]);
    expect([round(0.04), round(0.4), round(0), round(1234.4)]).toEqual(['0.0', '0.4', '0', '1,234']);
    expect(goes('time', 5)).toBe('stays 5 s');
    expect(hour(6, 9)).toBe('Saturday 09:00');
  });
  it('finds the next such hour, today or in a week', () => {
    const wednesday = new Date(2026, 10, 25, 9, 42);
    expect(new Date(next(wednesday, 6, 21))).toEqual(new Date(2026, 10, 28, 21));
    expect(new Date(next(wednesday, 3, 10))).toEqual(new Date(2026, 10, 25, 10));
    expect(new Date(next(wednesday, 3, 9))).toEqual(new Date(2026, 11, 2, 9)); // this hour has begun
  });
});
