import { QueryClient } from '@tanstack/svelte-query';
import { describe, expect, it, vi } from 'vitest';
import type { Told } from './stream';

const { Deltas } = await import('./deltas');

/** A tab that has read two radios of a plan, both up to change 7. */
function tab() {
  const client = new QueryClient();
  client.setQueryData(['ledger', 1], { load: 1, revision: 7, rows: [{ id: 40, slot: 4 }] });
  client.setQueryData(['ledger', 2], { load: 2, revision: 7, rows: [] });
  const asked: unknown[] = [];
  vi.spyOn(client, 'invalidateQueries').mockImplementation((f) => {
    asked.push(f?.queryKey ?? 'all');
    return Promise.resolve();
  });
  return { client, asked, deltas: new Deltas(client, 0) };
}
const told = (kind: Told['kind'], data: object): Told => ({ kind, id: 'x-1', data }) as Told;
const change = (event: number, ...changes: object[]) => told('change', { event, changes });
const soon = () => new Promise((r) => setTimeout(r, 5));

describe('what happens elsewhere', () => {
  it('asks only for the radio whose slots changed', async () => {
    const { asked, deltas } = tab();
    deltas.take(change(8, { table: 'entry', id: 9, before: null, after: { load_id: 2 } }));
    await soon();
    expect(asked).toContainEqual(['ledger', 2]);
    expect(asked).not.toContainEqual(['ledger', 1]);
    expect(asked).not.toContainEqual(['workspace']);
  });

  it('knows a channel by the slots that hold it', async () => {
    const { asked, deltas } = tab();
    deltas.take(change(8, { table: 'channel', id: 40, before: {}, after: {} }));
    await soon();
    expect(asked).toContainEqual(['ledger', 1]);
    expect(asked).not.toContainEqual(['ledger', 2]);
  });

  it('does not ask again for what the answer to a change of its own held', async () => {
    const { client, asked, deltas } = tab();
    client.setQueryData(['ledger', 1], { load: 1, revision: 8, rows: [{ id: 40, slot: 4 }] });
    deltas.take(change(8, { table: 'entry', id: 9, before: null, after: { load_id: 1 } }));
    await soon();
    expect(asked).not.toContainEqual(['ledger', 1]);
  });

  it('asks for several changes at once', async () => {
    const { asked, deltas } = tab();
    for (let n = 8; n < 30; n++) deltas.take(change(n, { table: 'entry', id: n, before: null, after: { load_id: 1 } }));
    await soon();
    expect(asked.filter((k) => JSON.stringify(k) === '["ledger",1]')).toHaveLength(1);
  });

  it('asks for everything where something was missed, or the listings are others', async () => {
    for (const t of [told('reset', {}), told('catalog', { loading: false }), told('hello', { event: 9 })]) {
      const { asked, deltas } = tab();
      deltas.take(t);
      await soon();
      expect(asked).toEqual(['all']);
    }
    const { asked, deltas } = tab();
    deltas.take(told('hello', { event: 7 }));
    await soon();
    expect(asked).toEqual([]);
  });
});
