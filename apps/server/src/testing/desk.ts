import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';

/** A record of the desk of tests. */
export interface DeskRecord {
  id: string;
  first: string;
  last: string;
  email: string;
  news: string;
  changed?: number;
  gone?: boolean;
}

const FIELDS = [
  { key: 'id', name: 'Record id' },
  { key: 'first', name: 'First name' },
  { key: 'last', name: 'Last name' },
  { key: 'email', name: 'Email' },
  { key: 'news', name: 'OK to email' },
];

/** A donor database in little, for tests: everything it answers can be changed under way. */
export class TestDesk {
  readonly records = new Map<string, DeskRecord>();
  readonly token = 'a token of tests';
  fields = FIELDS;
  pageSize = 100;
  position = 0;
  hook: { url: string; secret: string } | null = null;
  /** Noes that it was told. */
  heard: { key: string; id: string; channel: string; about: string }[] = [];
  /** What was asked for, newest last. */
  asked: string[] = [];
  /** Answers instead of the desk where it answers at all. */
  instead: ((request: IncomingMessage, response: ServerResponse) => boolean) | null = null;
  private readonly server: Server = createServer((request, response) => this.answer(request, response));

  async listen(): Promise<this> {
    await new Promise<void>((done) => this.server.listen(0, '127.0.0.1', done));
    return this;
  }

  async close(): Promise<void> {
    this.server.closeAllConnections();
    await new Promise<void>((done) => this.server.close(() => done()));
  }

  get host(): string {
    return `127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }

  get url(): string {
    return `http://${this.host}`;
  }

  put(...records: DeskRecord[]): void {
    for (const record of records) this.records.set(record.id, { ...record, changed: ++this.position });
  }

  remove(...ids: string[]): void {
    for (const id of ids) this.put({ ...this.records.get(id)!, gone: true });
  }

  private answer(request: IncomingMessage, response: ServerResponse): void {
    const url = new URL(request.url!, this.url);
    this.asked.push(url.pathname + url.search);
    if (this.instead?.(request, response)) return;
    const json = (value: unknown, status = 200, headers = {}) =>
      response
        .writeHead(status, { 'content-type': 'application/json', ...headers })
        .end(JSON.stringify(value));
    if (request.headers.authorization !== `Bearer ${this.token}`) return void json({}, 401);
    if (url.pathname === '/v1/types') {
      const filters = [{ key: 'some', name: 'some of them' }];
      return void json({
        types: [{ key: 'members', name: 'Members', filters, fields: this.fields }],
        tells: true,
      });
    }
    if (url.pathname === '/v1/refusals/members') return this.hear(request, response);
    if (url.pathname === '/v1/hooks/members') return this.listenTo(request, response);
    const etag = `"at-${this.position}"`;
    const since = url.searchParams.get('since');
    if (since === null && request.headers['if-none-match'] === etag)
      return void response.writeHead(304).end();
    const page = Number(url.searchParams.get('page') ?? 1);
    const all = [...this.records.values()].filter((one) =>
      since === null ? !one.gone : one.changed! > +since,
    );
    url.searchParams.set('page', String(page + 1));
    json(
      {
        records: all
          .slice((page - 1) * this.pageSize, page * this.pageSize)
          .map((one) => (one.gone ? { id: one.id, gone: true } : one)),
        next: page * this.pageSize < all.length ? url.pathname + url.search : null,
        position: String(this.position),
      },
      200,
      { etag },
    );
  }

  private hear(request: IncomingMessage, response: ServerResponse): void {
    let body = '';
    request.on('data', (piece: Buffer) => (body += piece.toString()));
    request.on('end', () => {
      this.heard.push({
        key: String(request.headers['idempotency-key']),
        ...(JSON.parse(body) as object),
      } as never);
      response.writeHead(204).end();
    });
  }

  private listenTo(request: IncomingMessage, response: ServerResponse): void {
    let body = '';
    request.on('data', (piece: Buffer) => (body += piece.toString()));
    request.on('end', () => {
      this.hook = request.method === 'POST' ? (JSON.parse(body) as TestDesk['hook']) : null;
      response.writeHead(204).end();
    });
  }
}
