import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Handset } from '$lib/api/client';
import { answers, calls, clear, type Call } from '$lib/testing/server';

vi.mock('$lib/api/client', async (original) => {
  const { standIn } = await import('$lib/testing/server');
  return standIn(original as () => Promise<typeof import('$lib/api/client')>);
});

const { HandsetState } = await import('./handset.svelte');

const display = (figures: string): Handset['display'] => ({
  figures,
  what: 'receive',
  marks: [],
  slot: '',
  name: '',
  open: '',
  value: '',
  beep: false,
  says: figures,
});

/** A radio that shows how many acts were replayed. */
const replays =
  (trouble = '') =>
  (call: Call) => {
    const acts = call.body.acts as string[];
    const view: Handset = {
      keys: ['MENU', '1'],
      display: display(String(acts.length)),
      frames: [{ key: 'MENU', times: 2, display: display('x') }],
      trouble,
      slot: '',
      differs: [],
    };
    return { data: view };
  };

const asked = () => calls.map((c) => c.body.acts);

beforeEach(() => {
  clear();
  vi.useRealTimers();
});

describe('the simulated handset', () => {
  it('replays everything since the start, and a step that is asked for early waits', async () => {
    const h = new HandsetState(1, 8, 4, true);
    answers.push(replays(), replays(), replays(), replays());
    const all = [h.start(), h.step(), h.step(), h.press('MENU')];
    await Promise.all(all);
    expect(asked()).toEqual([[], ['line 0'], ['line 0', 'line 1'], ['line 0', 'line 1', 'key MENU']]);
    expect(h.at).toBe(2);
    expect(h.display?.figures).toBe('3');
    expect(h.pressed).toBe('MENU');
  });

  it('stops where a step cannot be done, and does not go on', async () => {
    const h = new HandsetState(1, 8, 4, true);
    answers.push(replays(), replays('it shows 1, not 2'));
    await h.start();
    await h.play();
    expect(h.trouble).toBe('it shows 1, not 2');
    expect(h.at).toBe(0);
    expect(h.playing).toBe(false);
  });

  it('plays to the end by itself, then there is nothing left to do', async () => {
    vi.useFakeTimers();
    const h = new HandsetState(1, 8, 2);
    answers.push(replays(), replays(), replays());
    await h.start();
    const played = h.play();
    await vi.runAllTimersAsync();
    await played;
    expect(h.over).toBe(true);
    await h.step();
    expect(calls.length).toBe(3);
  });

  it('leaves a step out without pressing anything', async () => {
    const h = new HandsetState(1, 8, 4, true);
    answers.push(replays(), replays());
    await h.start();
    h.skip();
    await h.step();
    expect(h.skipped).toEqual([0]);
    expect(asked()).toEqual([[], ['line 1']]);
  });

  it('counts a pause between two keys, and forgets a key that was not answered', async () => {
    vi.useFakeTimers();
    const h = new HandsetState(1, 8, 4, true);
    answers.push(replays(), replays());
    await h.start();
    await h.press('MENU');
    vi.advanceTimersByTime(6_200);
    await h.press('1'); // nobody answers
    expect(h.trouble).toContain('does not answer');
    answers.push(replays());
    await h.press('2');
    expect(asked().slice(-2)).toEqual([
      ['key MENU', 'wait 6', 'key 1'],
      ['key MENU', 'key 2'],
    ]);
  });

  it('starts over with nothing done', async () => {
    const h = new HandsetState(1, 8, 4, true);
    answers.push(replays(), replays(), replays());
    await h.start();
    await h.step();
    await h.start();
    expect(asked().at(-1)).toEqual([]);
    expect(h.at).toBe(0);
  });
});
