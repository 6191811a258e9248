import { createServer, type Server } from 'node:http';

export interface SentText {
  to: string;
  from: string;
  text: string;
  key: string;
}

/** A text gateway that keeps what it is given, once for each key. */
export class Gateway {
  readonly texts: SentText[] = [];
  /** Answers with this status instead of taking a text. */
  status: number | null = null;
  port = 0;
  private readonly server: Server;

  constructor() {
    this.server = createServer((request, response) => {
      let body = '';
      request.on('data', (chunk) => (body += String(chunk)));
      request.on('end', () => {
        if (this.status !== null) return response.writeHead(this.status).end('{}');
        const key = String(request.headers['idempotency-key']);
        const { to, from, text } = JSON.parse(body) as SentText;
        if (!this.texts.some((one) => one.key === key)) this.texts.push({ to, from, text, key });
        response.writeHead(202, { 'content-type': 'application/json' }).end(JSON.stringify({ id: key }));
      });
    });
  }

  async listen(): Promise<this> {
    await new Promise<void>((done) => this.server.listen(this.port, '127.0.0.1', () => done()));
    this.port = (this.server.address() as { port: number }).port;
    return this;
  }

  async close(): Promise<void> {
    this.server.closeAllConnections();
    await new Promise<void>((done) => this.server.close(() => done()));
  }
}
