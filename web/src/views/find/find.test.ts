import { QueryClient } from '@tanstack/svelte-query';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { FoundRepeater, ImportPreview, ImportState, LoadInfo } from '$lib/api/client';
import { answers, calls, clear } from '$lib/testing/server';

vi.mock('$lib/api/client', async (original) => {
  const { standIn } = await import('$lib/testing/server');
  return standIn(original as () => Promise<typeof import('$lib/api/client')>);
});

const { FindState, idText } = await import('./find.svelte');
const { BringState } = await import('./bring.svelte');
const { Desk } = await import('$session/desk.svelte');
const { Writes } = await import('$session/writes.svelte');
const { imports } = await import('$session/imports.svelte');
const { link } = await import('$lib/api/link.svelte');
const { chosen } = await import('$lib/api/chosen.svelte');

const two = { id: 2, unit: { name: 'Two' } } as unknown as LoadInfo;
function find() {
  const client = new QueryClient();
  client.setQueryData(['ledger', 2], { load: 2, revision: 7, rows: [], base: '' });
  return new FindState(client, new Desk(client, new Writes()));
}

const repeater = (key: string): FoundRepeater =>
  ({ id: { source: 'A', key }, title: key, statements: [] }) as unknown as FoundRepeater;
const list = [repeater('1'), repeater('2'), repeater('3')];

beforeEach(clear);

describe('find', () => {
  it('completes the word at the caret, and drops an answer that was overtaken', async () => {
    const f = find();
    const c = { from: 3, to: 6, text: 'Marran Light', says: '146.940 MHz' };
    answers.push(() => ({ data: { completions: [c] } }));
    const first = f.type('2m ma', 5, 2);
    await f.type('2m mar open', 6, 2);
    await first;
    expect(f.completions.map((x) => x.text)).toEqual(['Marran Light']);
    expect(f.complete(c)).toBe(16);
    expect(f.line).toBe('2m Marran Light open');
    expect(f.completions).toEqual([]);
    await f.type('2m ', 3, 2);
    expect(calls).toHaveLength(1); // who types on asks once, and nothing is asked for between words
  });

  it('puts a word of the menu in the place of another choice, and takes it out again', () => {
    const f = find();
    const word = (from: number, text: string, menu: string) =>
      ({ from, to: from + text.length, text, menu, as: '', state: '', says: '', left_out: 0, rest: '' }) as const;
    f.line = '2m low haven open';
    const words = [word(0, '2m', 'band'), word(3, 'low haven', ''), word(13, 'open', 'access')];
    f.choose('70cm', { name: 'band', choices: [{ word: '70cm', says: '' }] }, words);
    expect(f.line).toBe('low haven open 70cm');
    f.line = '2m low haven open';
    const access = {
      name: 'access',
      choices: [
        { word: 'open', says: '' },
        { word: 'closed', says: '' },
      ],
    };
    f.choose('open', access, []);
    expect(f.line).toBe('2m low haven');
    f.choose('open', access, []);
    f.choose('closed', access, []); // faster than any answer
    expect(f.line).toBe('2m low haven closed');
    f.choose('closed', access, []);
    expect(f.line).toBe('2m low haven');
  });

  it('takes them into the radio that the plan shows, and says what was left out', async () => {
    const f = find();
    f.pick(idText({ source: 'A', key: '1' }));
    f.pick(idText({ source: 'A', key: '2' }));
    chosen.also = [3, 4];
    answers.push(() => ({
      data: {
        slots: [4],
        skipped: [{ id: { source: 'A', key: '2' }, why: 'already in this radio (9)' }],
        puts: [
          { load: 3, slot: 4, why: '' },
          { load: 4, slot: 0, why: 'Beck is full' },
        ],
        ledger: { load: 2, revision: 8, rows: [], base: '' },
      },
    }));
    await f.add(list.slice(0, 2), two);
    expect(calls[0]?.body).toEqual({
      ids: [
        { source: 'A', key: '1' },
        { source: 'A', key: '2' },
      ],
      revision: 7,
      also: [3, 4],
    });
    expect(f.message).toContain('and in 1 other radio; not everywhere: Beck is full');
    chosen.also = [];
    expect(f.message).toContain('In Two, slot 4');
    expect(f.message).toMatch(/Not added: .*already in this radio \(9\)\./);
    expect(f.picked.size).toBe(0);
  });

  it('keeps what is picked where nobody answers', async () => {
    const f = find();
    f.pick(idText({ source: 'A', key: '1' }));
    link.lost();
    await f.add(list.slice(0, 2), two);
    link.back();
    expect(f.trouble).toContain('Not done. The application does not answer');
    expect(calls).toEqual([]);
    expect(f.picked.size).toBe(1);
  });

  it('says what was decided, or why not', async () => {
    const f = find();
    answers.push(() => ({}));
    await f.decide({ source: 'A', key: '1' }, { source: 'B', key: '1' }, false);
    expect(f.message).toContain('Split');
    answers.push(() => ({ error: { title: 'No', status: 422, errors: [{ field: 'b', message: 'name two' }] } }));
    await f.decide({ source: 'A', key: '1' }, { source: 'A', key: '1' }, true);
    expect(f.trouble).toBe('name two');
  });
});

