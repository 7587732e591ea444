import type { Ledger } from './api/client';

/**
 * The whole of a ledger of which only the rows were answered that are different
 * from one that is held; undefined where another one is held by now.
 */
export function merged(held: Ledger | undefined, answer: Ledger): Ledger | undefined {
  if (answer.base === '') return answer;
  if (held?.tag !== answer.base) return undefined;
  const rows = new Map(held.rows.map((r) => [r.slot, r]));
  for (const slot of answer.gone) rows.delete(slot);
  for (const r of answer.rows) rows.set(r.slot, r);
  return { ...answer, base: '', gone: [], rows: [...rows.values()].sort((a, b) => a.slot - b.slot) };
}
