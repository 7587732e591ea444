import { follow, Standing } from './stream';

// One stream for all tabs of a browser, because a browser opens only a few
// connections to one place.
const ports = new Set<MessagePort>();
const standing = new Standing();

follow((t) => {
  standing.note(t);
  for (const port of ports) port.postMessage(t);
});

addEventListener('connect', (e) => {
  const port = (e as MessageEvent).ports[0];
  if (!port) return;
  ports.add(port);
  port.onmessage = (m: MessageEvent<string>) => {
    if (m.data === 'bye') {
      ports.delete(port);
      return;
    }
    ports.add(port); // a page that the browser had put aside is back
    if (standing.now) port.postMessage(standing.now);
  };
  if (standing.now) port.postMessage(standing.now);
});
