import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api, type SheetStep, type Walk, type WalkStop } from '$lib/api/client';
import type { Desk } from '$session/desk.svelte';
import { beats, learn, minutes, readPace, seconds } from './pace';
import { WalkState } from './walk.svelte';
import { large, letters, menu, presses, spoken } from './words';

const step = (number: number, does: string, more: Partial<SheetStep> = {}): SheetStep => ({
  number,
  do: does,
  keys: 'press MENU 1 2, press DOWN 8 times until it shows 88.5, press MENU',
  acts: [],
  presses: 12,
  repeats: 7,
  guess: false,
  opens: '',
  passes: [],
  ...more,
});

const stop = (slot: number, sure: WalkStop['sure']): WalkStop =>
  ({
    channel: slot * 10,
    slot,
    name: `Channel ${String(slot)}`,
    fingerprint: `held ${String(slot)}`,
    sure,
    effort: { presses: 24, repeats: 14 },
    alone: { presses: 40, repeats: 20 },
    sheet: { steps: [step(1, 'VFO'), step(2, 'tone sent')], keyed: null },
  }) as unknown as WalkStop;

const walk = (): Walk =>
  ({
    stops: [stop(7, 'read-out'), stop(3, 'dummy load'), stop(15, '')],
    end: { steps: [step(1, 'VFO')] },
    effort: { presses: 84, repeats: 49 },
  }) as unknown as Walk;

describe('pace', () => {
  beforeEach(() => {
    localStorage.clear();
  });

  it('begins at the stated pace and is corrected by one’s own', () => {
    expect(seconds({ presses: 0, seconds: 0 })).toBe(1.2);
    // As many own presses as the stated pace weighs: half way between 1.2 and 0.8.
    expect(seconds({ presses: 40, seconds: 32 })).toBeCloseTo(1.0);
    // Many own presses: the stated pace no longer counts for much.
    expect(seconds({ presses: 4000, seconds: 3200 })).toBeCloseTo(0.8, 1);
  });

  it('counts a repeated press as a quarter, and no pause at all', () => {
    expect(beats({ presses: 12, repeats: 8 })).toBe(6); // 4 and 8 quarters
    const pace = learn({ presses: 0, seconds: 0 }, { presses: 12, repeats: 8 }, 6);
    expect(pace).toEqual({ presses: 6, seconds: 6 });
    expect(learn(pace, { presses: 4, repeats: 0 }, 600)).toBe(pace); // ten minutes for four presses
    expect(learn(pace, { presses: 20, repeats: 0 }, 1)).toBe(pace); // leafed through
    expect(readPace()).toEqual(pace);
    expect(minutes(59)).toBe('less than a minute');
    expect(minutes(60 * 16)).toBe('16 min');
  });
});

describe('a walk', () => {
  beforeEach(() => {
    localStorage.clear();
  });
  const begin = () => {
    const ask = vi.fn().mockResolvedValue({ done: true });
    let now = 0;
    const w = new WalkState({ ask } as unknown as Desk, 4, () => (now += 5000));
    w.walk = walk();
    w.start();
    const ticks = () => ask.mock.calls.map(([x]) => (x as { body: unknown }).body);
    return { w, ask, ticks };
  };

  it('ticks what the read-out showed as keyed, and what only rests as stored', () => {
    const { w, ask, ticks } = begin();
    w.done();
    expect(w.current?.do).toBe('tone sent');
    w.done();
    expect(w.phase).toBe('rest');
    w.shows();
    expect(ticks()).toEqual([{ channel: 70, fingerprint: 'held 7', state: 'keyed' }]);
    expect(ask.mock.calls[0]?.[1]).toBe(true); // it waits until the application answers
    w.done();
    w.done();
    w.shows();
    expect(w.phase).toBe('dummy');
    w.keyed(false);
    w.done();
    w.done();
    w.shows();
    expect(ticks().slice(1)).toEqual([
      { channel: 30, fingerprint: 'held 3', state: 'stored' },
      { channel: 150, fingerprint: 'held 15', state: 'stored' },
    ]);
    expect(w.phase).toBe('end');
    w.done();
    expect(w.phase).toBe('done');
    expect(localStorage.getItem('walk 4')).toBeNull();
  });

  it('goes back over steps and channels, and counts what is left', () => {
    const { w } = begin();
    const all = w.left;
    w.back();
    expect([w.at, w.step, w.phase]).toEqual([0, 0, 'step']);
    w.done();
    expect(w.left).toBe(all - beats(step(1, 'VFO')));
    w.done();
    w.back();
    expect([w.step, w.phase]).toEqual([1, 'step']);
    w.done();
    w.shows();
    expect(w.at).toBe(1);
    w.back();
    expect([w.at, w.phase]).toEqual([0, 'rest']);
    w.to(2);
    expect(w.current?.do).toBe('tone sent');
  });

  it('is found again where it was left', () => {
    const { w } = begin();
    w.done();
    w.leave();
    expect(w.going).toBe(false);
    const again = new WalkState({ ask: vi.fn() } as unknown as Desk, 4);
    expect(again.kept?.step).toBe(1);
    again.goOn();
    expect([again.at, again.step, again.phase]).toEqual([0, 1, 'step']);
    expect(new WalkState({ ask: vi.fn() } as unknown as Desk, 5).kept).toBeUndefined();
    localStorage.setItem('walk 4', '{');
    expect(new WalkState({ ask: vi.fn() } as unknown as Desk, 4).kept).toBeUndefined();
  });
});

describe('an answer that comes late', () => {
  it('does not change the walk under the feet of who walks', async () => {
    localStorage.clear();
    let answer: (r: unknown) => void = () => undefined;
    const get = vi.spyOn(api, 'GET').mockReturnValue(new Promise((done) => (answer = done)) as never);
    const w = new WalkState({ ask: vi.fn() } as unknown as Desk, 4);
    w.walk = walk();
    const asked = w.ask();
    w.start();
    answer({ data: { ...walk(), stops: [stop(99, '')] }, response: { ok: true } });
    expect(await asked).toBe(false);
    expect(w.stop?.slot).toBe(7);
    get.mockRestore();
  });
});

describe('words', () => {
  it('names the menu as people say it', () => {
    expect(
      menu(
        step(1, 'tone', {
          acts: [{ verb: 'press', keys: ['MENU', '1', '2'], other: [], times: 0, shows: '', text: '' }],
        }),
      ),
    ).toBe('menu 12');
    expect(
      menu(step(1, 'x', { acts: [{ verb: 'press', keys: ['SHIFT'], other: [], times: 1, shows: '−', text: '' }] })),
    ).toBe('');
  });

  it('sets a value large, a word as a word', () => {
    expect(large(step(1, 'tone', { value: '88.5', unit: 'Hz' }))).toEqual({
      strong: '88',
      rest: '.5',
      unit: 'Hz',
      word: false,
    });
    expect(large(step(1, 'mode', { value: 'tone squelch' })).word).toBe(true);
    expect(large(step(1, 'name', { value: 'MARRAN' })).word).toBe(false);
    expect(spoken(step(3, 'tone sent', { value: '88.5', unit: 'Hz' }), 6)).toMatch(
      /^Step 3 of 6, tone sent 88.5 Hz: press MENU/,
    );
    expect(letters({ verb: 'spell', keys: ['UP', 'OK'], other: [], times: 0, shows: '', text: 'BA' }, 'ABC')).toEqual([
      { letter: 'B', presses: 1 },
      { letter: 'A', presses: 0 },
    ]);
    expect([presses(1), presses(1256)]).toEqual(['1 press', '1,256 presses']);
  });
});
