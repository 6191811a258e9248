import { SMTPServer } from 'smtp-server';

export interface SunkMail {
  to: string;
  from: string;
  raw: string;
  messageId: string;
}

export interface SinkOptions {
  /** Does not offer SMTPUTF8. */
  asciiOnly?: boolean;
  /** Milliseconds between the end of DATA and the answer. */
  delay?: number;
  /** Answers a recipient with this code, and words where they matter. */
  answer?: (to: string) => number | [code: number, words: string] | null;
  /** Refuses whoever sends with this code. */
  refuseSender?: () => number | null;
  /** Cuts the connection after DATA of this recipient, without an answer. */
  cutAfterData?: (to: string) => boolean;
  port?: number;
}

/** An SMTP server that keeps what it is given: the other side of a real hand-over. */
export class Sink {
  readonly mails: SunkMail[] = [];
  port = 0;
  private server: SMTPServer | null = null;

  constructor(public options: SinkOptions = {}) {}

  async listen(): Promise<this> {
    const server = new SMTPServer({
      disabledCommands: ['AUTH', 'STARTTLS'],
      hideSMTPUTF8: this.options.asciiOnly ?? false,
      logger: false,
      closeTimeout: 50,
      onRcptTo: (address, _session, done) => {
        const answer = this.options.answer?.(address.address) ?? null;
        const [code, words] = Array.isArray(answer) ? answer : [answer, 'no'];
        done(code === null ? null : Object.assign(new Error(words), { responseCode: code }));
      },
      onMailFrom: (_address, _session, done) => {
        const code = this.options.refuseSender?.() ?? null;
        done(code === null ? null : Object.assign(new Error('5.7.1 no'), { responseCode: code }));
      },
      onData: (stream, session, done) => {
        const chunks: Buffer[] = [];
        stream.on('data', (chunk: Buffer) => chunks.push(chunk));
        stream.on('end', () => {
          const raw = Buffer.concat(chunks).toString('utf8');
          const to = session.envelope.rcptTo[0]!.address;
          const from = session.envelope.mailFrom ? session.envelope.mailFrom.address : '';
          if (this.options.cutAfterData?.(to)) return cut(server, session.remotePort);
          this.mails.push({ to, from, raw, messageId: /^Message-ID:\s*(\S+)/im.exec(raw)?.[1] ?? '' });
          setTimeout(() => done(), this.options.delay ?? 0);
        });
      },
    });
    server.on('error', () => undefined);
    this.server = server;
    await new Promise<void>((listening) =>
      server.listen(this.options.port ?? this.port, '127.0.0.1', () => listening()),
    );
    this.port = (server.server.address() as { port: number }).port;
    return this;
  }

  get url(): string {
    return `smtp://127.0.0.1:${this.port}`;
  }

  async close(): Promise<void> {
    await new Promise<void>((closed) => this.server!.close(() => closed()));
  }
}

function cut(server: SMTPServer, remotePort: number): void {
  const connections = (
    server as unknown as { connections: Set<{ remotePort: number; _socket: { destroy(): void } }> }
  ).connections;
  for (const connection of connections)
    if (connection.remotePort === remotePort) connection._socket.destroy();
}
