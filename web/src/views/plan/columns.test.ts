import { describe, expect, it } from 'vitest';
import type { Row } from '$lib/api/client';
import { choices, columnNames, columns, editText, nextChoice } from './columns';

const row: Row = {
  slot: 7,
  pinned: false,
  standing: { now: 'planned', was: '', person: 0, at: null },
  rules: [],
  short_name: 'MARRAN',
  watts: 5,
  scan: 'yes',
  verdict: 'agrees',
  flags: {},
  top: null,
  line: '',
  repeater: null,
  id: 1,
  channel: {
    name: 'Marran Light',
    receive_hz: 146_940_000,
    transmit: { kind: 'shift', offset_hz: -600_000, transmit_hz: null },
    transmit_hz: 146_340_000,
    transmit_tone: '88.5',
    receive_tone: null,
    bandwidth: 'wide',
    power: 'high',
  },
};

const how = (transmit: Row['channel']['transmit']): Row => ({ ...row, channel: { ...row.channel, transmit } });

describe('editing in place', () => {
  it('shows each cell as it is typed', () => {
    const texts = columns.map((c) => editText(row, c));
    expect(texts).toEqual(['7', 'Marran Light', 'MARRAN', '146.940', '-600 kHz', '88.5', '', 'high', 'yes']);
  });

  it('writes every way to transmit', () => {
    expect(editText(how({ kind: 'shift', offset_hz: 7_600_000, transmit_hz: null }), 'shift')).toBe('+7.600 MHz');
    expect(editText(how({ kind: 'split', offset_hz: null, transmit_hz: 147_500_000 }), 'shift')).toBe('tx 147.500');
    expect(editText(how({ kind: 'none', offset_hz: null, transmit_hz: null }), 'shift')).toBe('rx only');
    expect(editText(how({ kind: 'simplex', offset_hz: null, transmit_hz: null }), 'shift')).toBe('simplex');
  });

  it('steps through the settings and comes round', () => {
    expect(nextChoice('power', 'high')).toBe('mid');
    expect(nextChoice('scan', 'priority')).toBe('yes');
    expect(nextChoice('name', 'x')).toBeUndefined();
    for (const c of Object.keys(choices)) expect(columnNames).toHaveProperty(c);
  });
});
