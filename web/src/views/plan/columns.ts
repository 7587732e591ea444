import type { Match, Row } from '$lib/api/client';
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

/** What a listing says of a column, as a cell is typed; empty for nothing. */
export function published(m: Match, column: Column): string {
  switch (column) {
    case 'name':
      return m.locality || m.callsign;
    case 'receive':
      return mhz(m.output_hz);
    case 'shift':
      if (m.input_hz === null) return '';
      return m.input_hz === m.output_hz ? 'simplex' : shiftText(m.input_hz - m.output_hz);
    case 'transmit_tone':
      return m.uplink_tone ?? '';
    case 'receive_tone':
      return m.downlink_tone ?? '';
    default:
      return '';
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

/** In which order a column sorts two rows. */
export function compareBy(column: Column | 'evidence', a: Row, b: Row): number {
  const verdicts = ['stop', 'conflict', 'unverified', 'agrees', 'checking'];
  const tone = (t: string | null) =>
    t === null ? -1 : (t.startsWith('D') ? 10_000 : 0) + Number(t.replace(/\D+$/, '').replace('D', ''));
  const by: Record<Column | 'evidence', () => number> = {
    slot: () => 0,
    name: () => a.channel.name.localeCompare(b.channel.name, undefined, { numeric: true }),
    short_name: () => a.short_name.localeCompare(b.short_name, undefined, { numeric: true }),
    receive: () => a.channel.receive_hz - b.channel.receive_hz,
    shift: () =>
      (a.channel.transmit_hz ?? 0) - a.channel.receive_hz - ((b.channel.transmit_hz ?? 0) - b.channel.receive_hz),
    transmit_tone: () => tone(a.channel.transmit_tone) - tone(b.channel.transmit_tone),
    receive_tone: () => tone(a.channel.receive_tone) - tone(b.channel.receive_tone),
    power: () => (b.watts ?? -1) - (a.watts ?? -1),
    scan: () => a.scan.localeCompare(b.scan),
    evidence: () => verdicts.indexOf(a.verdict) - verdicts.indexOf(b.verdict),
  };
  return by[column]() || a.slot - b.slot;
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
