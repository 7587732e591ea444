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
