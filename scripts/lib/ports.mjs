import { createServer } from 'node:net';

function isFree(port) {
  return new Promise((done) => {
    const probe = createServer();
    probe.once('error', () => done(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)));
  });
}

/** The wanted port, or the next free one; two callers in one process never get the same. */
const given = new Set();
export async function freePort(wanted, onOther = () => undefined) {
  for (let port = wanted; port < wanted + 200; port++) {
    if (given.has(port) || !(await isFree(port))) continue;
    given.add(port);
    if (port !== wanted) onOther(port);
    return port;
  }
  throw new Error(`expected a free port from ${wanted} to ${wanted + 199}, got none`);
}
