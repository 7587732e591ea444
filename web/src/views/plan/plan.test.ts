import { QueryClient } from '@tanstack/svelte-query';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Ledger, Reading } from '$lib/api/client';
import { answers, calls, type Answer } from '$lib/testing/server';

vi.mock('$lib/api/client', async (original) => {
  const { standIn } = await import('$lib/testing/server');
  return standIn(original as () => Promise<typeof import('$lib/api/client')>);
});

const { PlanState } = await import('./plan.svelte');
const { Desk } = await import('$session/desk.svelte');
const { Writes } = await import('$session/writes.svelte');
const { chosen } = await import('$lib/api/chosen.svelte');
const { say } = await import('$session/say.svelte');

const ledger = (revision: number, more: Partial<Ledger> = {}): Ledger => ({
  load: 1,
  plan: 1,
  revision,
  saved_at: '2026-11-25T09:42:00Z',
  rows: [],
  tally: { agrees: 0, unverified: 0, conflict: 0, stop: 0 },
  next_slot: 4,
  undo: '',
  redo: '',
  checking: false,
  puts: [],
  kinds: [],
  tag: '',
  base: '',
  gone: [],
  ...more,
});

const reading = (more: Partial<Reading> = {}): Reading =>
  ({
    slot: 4,
    complete: true,
    occupied: '',
    findings: [],
    lines: [],
    words: [],
    matches: [],
    offers: [],
    ...more,
  }) as unknown as Reading;

function plan() {
  const client = new QueryClient();
  client.setQueryData(['ledger', 1], ledger(7));
  chosen.load = 1;
  const p = new PlanState(new Desk(client, new Writes()));
  answers.length = 0;
  p.open();
  calls.length = 0;
  return p;
}

async function typed(p: InstanceType<typeof PlanState>, line: string, more: Partial<Reading> = {}) {
  answers.push(() => ({ data: reading(more) }));
  p.type(line);
  await vi.waitFor(() => {
    expect(p.reading).not.toBeNull();
  });
}

beforeEach(() => {
  localStorage.clear();
  chosen.also = [];
});

describe('the line', () => {
  it('is read as it is typed and kept for a reload', async () => {
    const p = plan();
    await typed(p, '146.52');
    expect(calls[0]).toEqual({
      method: 'POST',
      path: '/api/loads/{load}/read',
      body: { line: '146.52', slot: null, also: [] },
    });
    expect(localStorage.getItem('line-1')).toBe('146.52');
    p.type('');
    expect(p.reading).toBeNull();
  });

  it('drops an answer that a later one has overtaken', async () => {
    const p = plan();
    let late: (a: Answer) => void = () => undefined;
    answers.push(() => new Promise((resolve) => (late = resolve)));
    p.type('146');
    await typed(p, '146.52', { slot: 9 });
    late({ data: reading({ slot: 1 }) });
    await Promise.resolve();
    expect(p.reading?.slot).toBe(9);
  });

  it('is kept when nobody answers, and shows nothing that is not so', async () => {
    const p = plan();
    await typed(p, '146.5');
    p.type('146.52');
    await vi.waitFor(() => {
      expect(p.reading).toBeNull();
    });
    expect(p.line).toBe('146.52');
  });

  it('takes the nth fix, counted over all findings', async () => {
    const p = plan();
    await typed(p, 'x', { lines: [['a', 'b'], [], ['c']] });
    answers.push(() => ({ data: reading() }));
    expect(await p.fixLine(2)).toBe(true);
    expect(p.line).toBe('c');
    answers.push(() => ({ data: reading() }));
    expect(await p.fixLine(7)).toBe(false);
  });

  it('applies a fix to what is typed now, not to what was', async () => {
    const p = plan();
    await typed(p, '147.24 Beac', { lines: [['147.24 103.5 Beac']] });
    answers.push(
      () => new Promise(() => undefined),
      () => ({ data: reading({ lines: [['147.24 103.5 Beacon']] }) }),
      () => ({ data: reading() }),
    );
    p.type('147.24 Beacon');
    expect(await p.fixLine(0)).toBe(true);
    expect(p.line).toBe('147.24 103.5 Beacon');
  });
});

