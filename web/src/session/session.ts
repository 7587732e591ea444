import { Desk } from './desk.svelte';
import { client } from '$lib/client';
import { link } from '$lib/api/link.svelte';
import { commands } from './commands.svelte';
import { Deltas } from './deltas';
import { imports } from './imports.svelte';
import { listen } from './live';
import { Writes } from './writes.svelte';

export const writes: Writes = new Writes(
  (ledger) => {
    void desk.again(ledger.load);
  },
  (load) => desk.ledger(load)?.tag,
);

/** The slots of the radios, for every view. */
export const desk: Desk = new Desk(client, writes);

/** Starts what a tab does besides showing a view: keys, what happens elsewhere, what is not saved yet. */
export function start(): void {
  const deltas = new Deltas(client);
  listen((t) => {
    if (t.kind === 'lost') {
      link.lost();
      return;
    }
    link.back();
    imports.take(t);
    deltas.take(t);
  });
  addEventListener('keydown', (e) => {
    commands.press(e);
  });
  addEventListener('beforeunload', (e) => {
    if (writes.queue.length > 0) e.preventDefault();
  });
  writes.restore();
}
