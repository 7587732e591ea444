import { describe, expect, it } from 'vitest';
import type { LogBook } from '$lib/api/client';
import { evening } from './evening';

type Try = LogBook['tries'][number];
const call = (at: string, slot: number, answer: string, where = 'vehicle', more: Partial<Try> = {}): Try =>
  ({
    kind: 'key',
    at: `2026-11-25T${at}Z`,
    slot,
    name: `n${String(slot)}`,
    answer,
    negative: false,
    spot: '',
    setting: { where },
    ...more,
  }) as Try;

describe('the line of an evening', () => {
  it('holds one evening, its tests and where one stood', () => {
    const log = [
      call('21:03:00', 8, 'nothing', 'open', { negative: true }),
      call('21:02:00', 8, 'tail', 'open'),
      call('20:54:00', 7, 'tail', 'vehicle'),
      { ...call('20:53:00', 7, 'nothing'), kind: 'look' } as Try,
      call('20:52:00', 7, 'nothing', 'vehicle'),
      call('12:00:00', 3, 'tail'),
    ];
    const e = evening(log, 1000, 0);
    expect(e?.ticks[0]?.says).toBe('20:50');
    expect(e?.ticks.filter((t) => t.whole).map((t) => t.says)).toEqual(['21:00']);
    expect(e?.tests.map((t) => [t.slot, t.ups.length, t.back, t.row])).toEqual([
      [7, 2, true, 0],
      [8, 2, true, 0],
    ]);
    expect(e?.places.map((p) => p.says)).toEqual(['in the vehicle', 'in the open']);
    expect([e?.channels, e?.ups]).toEqual([2, 4]);
    expect(e?.places[0]?.to).toBe(e?.places[1]?.from);
    expect(e?.places[1]?.to).toBe(e?.to);
  });

  it('never sets two labels into one place', () => {
    const log = Array.from({ length: 40 }, (_, i) =>
      call(`20:${String(10 + Math.floor(i / 2)).padStart(2, '0')}:${i % 2 ? '40' : '10'}`, i + 1, 'tail'),
    ).reverse();
    const e = evening(log, 800, 0);
    const at = (t: { from: number }) => ((t.from - (e?.from ?? 0)) / ((e?.to ?? 1) - (e?.from ?? 0))) * 800;
    for (const row of [0, 1]) {
      const labels = e?.tests.filter((t) => t.row === row).map(at) ?? [];
      expect(labels.length).toBeGreaterThan(4);
      labels.slice(1).forEach((x, i) => {
        expect(x - (labels[i] ?? 0)).toBeGreaterThanOrEqual(34);
      });
    }
  });

  it('is nothing where nobody called, and knows the zone', () => {
    expect(evening([], 1000)).toBeUndefined();
    expect(evening([{ ...call('20:00:00', 1, ''), kind: 'search' } as Try], 1000)).toBeUndefined();
    expect(evening([call('20:00:30', 1, 'tail')], 1000, -60)?.ticks[0]?.says).toBe('20:50');
    expect(evening([call('23:50:30', 1, 'tail')], 1000, 0)?.ticks.map((t) => t.says)).toEqual([
      '23:40',
      '23:50',
      '00:00',
      '00:10',
    ]);
  });
});
