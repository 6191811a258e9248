import { createServer as createHttp, type IncomingMessage } from 'node:http';
import { createServer } from 'node:net';
import { SMTPServer } from 'smtp-server';

/** A port that nobody listens at. */
export function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });
}

/** Waits until something is so; says what was waited for where it never is. */
export async function untilTrue<T>(
  what: string,
  read: () => T,
  so: (value: T) => boolean,
  seconds = 10,
): Promise<T> {
  for (const end = Date.now() + seconds * 1000; ;) {
    const value = read();
    if (so(value)) return value;
    if (Date.now() > end)
      throw new Error(`waited ${seconds} s for ${what}; it stood at ${JSON.stringify(value)}`);
    await new Promise((done) => setTimeout(done, 20));
  }
}

export interface Heard {
  method: string;
  path: string;
  headers: IncomingMessage['headers'];
  body: string;
}

/**
 * A web server that keeps what it is asked, and answers with the statuses that it is given, then with 204.
 */
export async function listener(statuses: number[] = []) {
  const heard: Heard[] = [];
  const server = createHttp((request, response) => {
    const chunks: Buffer[] = [];
    request.on('data', (chunk: Buffer) => chunks.push(chunk));
    request.on('end', () => {
      heard.push({
        method: request.method!,
        path: request.url!,
        headers: request.headers,
        body: Buffer.concat(chunks).toString('utf8'),
      });
      response.writeHead(statuses.shift() ?? 204, { location: 'https://elsewhere.test/' }).end();
    });
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', () => done()));
  const { port } = server.address() as { port: number };
  const close = () => (server.closeAllConnections(), new Promise<void>((done) => server.close(() => done())));
  return { heard, url: `http://127.0.0.1:${port}`, close };
}

/** Where mail to return paths, and answers, come in. */
export async function mailIn() {
  const mails: { from: string; to: string; raw: string }[] = [];
  const server = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    logger: false,
    closeTimeout: 50,
    onData: (stream, session, done) => {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => chunks.push(chunk));
      stream.on('end', () => {
        const { mailFrom, rcptTo } = session.envelope;
        mails.push({
          from: mailFrom ? mailFrom.address : '',
          to: rcptTo[0]!.address,
          raw: Buffer.concat(chunks).toString('utf8'),
        });
        done();
      });
    },
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', () => done()));
  const { port } = server.server.address() as { port: number };
  return { mails, port, close: () => new Promise<void>((done) => server.close(() => done())) };
}
