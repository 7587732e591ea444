import { beforeEach, describe, expect, it, vi } from 'vitest';
import { answers, calls, clear } from '$lib/testing/server';

vi.mock('$lib/api/client', async (original) => {
  const { standIn } = await import('$lib/testing/server');
  return standIn(original as () => Promise<typeof import('$lib/api/client')>);
});

const { FirstState } = await import('./first.svelte');
const all = ['6 m', '2 m', '70 cm'];

beforeEach(clear);

describe('the first run', () => {
  it('lets a click on a band mean that the person chooses', () => {
    const f = new FirstState();
    expect(all.map((b) => f.talks(b))).toEqual([true, true, true]);
    f.toggle('6 m', all);
    expect(all.map((b) => f.talks(b))).toEqual([false, true, true]);
    f.permits = 'none';
    expect(all.map((b) => f.talks(b))).toEqual([false, false, false]);
    f.toggle('2 m', all);
    expect(all.map((b) => f.talks(b))).toEqual([false, true, false]);
  });

  it('asks for a band before it sends an empty choice, which would permit all', async () => {
    const f = new FirstState();
    f.permits = 'some';
    expect(await f.begin()).toBe(false);
    expect(calls).toEqual([]);
    expect(f.faults.bands).toContain('none yet');
  });

  it('sends what was typed, and that there is no licence yet', async () => {
    const f = new FirstState();
    Object.assign(f, { name: 'QX1AA', place: 'GN21ia', radio: 'trail', permits: 'none' });
    answers.push(() => ({ data: {} as never }));
    expect(await f.begin()).toBe(true);
    expect(calls[0]?.body).toEqual({
      person: { name: 'QX1AA', bands: [], unlicensed: true },
      plan: { name: 'My plan', region: 'us', place: 'GN21ia', radio: 'trail' },
    });
  });

  it('keeps what was typed and says what is wrong with each', async () => {
    const f = new FirstState();
    f.place = 'somewhere';
    answers.push(() => ({
      error: { type: 'about:blank', title: 'x', status: 422, errors: [{ field: 'place', message: 'not a place' }] },
    }));
    expect(await f.begin()).toBe(false);
    expect(f.faults).toEqual({ place: 'not a place' });
    expect(f.place).toBe('somewhere');
    expect(f.busy).toBe(false);
  });
});
