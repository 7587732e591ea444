import { afterEach, describe, expect, it, vi } from 'vitest';
import { follow, Standing, type Told } from './stream';

/** A stream that a test speaks for. */
class Source {
  static all: Source[] = [];
  on = new Map<string, (e: { data: string; lastEventId: string }) => void>();
  onerror: () => void = () => undefined;
  closed = false;
  constructor(readonly url: string) {
    Source.all.push(this);
  }
  addEventListener(kind: string, f: (e: { data: string; lastEventId: string }) => void) {
    this.on.set(kind, f);
  }
  close() {
    this.closed = true;
  }
  say(kind: string, id: string, data: object) {
    this.on.get(kind)?.({ data: JSON.stringify(data), lastEventId: id });
  }
}
const make = (url: string) => new Source(url) as unknown as EventSource;

afterEach(() => {
  vi.useRealTimers();
  Source.all = [];
});

describe('the stream', () => {
  it('comes back after the last event it told of', () => {
    vi.useFakeTimers();
    const told: Told[] = [];
    follow((t) => told.push(t), '', make);
    Source.all[0]?.say('hello', 'a-3', { event: 12 });
    Source.all[0]?.say('change', 'a-4', { event: 13 });
    Source.all[0]?.onerror();
    expect(told.map((t) => t.kind)).toEqual(['hello', 'change', 'lost']);
    expect(Source.all[0]?.closed).toBe(true);
    expect(Source.all).toHaveLength(1);
    vi.advanceTimersByTime(1000);
    expect(Source.all[1]?.url).toBe('/api/events?after=a-4');
  });

  it('tells who joins later how things stand', () => {
    const s = new Standing();
    expect(s.now).toBeUndefined();
    s.note({ kind: 'hello', id: 'a-0', data: { event: 5 } });
    s.note({ kind: 'change', id: 'a-1', data: { event: 6 } });
    s.note({ kind: 'import', id: 'a-2', data: {} });
    expect(s.now).toEqual({ kind: 'hello', id: 'a-2', data: { event: 6 } });
    s.note({ kind: 'lost', id: 'a-2', data: {} });
    expect(s.now?.kind).toBe('lost');
  });
});
