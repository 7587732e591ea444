import { describe, expect, it } from 'vitest';
import type { Ledger, Row } from './api/client';
import { merged } from './ledger';

const row = (slot: number, name = '') => ({ slot, channel: { name } }) as unknown as Row;
const ledger = (more: Partial<Ledger>): Ledger => ({ tag: 'a-2', base: '', gone: [], rows: [], ...more }) as Ledger;

describe('a ledger that was answered in part', () => {
  const held = ledger({ tag: 'a-1', rows: [row(1), row(4, 'old'), row(9)] });

  it('is put together with the one that is held; what is the same stays the same', () => {
    const all = merged(held, ledger({ base: 'a-1', gone: [9], rows: [row(4, 'new'), row(2)] }));
    expect(all?.rows.map((r) => [r.slot, r.channel.name])).toEqual([
      [1, ''],
      [2, ''],
      [4, 'new'],
    ]);
    expect(all?.rows[0]).toBe(held.rows[0]);
    expect(all?.tag).toBe('a-2');
    expect(all?.base).toBe('');
  });

  it('is not put together with another one', () => {
    expect(merged(held, ledger({ base: 'a-0', rows: [row(4)] }))).toBeUndefined();
    expect(merged(undefined, ledger({ base: 'a-1' }))).toBeUndefined();
  });

  it('is taken as it is where it is whole', () => {
    const whole = ledger({ rows: [row(3)] });
    expect(merged(held, whole)).toBe(whole);
  });
});
