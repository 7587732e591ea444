import { beforeEach, describe, expect, it, vi } from 'vitest';
import { answers, calls, clear } from '$lib/testing/server';

vi.mock('$lib/api/client', async (original) => {
  const { standIn } = await import('$lib/testing/server');
  return standIn(original as () => Promise<typeof import('$lib/api/client')>);
});

const { Writes } = await import('./writes.svelte');

const store = (line: string, more: object = {}) => ({
  method: 'POST' as const,
  path: '/api/loads/{load}/entries',
  params: { path: { load: 1 } },
  body: { line, revision: 7 },
  person: 0,
  load: 1,
  says: `store ${line}`,
  line,
  ...more,
});
const stuck = (w: InstanceType<typeof Writes>) =>
  vi.waitFor(() => {
    expect(w.trouble).not.toBe('');
  });

beforeEach(() => {
  clear();
  sessionStorage.clear();
});

describe('what is asked for', () => {
  it('is asked one after the other', async () => {
    const w = new Writes();
    let first: () => void = () => undefined;
    answers.push(
      () =>
        new Promise(
          (done) =>
            (first = () => {
              done({ data: 1 });
            }),
        ),
      () => ({ data: 2 }),
    );
    const a = w.ask(store('146.52'));
    const b = w.ask(store('146.55'));
    await Promise.resolve();
    expect(calls).toHaveLength(1);
    first();
    expect(await a).toEqual({ data: 1 });
    expect(await b).toEqual({ data: 2 });
    expect(w.queue).toEqual([]);
  });

  it('waits without an answer, and is asked for again under the same key, in order', async () => {
    const w = new Writes();
    const a = w.ask(store('146.52'));
    const b = w.ask(store('146.55'));
    await stuck(w);
    expect(w.trouble).toContain('does not answer');
    expect(w.queue.map((x) => x.line)).toEqual(['146.52', '146.55']);
    const keys = w.queue.map((x) => x.key);
    answers.push(
      () => ({ data: 1 }),
      () => ({ data: 2 }),
    );
    w.now();
    expect([await a, await b]).toEqual([{ data: 1 }, { data: 2 }]);
    expect(new Set(keys).size).toBe(2);
    expect(calls.map((c) => c.body.line)).toEqual(['146.52', '146.52', '146.55']);
    expect(w.trouble).toBe('');
  });

  it('waits while the disk is full, and says so in the words of the application', async () => {
    const w = new Writes();
    const full = { error: { title: 'Not saved', detail: 'The disk is full.', status: 507 } };
    answers.push(() => full);
    const a = w.ask(store('146.52'));
    await stuck(w);
    expect(w.trouble).toBe('The disk is full.');
    answers.push(() => ({ data: 1 }));
    w.now();
    expect(await a).toEqual({ data: 1 });
  });

  it('is not asked for again once it is refused', async () => {
    const w = new Writes();
    answers.push(() => ({ error: { title: 'No', status: 422 } }));
    expect((await w.ask(store('x'))).error?.status).toBe(422);
    expect(calls).toHaveLength(1);
  });

  it('can be given up; what waits behind it goes on', async () => {
    const w = new Writes();
    const a = w.ask(store('146.52'));
    const b = w.ask(store('146.55'));
    await stuck(w);
    answers.push(() => ({ data: 2 }));
    w.discard(w.queue[0]?.key ?? '');
    expect((await a).error?.title).toBe('Discarded');
    expect(await b).toEqual({ data: 2 });
    expect(calls.map((c) => c.body.line)).toEqual(['146.52', '146.55']);
  });

  it('does not refuse itself: a second change of a slot has seen the first', async () => {
    const w = new Writes();
    const cell = (slot: number, column: string) => store('', { line: undefined, cell: { slot, column, text: 'x' } });
    const all = [w.ask(cell(4, 'name')), w.ask(cell(4, 'power')), w.ask(cell(5, 'name'))];
    await stuck(w);
    answers.push(
      () => ({ data: { revision: 12 } }),
      () => ({ data: { revision: 13 } }),
      () => ({ data: { revision: 14 } }),
    );
    w.now();
    await Promise.all(all);
    expect(calls.slice(1).map((c) => c.body.revision)).toEqual([7, 12, 7]);
  });

  it('outlives the page: what was not saved is asked for under its old key', async () => {
    const before = new Writes();
    void before.ask(store('146.52'));
    await stuck(before);
    const key = before.queue[0]?.key;
    const taken: unknown[] = [];
    const after = new Writes((l) => taken.push(l));
    answers.push(() => ({ data: { load: 1 } }));
    after.restore();
    expect(after.queue[0]?.key).toBe(key);
    await vi.waitFor(() => {
      expect(taken).toEqual([{ load: 1 }]);
    });
    expect(sessionStorage.getItem('waiting')).toBeNull();
    // Refused by then, it is not lost without a word.
    sessionStorage.setItem('waiting', JSON.stringify([{ ...store('x'), key: 'k' }]));
    const later = new Writes();
    answers.push(() => ({ error: { title: 'No', detail: 'slot 4 is taken', status: 422 } }));
    later.restore();
    await vi.waitFor(() => {
      expect(later.refused[0]).toMatchObject({ why: 'slot 4 is taken', write: { line: 'x' } });
    });
  });
});
