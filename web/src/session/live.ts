import { follow, Standing, type Told } from './stream';

const name = 'mnemos-live';

/** The worker that all tabs share; nothing where the browser has none, or refuses it. */
function shared(): SharedWorker | undefined {
  try {
    return new SharedWorker(new URL('./live.worker.ts', import.meta.url), { type: 'module', name });
  } catch {
    return undefined;
  }
}

function broadcast(): BroadcastChannel | undefined {
  try {
    return 'locks' in navigator ? new BroadcastChannel(name) : undefined;
  } catch {
    return undefined;
  }
}

/**
 * Tells a tab of what happens. However many tabs there are, a browser has one
 * stream: a shared worker holds it, else the tab that has a lock and passes
 * everything on to the others.
 */
export function listen(tell: (t: Told) => void): void {
  const worker = shared();
  if (worker) {
    worker.onerror = () => {
      follow(tell); // it cannot be started
    };
    worker.port.onmessage = (m: MessageEvent<Told>) => {
      tell(m.data);
    };
    addEventListener('pagehide', () => {
      worker.port.postMessage('bye');
    });
    addEventListener('pageshow', (e) => {
      if (e.persisted) worker.port.postMessage('hi');
    });
    return;
  }
  const channel = broadcast();
  if (!channel) {
    follow(tell);
    return;
  }
  const standing = new Standing();
  let leads = false;
  const note = (t: Told) => {
    standing.note(t);
    tell(t);
  };
  channel.onmessage = (m: MessageEvent<Told | 'who'>) => {
    if (m.data !== 'who') note(m.data);
    else if (leads && standing.now) channel.postMessage(standing.now);
  };
  channel.postMessage('who');
  void navigator.locks
    .request(name, () => {
      leads = true;
      follow((t) => {
        channel.postMessage(t);
        note(t);
      }, standing.now?.id);
      return new Promise(() => undefined); // for as long as the tab is there
    })
    .catch(() => {
      follow(tell); // no lock is to be had
    });
}
