import { describe, expect, it } from 'vitest';
import type { Holding, LoadInfo, Ribbon, Row } from '$lib/api/client';
import { compareBy, published } from './columns';
import { listed, wordOf } from './matrix';
import { clashes } from './ribbon';
import { runs } from './runs';

describe('slots in words', () => {
  it('says runs, and cuts long lists', () => {
    expect(runs([])).toBe('');
    expect(runs([4, 3])).toBe('3 and 4');
    expect(runs([33, 30, 31, 32])).toBe('30–33');
    expect(runs([1, 3, 5, 6, 7])).toBe('1, 3 and 5–7');
    expect(runs([1, 3, 5, 7, 9, 11, 13])).toBe('1, 3, 5, 7, 9 and 2 more');
  });
});

const row = (slot: number, name: string, tone: string | null, verdict: Row['verdict']): Row =>
  ({
    slot,
    short_name: '',
    verdict,
    scan: 'yes',
    watts: 5,
    channel: { name, receive_hz: 146e6 + slot, transmit_hz: 146e6, transmit_tone: tone, receive_tone: null },
  }) as Row;

describe('a sorted view', () => {
  const rows = [
    row(1, 'Walk 10', '100.0', 'agrees'),
    row(2, 'Walk 9', 'D023N', 'stop'),
    row(3, 'Quay', null, 'conflict'),
  ];
  const by = (c: Parameters<typeof compareBy>[0]) => [...rows].sort((a, b) => compareBy(c, a, b)).map((r) => r.slot);
  it('counts figures in names, puts no tone first and codes last, and what needs a look on top', () => {
    expect(by('name')).toEqual([3, 2, 1]);
    expect(by('transmit_tone')).toEqual([3, 1, 2]);
    expect(by('evidence')).toEqual([2, 3, 1]);
    expect(by('slot')).toEqual([1, 2, 3]);
  });
});

describe('what is published', () => {
  const m = {
    locality: 'Quay',
    callsign: 'QX1Q',
    output_hz: 147.24e6,
    input_hz: 147.84e6,
    uplink_tone: '103.5',
    downlink_tone: null,
  };
  it('is offered as a cell is typed', () => {
    const said = (c: Parameters<typeof published>[1]) => published(m as Parameters<typeof published>[0], c);
    expect([said('name'), said('receive'), said('shift'), said('transmit_tone'), said('receive_tone')]).toEqual([
      'Quay',
      '147.240',
      '+600 kHz',
      '103.5',
      '',
    ]);
  });
});

describe('the matrix', () => {
  const h = (channel: number, load: number, slot: number | null, losses: string[], can = true): Holding => ({
    channel,
    load,
    slot,
    losses,
    can,
    state: '',
  });
  const loads = [{ id: 1 }, { id: 2 }] as LoadInfo[];
  const all = [
    h(1, 1, 7, []),
    h(1, 2, 7, ['one tone']),
    h(2, 1, 8, []),
    h(2, 2, 9, []),
    h(3, 1, 10, []),
    h(3, 2, null, [], false),
  ];
  const of = (c: number, l: number) => all.find((x) => x.channel === c && x.load === l);
  const lines = [3, 1, 2].map((id) => ({ id, number: id + 6, name: String(id), receive: 0 }));
  it('says the slot, a change, what could come in and what cannot', () => {
    expect(wordOf(of(1, 1), 7)).toEqual({ text: '7', loud: false });
    expect(wordOf(of(1, 2), 7)).toEqual({ text: '≠ 7', loud: true });
    expect(wordOf(of(2, 2), 8)).toEqual({ text: '9', loud: true });
    expect(wordOf(of(3, 2), 9)).toEqual({ text: 'cannot', loud: false });
    expect(wordOf(h(4, 1, null, []), 1)).toEqual({ text: 'add', loud: true });
  });
  it('shows what does not fit everywhere, by slot', () => {
    expect(listed(lines, loads, of, false).map((l) => l.id)).toEqual([1, 2, 3]);
    expect(listed(lines, loads, of, true).map((l) => l.id)).toEqual([1, 3]);
  });
});

describe('where channels meet', () => {
  it('is told once for each place of the band', () => {
    const ribbon = {
      band: { lower_hz: 430e6, upper_hz: 450e6 },
      channels: [
        { slot: 1, meets: [{ kind: 'input', slot: 2, at_hz: 439e6, says: 'same input' }] },
        { slot: 2, meets: [{ kind: 'input', slot: 1, at_hz: 439e6, says: 'same input' }] },
        { slot: 3, meets: [{ kind: 'output', slot: 4, at_hz: 147e6, says: 'elsewhere' }] },
      ],
      thirds: [{ slot: 5, at_hz: 439.56e6, says: '3 × 146.520' }],
    } as unknown as Ribbon;
    expect(clashes(ribbon).map((c) => [c.hz, c.harmonic, c.says.length])).toEqual([
      [439e6, false, 2],
      [439.56e6, true, 1],
    ]);
  });
});
