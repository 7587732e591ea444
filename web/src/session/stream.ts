import type { components } from '$lib/api/schema';

export type Kind = 'hello' | 'lost' | 'reset' | 'change' | 'import' | 'catalog';

/** What is told of what happens; "lost" where the application does not answer. */
export interface Told {
  kind: Kind;
  /** What the stream is resumed by. */
  id: string;
  data: components['schemas']['Event'];
}

const kinds: readonly Kind[] = ['hello', 'reset', 'change', 'import', 'catalog'];
const pause = 1000;

const native = (url: string) => new EventSource(url);

/** Follows what happens after an event, and comes back by its number when the stream is cut. */
export function follow(tell: (t: Told) => void, after = '', make = native): () => void {
  if (typeof EventSource === 'undefined' && make === native) {
    tell({ kind: 'hello', id: '', data: {} }); // nothing is told as it happens: each view shows how things stand when it is opened
    return () => undefined;
  }
  let id = after;
  let source: EventSource;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const open = () => {
    source = make(id ? `/api/events?after=${encodeURIComponent(id)}` : '/api/events');
    for (const kind of kinds) {
      source.addEventListener(kind, (e: MessageEvent<string>) => {
        id = e.lastEventId || id;
        tell({ kind, id, data: JSON.parse(e.data) as Told['data'] });
      });
    }
    source.onerror = () => {
      source.close();
      tell({ kind: 'lost', id, data: {} });
      timer = setTimeout(open, pause);
    };
  };
  open();
  return () => {
    clearTimeout(timer);
    source.close();
  };
}

/** How things stand, for who joins later: whether the application answers, and how far the changes are. */
export class Standing {
  #last: Told = { kind: 'lost', id: '', data: {} };
  #heard = false;

  note(t: Told): void {
    this.#heard = true;
    if (t.kind === 'lost') this.#last = { ...this.#last, kind: 'lost' };
    else {
      const event = t.data.event ?? this.#last.data.event;
      this.#last = { kind: 'hello', id: t.id || this.#last.id, data: event === undefined ? {} : { event } };
    }
  }

  /** Nothing until something was heard. */
  get now(): Told | undefined {
    return this.#heard ? this.#last : undefined;
  }
}
