import { describe, expect, it, vi } from 'vitest';
import type { RelayView } from '$lib/api/client';
import type { Desk } from '$session/desk.svelte';
import { bars, ground, loopScale, overScale, wrap, type Loop, type Over } from './draw';
import { RelayState, type Fix } from './relay.svelte';

const over: Over = {
  speaks: 'A',
  release: 4,
  until: 23,
  wait: 0.82,
  parts: [],
  breaks: '',
  again: 3.41,
  gap: 1,
  lost: 3.2,
  sent: [
    { of: 'endA', from: 0.03, to: 4, tail: false },
    { of: 'B', from: 0.42, to: 4.12, tail: false },
    { of: 'endB', from: 0.77, to: 4.24, tail: false },
    { of: 'endB', from: 4.24, to: 7.24, tail: true },
  ],
  met: [],
};

describe('the drawing of a relay', () => {
  it('widens its legs alone', () => {
    const [a, b] = [ground(808, false), ground(1200, false)];
    expect(b.a - b.left - (a.a - a.left)).toBeCloseTo((1200 - 808) / 2);
    expect([b.b - b.a, b.left, 1200 - b.right]).toEqual([a.b - a.a, a.left, 808 - a.right]);
    expect(ground(358, true).right).toBeLessThan(358);
  });

  it('runs downwards, wide first and then broken', () => {
    const s = overScale(over, 268, false);
    const times = [0, 0.5, 1, 2, 3.9, 4, 5, 7.4];
    const ys = times.map(s.y);
    expect(ys).toEqual([...ys].sort((a, b) => a - b));
    expect(s.y(0.5) - s.y(0)).toBeGreaterThan(3 * (s.y(4.5) - s.y(4)));
    expect(s.y(4 + over.again)).toBeLessThan(s.foot);
    expect(s.ticks.map((t) => t.says)).toContain('+3');
  });

  it('draws speech up to letting go, and nothing over the break', () => {
    const g = ground(808, false);
    const s = overScale(over, 268, false);
    const list = bars(over.sent, g, s, over.release);
    expect(list.filter((b) => b.x === g.left).every((b) => b.speech)).toBe(true);
    expect(list.some((b) => b.x === g.right && !b.speech)).toBe(true);
    for (const b of list) expect(b.y < s.from - 0.01 && b.y + b.h > s.to + 0.01).toBe(false);
    for (const b of list) expect(b.y + b.h).toBeLessThanOrEqual(s.foot + 0.01);
  });

  it('keeps a loop to its first turns', () => {
    const loop = { does: true, call: 2, period: 7.5, quiet: 0, sent: [] } as unknown as Loop;
    const s = loopScale(loop, 268);
    expect(s.y(2 + 2 * 7.5)).toBeLessThan(s.foot);
    expect(s.foot - 268).toBeLessThanOrEqual(371);
    expect(loopScale({ ...loop, does: false, quiet: 3 }, 0).foot).toBeLessThan(200);
  });

  it('breaks a text between words', () => {
    expect(wrap('you 0.03, Ferry 0.39', 80)).toEqual(['you 0.03,', 'Ferry 0.39']);
  });
});

describe('what is said of a relay', () => {
  const view = { a: { line: '446.1' }, b: { line: '145.29 -' }, way: 'both', revision: 7 } as RelayView;
  it('keeps a fix together with what is written', async () => {
    const ask = vi.fn().mockResolvedValue({ done: true });
    const relay = new RelayState({ ask } as unknown as Desk);
    relay.b = '145.29 - 110.9';
    const fix = {
      label: 'x',
      id: 'x',
      way: '',
      a: '446.2',
      set: { timeout: '3', starting: 'no', identify_A: 'operator' },
    } as unknown as Fix;
    expect(await relay.fix(view, 2, fix)).toBe(true);
    const [write] = ask.mock.calls[0] as unknown as [{ body: Record<string, unknown> }];
    expect(write.body).toEqual({
      a: '446.2',
      b: '145.29 - 110.9',
      way: 'both',
      timeout: 3,
      starting: false,
      identify_a: 'operator',
      revision: 7,
    });
    expect(relay.b).toBeUndefined();
  });

  it('loses nothing where it is refused', async () => {
    const ask = vi.fn().mockResolvedValue({ done: false, problem: { errors: [{ field: 'a', message: 'too long' }] } });
    const relay = new RelayState({ ask } as unknown as Desk);
    relay.a = 'blue moon';
    expect(await relay.keep(view, 2)).toBe(false);
    expect([relay.a, relay.trouble, relay.faults.a]).toEqual(['blue moon', 'too long', 'too long']);
  });
});
