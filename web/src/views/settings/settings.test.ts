import { QueryClient } from '@tanstack/svelte-query';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Settings } from '$lib/api/client';
import { answers, calls, clear } from '$lib/testing/server';

vi.mock('$lib/api/client', async (original) => {
  const { standIn } = await import('$lib/testing/server');
  return standIn(original as () => Promise<typeof import('$lib/api/client')>);
});

const { SettingsState } = await import('./settings.svelte');
const { Writes } = await import('$session/writes.svelte');

const settings = (more: Partial<Settings> = {}): Settings => ({
  region: 'us',
  person: 'QX1AA',
  place: '41.0200, -55.3100',
  locator: 'GN21ia',
  height_m: 1.5,
  radius_km: 150,
  tone_policy: 'encode first',
  licence: '',
  services: [],
  bands: [],
  unlicensed: false,
  marks: '',
  tone_policies: ['encode first', 'tone squelch first'],
  regions: [],
  revision: 3,
  ...more,
});

function state() {
  const client = new QueryClient();
  const writes = new Writes();
  const s = new SettingsState(client, writes);
  s.follow(settings());
  if (!s.form) throw new Error('no form');
  return { s, form: s.form, client, writes };
}

beforeEach(clear);

describe('settings', () => {
  it('are not sent while nothing is different', async () => {
    const { s } = state();
    await s.save();
    expect(calls).toEqual([]);
    expect(s.message).toBe('');
  });

  it('are saved whole, as they were typed', async () => {
    const { s, form, client } = state();
    form.place = 'GN21ia';
    form.radius_km = '80';
    answers.push(() => ({ data: settings({ place: '41.0208, -55.2917', radius_km: 80 }) }));
    await s.save();
    expect(calls[0]).toMatchObject({
      method: 'PUT',
      path: '/api/settings',
      body: { place: 'GN21ia', radius_km: '80', height_m: '1.5' },
    });
    expect(s.form?.place).toBe('41.0208, -55.2917');
    expect(s.message).toContain('Saved');
    expect(client.getQueryData(['settings', 0, 0])).toMatchObject({ radius_km: 80 });
  });

  it('keep what was typed while they were being saved', async () => {
    const { s, form } = state();
    form.place = 'GN21ia';
    answers.push(() => {
      form.person = 'QX9ZZ';
      return { data: settings({ place: '41.0208, -55.2917', revision: 4 }) };
    });
    answers.push((c) => ({ data: settings({ person: String(c.body.person), revision: 5 }) }));
    await s.save();
    expect(s.form?.person).toBe('QX9ZZ');
    expect(calls[1]?.body).toMatchObject({ person: 'QX9ZZ', revision: 4 });
  });

  it('name each field that cannot stand, and keep it', async () => {
    const { s, form } = state();
    form.place = 'somewhere';
    answers.push(() => ({
      error: { title: 'Not saved', status: 422, errors: [{ field: 'place', message: 'write a locator' }] },
    }));
    await s.save();
    expect(s.faults).toEqual({ place: 'write a locator' });
    expect(s.form?.place).toBe('somewhere');
    expect(s.before).toBeUndefined();
    // Put back as it was, there is nothing wrong any more.
    form.place = '41.0200, -55.3100';
    await s.save();
    expect(s.faults).toEqual({});
  });

  it('wait where nobody answers, and are saved when somebody does', async () => {
    const { s, form, writes } = state();
    form.licence = 'full';
    const saved = s.save();
    await vi.waitFor(() => {
      expect(writes.trouble).toContain('does not answer');
    });
    expect(s.form?.licence).toBe('full');
    answers.push(() => ({ data: settings({ licence: 'full' }) }));
    writes.now();
    await saved;
    expect(s.message).toContain('Saved');
    expect(writes.queue).toEqual([]);
  });

  it('follow what another tab saved, but never over what is being typed', () => {
    const { s, form } = state();
    s.follow(settings({ radius_km: 90, revision: 4 }));
    expect(s.form?.radius_km).toBe('90');
    form.radius_km = '12';
    if (s.form) s.form.radius_km = '12';
    s.follow(settings({ radius_km: 30, revision: 5 }));
    expect(s.form?.radius_km).toBe('12');
  });

  it('are taken back in one step', async () => {
    const { s, form } = state();
    form.region = 'r3';
    answers.push(() => ({ data: settings({ region: 'r3' }) }));
    await s.save();
    expect(s.before?.region).toBe('us');
    answers.push((c) => ({ data: settings({ region: String(c.body.region) }) }));
    await s.back();
    expect(calls[1]?.body.region).toBe('us');
    expect(s.form?.region).toBe('us');
    expect(s.before).toBeUndefined();
    expect(s.message).toBe('Undone.');
  });

  it('say what the licence permits: everything, some bands, or nothing yet', async () => {
    const { s } = state();
    const bands = ['2 m', '70 cm'];
    const answer = () => answers.push((c) => ({ data: settings(c.body as Partial<Settings>) }));
    expect([s.permits, s.talks('2 m')]).toEqual(['all', true]);
    answer();
    s.toggle('70 cm', bands);
    await vi.waitFor(() => {
      expect(calls[0]?.body.bands).toEqual(['2 m']);
    });
    expect([s.permits, s.talks('2 m'), s.talks('70 cm')]).toEqual(['some', true, false]);
    await vi.waitFor(() => {
      expect(s.message).toContain('Saved');
    });
    answer();
    s.toggle('2 m', bands); // no band is left to send on: that is no licence, and not every band
    await vi.waitFor(() => {
      expect(calls[1]?.body).toMatchObject({ bands: [], unlicensed: true });
    });
    expect(s.permits).toBe('none');
  });
});
