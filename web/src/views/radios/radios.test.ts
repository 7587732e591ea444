import { QueryClient } from '@tanstack/svelte-query';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Preview, RadioForm } from '$lib/api/client';
import { answers, calls, clear } from '$lib/testing/server';

vi.mock('$lib/api/client', async (original) => {
  const { standIn } = await import('$lib/testing/server');
  return standIn(original as () => Promise<typeof import('$lib/api/client')>);
});
vi.stubGlobal('window', { setTimeout, clearTimeout });

const { RadiosState } = await import('./radios.svelte');
const { threadsOf } = await import('./threads');
const { shares, spread } = await import('./spread');
const { Writes } = await import('$session/writes.svelte');

const form = (id: string, more: Partial<RadioForm> = {}): RadioForm =>
  ({
    id,
    name: id,
    form: 'handheld',
    entry: 'menu',
    own: true,
    load: null,
    texts: { name: id, slots: '1-200' },
    fields: [
      { key: 'name', group: 'radio', label: 'name', hint: '' },
      { key: 'slots', group: 'memory', label: 'slots', hint: '' },
    ],
    yaml: `name: ${id}`,
    ...more,
  }) as RadioForm;

const preview = (more: Partial<Preview> = {}): Preview => ({
  fit: 24,
  lose: 0,
  cannot: 0,
  rows: [],
  faults: [],
  yaml: '',
  drawing: {} as Preview['drawing'],
  ...more,
});

/** A radio that is open, with its first preview. */
async function open(id: string, more: Partial<RadioForm> = {}, writes = new Writes()) {
  const s = new RadiosState(new QueryClient(), writes);
  answers.push(
    () => ({ data: form(id, more) }),
    () => ({ data: preview() }),
  );
  await s.open(id);
  await vi.waitFor(() => {
    expect(s.preview).toBeDefined();
  });
  calls.length = 0;
  return s;
}

beforeEach(() => {
  sessionStorage.setItem('radios', '{}');
});

const refused = (field: string, message: string) => () => ({
  error: { title: 'No', status: 422, detail: message, errors: [{ field, message }] },
});

beforeEach(clear);

describe('a profile', () => {
  it('that is open already is not read again over what was typed', async () => {
    const s = await open('own-a');
    s.texts.slots = '1-99';
    await s.open('own-a');
    expect(calls).toEqual([]);
    expect(s.texts.slots).toBe('1-99');
    expect(s.dirty).toBe(true);
  });

  it('that is asked for is copied, though its form is not there yet; before that nothing is', async () => {
    const s = new RadiosState(new QueryClient(), new Writes());
    expect(await s.copy()).toBeUndefined();
    expect(calls).toEqual([]);
    answers.push(
      () => new Promise<never>(() => undefined),
      () => ({ data: form('own-beck') }),
    );
    void s.open('beck');
    expect(await s.copy()).toBe('own-beck');
    expect(JSON.stringify(calls)).toContain('{"copy":"beck"}');
  });

  it('is not shown where another one was opened meanwhile', async () => {
    const s = await open('own-a');
    let late: (a: { data: RadioForm }) => void = () => undefined;
    answers.push(
      () => new Promise((done) => (late = done)),
      () => ({ data: form('own-c') }),
      () => ({ data: preview() }),
    );
    const first = s.open('own-b');
    await s.open('own-c');
    late({ data: form('own-b') });
    await first;
    expect(s.form?.id).toBe('own-c');
  });

  it('is previewed as it is typed, with its faults beside the fields', async () => {
    const s = await open('own-a');
    s.texts.slots = 'many';
    answers.push(() => ({ data: preview({ faults: [{ field: 'slots', message: 'write 1-200' }], fit: 0 }) }));
    await s.look();
    expect(s.faults).toEqual({ slots: 'write 1-200' });
    expect(s.preview?.fit).toBe(24); // the last that could stand
    s.texts.slots = '1-20';
    answers.push(() => ({ data: preview({ fit: 11, cannot: 13 }) }));
    await s.look();
    expect(s.faults).toEqual({});
    expect(s.preview?.fit).toBe(11);
  });

  it('drops a preview that a later one has overtaken', async () => {
    const s = await open('own-a');
    let late: (a: { data: Preview }) => void = () => undefined;
    answers.push(
      () => new Promise((done) => (late = done)),
      () => ({ data: preview({ fit: 3 }) }),
    );
    const first = s.look();
    await s.look();
    late({ data: preview({ fit: 9 }) });
    await first;
    expect(s.preview?.fit).toBe(3);
  });

  it('is saved, or says why not and keeps what was typed', async () => {
    const s = await open('own-a');
    s.texts.slots = 'many';
    answers.push(refused('slots', 'write 1-200'));
    await s.save();
    expect(s.faults.slots).toBe('write 1-200');
    expect(s.texts.slots).toBe('many');
    s.texts.slots = '1-20';
    answers.push(
      () => ({ data: form('own-a', { texts: { name: 'own-a', slots: '1-20' } }) }),
      () => ({ data: preview() }),
    );
    await s.save();
    expect(s.message).toBe('Saved.');
    expect(s.dirty).toBe(false);
  });

  it('that ships is never saved', async () => {
    const s = await open('trail', { own: false });
    await s.save();
    expect(calls).toEqual([]);
  });

  it('is copied, and what is typed at once stays', async () => {
    const s = await open('trail', { own: false });
    answers.push(
      () => ({ data: form('own-my-trail') }),
      () => ({ data: preview() }),
    );
    expect(await s.copy()).toBe('own-my-trail');
    s.texts.slots = '1-50';
    await s.open('own-my-trail'); // the address follows
    expect(s.texts.slots).toBe('1-50');
    expect(s.message).toContain('Copied');
  });

  it('that is deleted can be brought back', async () => {
    const s = await open('own-a');
    answers.push(() => ({ data: form('own-a') }));
    expect(await s.remove()).toBe(true);
    expect(s.gone).toBe('name: own-a');
    answers.push(
      () => ({ data: form('trail') }),
      () => ({ data: preview() }),
    );
    await s.open('trail');
    expect(s.message).toBe('own-a is deleted.'); // and the way back beside it
    answers.push(
      (c) => ({ data: form('own-a', { yaml: String(c.body.yaml) }) }),
      () => ({ data: preview() }),
    );
    expect(await s.bring(s.gone)).toBe('own-a');
    expect(s.gone).toBe('');
  });

  it('goes into the plan and out of it', async () => {
    const s = await open('own-a');
    answers.push(() => ({ data: { load: 4, rows: [{}, {}] } }));
    await s.use();
    expect(s.message).toContain('with 2 channels');
    expect(s.form?.load).toBe(4);
    answers.push(() => ({ data: { load: 1, rows: [] } }));
    await s.leave();
    expect(calls[1]).toMatchObject({ method: 'DELETE', path: '/api/radios/{radio}/use' });
    expect(s.form?.load).toBeNull();
  });

  it('waits where nobody answers, and is saved when somebody does', async () => {
    const writes = new Writes();
    const s = await open('own-a', {}, writes);
    s.texts.slots = '1-20';
    const saved = s.save();
    await vi.waitFor(() => {
      expect(writes.trouble).not.toBe('');
    });
    expect(s.saving).toBe(true);
    expect(s.texts.slots).toBe('1-20');
    answers.push(() => ({ data: form('own-a') }));
    writes.now();
    await saved;
    expect(s.message).toBe('Saved.');
  });
});

