import type { Row } from '$lib/api/client';
import { mhz } from '$lib/format';

/** A cell of the ledger that can be edited, left to right. */
export type Column =
  'slot' | 'name' | 'short_name' | 'receive' | 'shift' | 'transmit_tone' | 'receive_tone' | 'power' | 'scan';

export const columns: readonly Column[] = [
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

/** Beside other radios there is no room for three of them; the panel has them. */
const folded: readonly Column[] = ['short_name', 'power', 'scan'];

/** The cells of a row that keys reach: those that can be edited, then the other radios by their number. */
export function cellsOf(others: readonly number[]): (Column | number)[] {
  return [...(others.length > 0 ? columns.filter((c) => !folded.includes(c)) : columns), ...others];
}

/** The grid of the ledger, with as many other radios beside it. */
export function gridOf(others: number): string {
  if (others === 0) return 'var(--cols)';
  return `var(--cols-beside) repeat(${String(others)}, minmax(42px, 46fr))`;
}

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

/** Whether a row has what is looked for: in its names, or as the first figures of a frequency, a tone or its slot. */
export function matching(row: Row, text: string): boolean {
  const c = row.channel;
  return text
    .toLowerCase()
    .replace(/,(?=\d)/g, '.')
    .split(/\s+/)
    .filter(Boolean)
    .every(
      (word) =>
        `${c.name} ${row.short_name}`.toLowerCase().includes(word) ||
        [
          mhz(c.receive_hz),
          c.transmit_hz === null ? '' : mhz(c.transmit_hz),
          c.transmit_tone ?? '',
          c.receive_tone ?? '',
        ]
          .map((x) => x.toLowerCase())
          .some((x) => x !== '' && x.startsWith(word)) ||
        word === `#${String(row.slot)}`,
    );
}
