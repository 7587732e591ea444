import { describe, expect, it, vi } from 'vitest';
import type { Desk } from '$session/desk.svelte';
import { LogState, type Setting } from './log.svelte';
import { left } from './time';

const setting = {
  tone: '88.5',
  offset_hz: -600000,
  width: 'wide',
  power: false,
  mode: false,
  where: 'vehicle',
  aerial: 'short',
} as Setting;

describe('the identification clock', () => {
  const first = '2026-11-25T21:49:05Z';
  it('counts from the call, and stops when it is due', () => {
    expect(left('', 10, 0)).toBeUndefined();
    expect(left(first, 10, Date.parse('2026-11-25T21:55:35Z'))).toBe(210);
    expect(left(first, 10, Date.parse('2026-11-25T21:59:05Z'))).toBeUndefined();
  });
});

describe('a try', () => {
  it('waits until somebody listens, and says when it was', async () => {
    let tell: (x: unknown) => void = () => undefined;
    const ask = vi.fn(() => new Promise((done) => (tell = done)));
    const log = new LogState({ ask } as unknown as Desk);
    log.choose(7);
    log.station = 'QX7OAK';
    log.note = 'loud';
    const told = log.record(1, 'key', setting, { answer: 'tail' });
    expect(log.waiting).toBe(1);
    const [write, waits] = ask.mock.calls[0] as unknown as [{ body: Record<string, unknown> }, boolean];
    expect(waits).toBe(true);
    expect(write.body).toMatchObject({ answer: 'tail', station: '', note: 'loud', negative: false });
    expect(Date.parse(String(write.body.at))).toBeGreaterThan(0);
    tell({ done: true });
    expect(await told).toBe(true);
    expect([log.waiting, log.note]).toEqual([0, '']);
  });

  it('keeps what was written where it is refused, and says why', async () => {
    const ask = vi.fn().mockResolvedValue({
      done: false,
      problem: { errors: [{ field: 'setting', message: 'change one thing a try' }] },
    });
    const log = new LogState({ ask } as unknown as Desk);
    log.choose(7);
    log.note = 'from the hill';
    expect(await log.record(1, 'key', setting, { answer: 'nothing' })).toBe(false);
    expect([log.trouble, log.note, log.faults.setting]).toEqual([
      'change one thing a try',
      'from the hill',
      'change one thing a try',
    ]);
  });
});