const settled = () => new Promise((done) => setTimeout(done, 200));

describe('what is not saved', () => {
  it('is kept while another view is looked at, and dropped when it is put back or the profile is another one by then', async () => {
    const s = await open('a');
    s.texts.slots = '1-20';
    answers.push(() => ({ data: preview() }));
    s.typed();
    await settled();
    expect(s.drafts).toEqual(['a']);
    const again = await open('a');
    expect(again.texts.slots).toBe('1-20');
    expect(again.dirty).toBe(true);
    answers.push(() => ({ data: preview() }));
    again.revert();
    expect(again.texts.slots).toBe('1-200');
    expect(again.drafts).toEqual([]);
    again.texts.slots = '1-30';
    answers.push(() => ({ data: preview() }));
    again.typed();
    await settled();
    const newer = await open('a', { revision: 9 });
    expect(newer.texts.slots).toBe('1-200');
  });
});

describe('threads', () => {
  const row = (slot: number, lost: string, half: string) =>
    ({
      slot,
      lost,
      half,
      losses: [],
      held: true,
      short_name: '',
      channel: { name: `C${String(slot)}` },
    }) as unknown as Preview['rows'][number];

  it('leave where they are lost, and what is left is what goes on', () => {
    const rows = [
      row(1, '', ''),
      row(2, 'bands', ''),
      row(3, 'slots', ''),
      row(4, 'bands', ''),
      row(5, '', 'tones'),
      row(6, '', 'rest'),
    ];
    const t = threadsOf(rows);
    expect(t.at.map((a) => a.left)).toEqual([4, 3, 3, 3, 3]);
    expect(t.at.map((a) => a.lost.length)).toEqual([2, 1, 0, 0, 0]);
    expect(t.at.map((a) => a.half.length)).toEqual([0, 0, 0, 1, 1]);
    expect(t.whole.map((r) => r.slot)).toEqual([1]);
    expect(t.whole.length + t.part.length).toBe(t.at.at(-1)?.left);
  });

  it('have labels that do not touch and stay inside', () => {
    const at = spread([10, 11, 12, 90, 91], 18, 8, 130);
    for (let i = 1; i < at.length; i++) expect((at[i] ?? 0) - (at[i - 1] ?? 0)).toBeGreaterThan(17.5);
    expect(Math.min(...at)).toBeGreaterThanOrEqual(7.9);
    expect(Math.max(...at)).toBeLessThanOrEqual(130.1);
    expect(spread([], 18, 0, 10)).toEqual([]);
    const bands = shares([1, 15, 10], 636, 20, 76);
    expect(bands.reduce((a, b) => a + b.width, 0) + 40).toBeCloseTo(636);
    expect(Math.min(...bands.map((b) => b.width))).toBeGreaterThanOrEqual(76);
  });
});
