import type { Row } from '$lib/api/client';
import { mhz } from '$lib/format';

/** A cell of the ledger that can be edited, left to right. */
export type Column =
  'slot' | 'name' | 'short_name' | 'receive' | 'shift' | 'transmit_tone' | 'receive_tone' | 'power' | 'scan';

export const columns: Column[] = [
  'slot',
  'name',
  'short_name',
  'receive',
  'shift',
  'transmit_tone',
  'receive_tone',
  'power',
  'scan',
];

export const columnNames: Record<Column, string> = {
  slot: 'slot',
  name: 'name',
  short_name: 'short name',
  receive: 'receive',
  shift: 'shift',
  transmit_tone: 'tone out',
  receive_tone: 'tone in',
  power: 'power',
  scan: 'scan',
};

/** Settings with a few values, which Enter steps through instead of typing. */
export const choices: Partial<Record<Column, string[]>> = {
  power: ['high', 'mid', 'low'],
  scan: ['yes', 'skip', 'priority'],
};

/** The text that a cell is edited as; it reads back to the same value. */
export function editText(row: Row, column: Column): string {
  const c = row.channel;
  switch (column) {
    case 'slot':
      return String(row.slot);
    case 'name':
      return c.name;
    case 'short_name':
      return row.short_name;
    case 'receive':
      return mhz(c.receive_hz);
    case 'shift':
      if (c.transmit.kind === 'shift') return shiftText(c.transmit.offset_hz ?? 0);
      if (c.transmit.kind === 'split') return `tx ${mhz(c.transmit.transmit_hz ?? 0)}`;
      return c.transmit.kind === 'none' ? 'rx only' : 'simplex';
    case 'transmit_tone':
      return c.transmit_tone ?? '';
    case 'receive_tone':
      return c.receive_tone ?? '';
    case 'power':
      return c.power;
    case 'scan':
      return row.scan;
  }
}

function shiftText(offset: number): string {
  const size = Math.abs(offset);
  const text = size < 1_000_000 && size % 1000 === 0 ? `${String(size / 1000)} kHz` : `${mhz(size)} MHz`;
  return (offset < 0 ? '-' : '+') + text;
}

/** The next value of a setting with a few values. */
export function nextChoice(column: Column, value: string): string | undefined {
  const list = choices[column];
  return list?.[(list.indexOf(value) + 1) % list.length];
}