const preview = (more: Partial<ImportPreview> = {}): ImportPreview =>
  ({
    id: '5',
    source: 'club',
    prose: false,
    good: 2,
    bad: 1,
    columns: [{ heading: 'Output', role: 'output', unit: 'MHz', order: '', samples: [] }],
    ...more,
  }) as unknown as ImportPreview;

const tell = (state: Partial<ImportState>, id = 'first-1') => {
  imports.take({ kind: 'import', id, data: { import: '5', state: state as ImportState } });
};

describe('bringing a listing in', () => {
  const taken = async () => {
    const b = new BringState(new QueryClient());
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(preview()), { status: 201 })));
    await b.take(new Blob(['x']), 'club.csv');
    return b;
  };

  it('shows how the file is understood, and again when a column is changed', async () => {
    const b = await taken();
    expect(b.source).toBe('club');
    const column = b.preview?.columns[0];
    if (column) column.role = 'input';
    answers.push(() => ({ data: preview({ good: 0, bad: 3 }) }));
    await b.look();
    expect(calls[0]?.body.columns).toEqual([{ role: 'input', unit: 'MHz', order: '' }]);
    expect(b.preview?.bad).toBe(3);
  });

  it('goes on to its end, and everything is asked anew', async () => {
    const b = await taken();
    answers.push(() => ({ data: { state: 'waiting' } }));
    await b.run();
    expect(b.progress?.state).toBe('waiting');
    tell({ state: 'reading', good: 100 });
    expect(b.progress?.good).toBe(100);
    expect(b.over).toBe(false);
    tell({ state: 'done', good: 200 });
    expect(b.over).toBe(true);
    b.again();
    expect(b.preview).toBeUndefined();
    expect(b.progress).toBeUndefined();
  });

  it('is over when the application was started again meanwhile', async () => {
    const b = await taken();
    answers.push(() => ({ data: { state: 'waiting' } }));
    await b.run();
    tell({ state: 'reading', good: 100 });
    imports.take({ kind: 'hello', id: 'second-0', data: { event: 1 } });
    expect(b.progress).toMatchObject({ state: 'failed', error: 'Mnemos was restarted meanwhile' });
    expect(b.over).toBe(true);
  });

  it('names what is wrong and keeps the file', async () => {
    const b = await taken();
    answers.push(() => ({
      error: { title: 'No', status: 422, errors: [{ field: 'source', message: 'name the listing' }] },
    }));
    await b.run();
    expect(b.faults.source).toBe('name the listing');
    expect(b.preview).toBeDefined();
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')));
    await b.take(new Blob(['x']), 'other.csv');
    expect(b.trouble).toContain('does not answer');
    expect(b.busy).toBe(false);
  });

  it('says why a file is none', async () => {
    const b = new BringState(new QueryClient());
    const problem = { title: 'No', status: 422, errors: [{ field: 'file', message: 'the file is empty' }] };
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(problem), { status: 422 })));
    await b.take(new Blob(['']), 'empty.csv');
    expect(b.trouble).toBe('the file is empty');
    expect(b.preview).toBeUndefined();
  });
});