describe('lines pasted together', () => {
  const offers = (...lines: string[]) => lines.map((line) => ({ line, complete: true, channel: {} as never }));

  it('wait for their turn and come one after the other', async () => {
    const p = plan();
    answers.push(() => ({ data: reading({ offers: offers('147.24 + 103.5', '146.94 - 88.5', '146.52') }) }));
    answers.push(() => ({ data: reading() }));
    await p.paste('Output Tone\n147.24 + 103.5\n146.94 - 88.5\n146.52');
    expect(p.line).toBe('147.24 + 103.5');
    expect(p.pasted).toEqual(['146.94 - 88.5', '146.52']);
    answers.push(() => ({ data: reading() }));
    p.next(1); // out of turn: what stood in the line waits again
    expect(p.line).toBe('146.52');
    expect(p.pasted).toEqual(['147.24 + 103.5', '146.94 - 88.5']);
  });

  it('keep a line that was being written', async () => {
    const p = plan();
    await typed(p, '446.0 half');
    answers.push(() => ({ data: reading({ offers: offers('147.24', '146.94') }) }));
    answers.push(() => ({ data: reading() }));
    await p.paste('147.24\n146.94');
    expect([p.line, ...p.pasted]).toEqual(['446.0 half', '147.24', '146.94']);
  });

  it('are kept where the application does not answer', async () => {
    const p = plan();
    answers.push(() => {
      throw new TypeError('Failed to fetch');
    });
    await p.paste('147.24\n146.94');
    expect(p.pasted).toEqual([]);
    expect(p.line).toBe('147.24 146.94');
  });
});

describe('storing', () => {
  it('clears the line at once and takes the new ledger', async () => {
    const p = plan();
    await typed(p, '146.52');
    answers.push((call) => {
      expect(p.line).toBe('');
      expect(call.body).toEqual({ line: '146.52', slot: 4, replace: false, revision: 7, also: [] });
      return { data: ledger(8) };
    });
    expect(await p.store()).toBe(true);
    expect(p.ledger?.revision).toBe(8);
    expect(p.selected).toBe(4);
    expect(say.text).toBe('Stored in slot 4');
  });

  it('brings the line back if it could not be stored', async () => {
    const p = plan();
    await typed(p, '146.52');
    answers.push(
      () => ({
        error: { type: 'about:blank', title: 'No', status: 422, errors: [{ field: 'slot', message: 'Full.' }] },
      }),
      () => ({ data: reading() }),
    );
    expect(await p.store()).toBe(false);
    expect(p.line).toBe('146.52');
    expect(p.trouble).toBe('Full.');
  });

  it('names the line that was not stored if another one was begun', async () => {
    const p = plan();
    await typed(p, '146.52');
    answers.push(() => {
      p.line = '147';
      return {
        error: { type: 'about:blank', title: 'No', status: 422, errors: [{ field: 'slot', message: 'Full.' }] },
      };
    });
    expect(await p.store()).toBe(false);
    expect(p.line).toBe('147');
    expect(p.trouble).toBe('Full. Not stored: 146.52');
  });

  it('stores over a channel only on purpose', async () => {
    const p = plan();
    await typed(p, '146.52 #7', { slot: 7, occupied: 'Marran Light' });
    expect(await p.store()).toBe(false);
    expect(p.trouble).toContain('Slot 7 holds Marran Light');
    expect(calls).toHaveLength(1);
    answers.push(() => ({ data: ledger(8) }));
    expect(await p.store(true)).toBe(true);
    expect(calls[1]?.body.replace).toBe(true);
  });

  it('reads the line first if the answer is not there yet', async () => {
    const p = plan();
    answers.push(
      () => new Promise(() => undefined),
      () => ({ data: reading() }),
      () => ({ data: ledger(8) }),
    );
    p.type('146.52');
    expect(await p.store()).toBe(true);
  });
});

describe('changes', () => {
  it('takes the present state when somebody else was first', async () => {
    const p = plan();
    answers.push(() => ({
      error: {
        type: 'about:blank',
        title: 'The plan has changed',
        detail: 'meanwhile',
        status: 409,
        ledger: ledger(12),
      },
    }));
    expect(await p.remove(7)).toBe(false);
    expect(p.ledger?.revision).toBe(12);
    expect(p.trouble).toBe('meanwhile');
  });

  it('keeps what was typed beside what somebody else put there, until the person chooses', async () => {
    const p = plan();
    const refuse = () => ({
      error: { type: 'about:blank', title: 'No', detail: 'Brid changed it', status: 409, ledger: ledger(12) },
    });
    answers.push(refuse);
    expect(await p.cell(7, 'transmit_tone', '88.5')).toEqual({});
    expect(p.typed(7, 'transmit_tone')).toMatchObject({ text: '88.5', state: 'refused', why: 'Brid changed it' });
    expect(p.ledger?.revision).toBe(12);
    const t = p.typed(7, 'transmit_tone');
    if (!t) throw new Error('it is lost');
    answers.push(() => ({ data: ledger(13) }));
    await p.mine(t);
    expect(calls.at(-1)?.body).toEqual({ transmit_tone: '88.5', revision: 12 });
    expect(p.typed(7, 'transmit_tone')).toBeUndefined();
    answers.push(refuse);
    await p.cell(7, 'name', 'Marran');
    const n = p.typed(7, 'name');
    if (n) p.theirs(n);
    expect(p.typed(7, 'name')).toBeUndefined();
  });

  it('gives the faults of a cell back to the cell', async () => {
    const p = plan();
    answers.push(() => ({
      error: { type: 'about:blank', title: 'No', status: 422, errors: [{ field: 'receive', message: 'no frequency' }] },
    }));
    expect(await p.cell(7, 'receive', 'x')).toEqual({ receive: 'no frequency' });
    expect(p.trouble).toBe('');
  });

  it('follows a channel to its new slot', async () => {
    const p = plan();
    answers.push(() => ({ data: ledger(8) }));
    expect(await p.cell(7, 'slot', '#9')).toEqual({});
    expect(p.selected).toBe(9);
  });

  it('names the fix by its ID, and moves for a fix of the slot', async () => {
    const p = plan();
    answers.push(() => ({ data: ledger(8) }));
    await p.fix(7, {
      id: 'tone-differs-1',
      label: 'Send 88.5 Hz',
      confidence: 'very likely',
      odds: 0.97,
      result: {} as never,
    });
    expect(calls[0]?.body).toEqual({ id: 'tone-differs-1', revision: 7 });
    expect(say.text).toBe('Send 88.5 Hz: done in slot 7');
    answers.push(() => ({ data: ledger(9) }));
    await p.fix(7, {
      label: 'Use slot 11?',
      confidence: 'possible',
      odds: 0,
      id: 'slot-range-1',
      result: {} as never,
      slot: 11,
    });
    expect(calls[1]?.body).toMatchObject({ slot: '11' });
  });

  it('undoes only what there is', async () => {
    const p = plan();
    expect(await p.desk.undo(1)).toBe(false);
    expect(say.text).toBe('Nothing to undo');
    p.desk.client.setQueryData(['ledger', 1], ledger(7, { undo: 'store Quay', redo: 'delete Pell' }));
    answers.push(() => ({ data: ledger(8) }));
    expect(await p.desk.undo(1)).toBe(true);
    expect(say.text).toBe('Undone: store Quay');
    p.desk.client.setQueryData(['ledger', 1], ledger(8, { redo: 'delete Pell' }));
    answers.push(() => ({ data: ledger(9) }));
    await p.desk.undo(1, true);
    expect(calls.at(-1)?.body).toEqual({ redo: true, revision: 8 });
  });
});
