import { randomUUID } from 'node:crypto';
import express from 'express';
import { Webhook } from 'standardwebhooks';
import { DESK_FAULTS, type DeskFault } from './desk-faults';
import { DESK_FIELDS, DESK_FILTERS, deskPeople, type DeskPerson } from './desk-people';
import { deskPage } from './desk-pages';

export interface DeskOptions {
  port: number;
  token: string;
  people?: number;
  /** Records on a page. */
  pageSize?: number;
}

/**
 * Simulates a donor database with an HTTP API: members in pages, since a position, with an entity tag, told
 * of by signed webhooks; a page to change them by hand.
 */
export class DonorDesk {
  readonly people: DeskPerson[];
  fault: DeskFault = 'none';
  /** Noes that it was told, each once. */
  readonly refusals: { key: string; id: string; channel: string; about: string }[] = [];
  /** Requests for records, for tests of what is asked. */
  asked = 0;
  private position = 1;
  private hook: { url: string; secret: string } | null = null;
  private readonly http: ReturnType<express.Express['listen']>;

  constructor(private readonly options: DeskOptions) {
    this.people = deskPeople(options.people ?? 240);
    this.http = this.app().listen(options.port, '127.0.0.1');
  }

  get port(): number {
    const address = this.http.address();
    return typeof address === 'object' && address ? address.port : 0;
  }

  async close(): Promise<void> {
    this.http.closeAllConnections();
    await new Promise<void>((done) => this.http.close(() => done()));
  }

  /** Changes a record, or adds one, and tells whoever asked to be told. */
  async change(id: string, part: Partial<DeskPerson>): Promise<void> {
    const known = this.people.find((one) => one.id === id);
    const person = known ?? { ...deskPeople(1)[0]!, id };
    Object.assign(person, part, { changed: ++this.position });
    if (!known) this.people.push(person);
    await this.tell();
  }

  private async tell(): Promise<void> {
    if (!this.hook) return;
    const [id, at] = [`msg_${randomUUID()}`, new Date()];
    const body = JSON.stringify({ type: 'members.changed', timestamp: at.toISOString() });
    await fetch(this.hook.url, {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        'webhook-id': id,
        'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
        'webhook-signature': new Webhook(this.hook.secret).sign(id, at, body),
      },
      body,
    }).catch(() => undefined);
  }

  private records(query: { filter?: string; since?: string; page?: string }): object {
    const size = this.options.pageSize ?? 500;
    const filter = DESK_FILTERS.find(({ key }) => key === query.filter);
    const since = query.since === undefined ? null : Number(query.since);
    const isIn = (one: DeskPerson) =>
      !one.gone && (filter?.has(one) ?? true) && this.fault !== 'everybody is gone';
    const all = this.people.filter((one) => (since === null ? isIn(one) : one.changed > since));
    const page = Number(query.page ?? 1);
    const of = (at: number) => new URLSearchParams({ ...query, page: String(at) }).toString();
    const next = this.fault === 'the same page forever' ? 1 : page * size < all.length ? page + 1 : null;
    return {
      records: all.slice((page - 1) * size, page * size).map((one) => {
        if (!isIn(one)) return { id: one.id, gone: true };
        const record = Object.fromEntries(DESK_FIELDS.map(({ key }) => [key, one[key]]));
        return { ...record, interests: one.interests };
      }),
      next: next === null ? null : `/v1/records/members?${of(next)}`,
      position: String(this.position),
    };
  }

  private app(): express.Express {
    const app = express();
    app.set('etag', false);
    app.use(express.json(), express.urlencoded({ extended: false }));
    app.use('/v1', (request, response, next) => {
      if (request.header('authorization') === `Bearer ${this.options.token}`) return next();
      response.status(401).json({ error: 'Unknown token' });
    });
    app.get('/v1/types', (_request, response) => {
      const fields =
        this.fault === 'other columns' ? DESK_FIELDS.filter(({ key }) => key !== 'email') : DESK_FIELDS;
      const filters = DESK_FILTERS.map(({ key, name }) => ({ key, name }));
      response.json({
        types: [{ key: 'members', name: 'Members', filters, fields }],
        tells: true,
        takes: true,
      });
    });
    app.get('/v1/records/members', (request, response) => {
      this.asked += 1;
      const query = request.query as { filter?: string; since?: string; page?: string };
      if (this.fault === 'status 500') return void response.status(500).json({ error: 'It broke' });
      if (this.fault === 'a page for people')
        return void response.type('html').send('<!doctype html><title>Sign in</title><p>Sign in first</p>');
      const etag = `"${this.position}-${query.filter ?? 'all'}-${this.fault}"`;
      if (query.since === undefined && request.header('if-none-match') === etag)
        return void response.status(304).end();
      const body = JSON.stringify(this.records(query));
      response.setHeader('etag', etag);
      if (this.fault === 'half a page')
        return void response.type('json').send(body.slice(0, Math.floor(body.length / 2)));
      if (this.fault === 'another encoding')
        return void response.type('json').send(Buffer.from(body.replaceAll('Ada', 'Adélaïde'), 'latin1'));
      response.type('json').send(body);
    });
    app.post('/v1/refusals/members', async (request, response) => {
      const key = request.header('idempotency-key') ?? '';
      const { id, channel, about } = request.body as { id?: string; channel?: string; about?: string };
      const person = this.people.find((one) => one.id === id && !one.gone);
      if (!person) return void response.status(404).json({ error: 'No such member' });
      const isNew = !this.refusals.some((one) => one.key === key);
      if (isNew) this.refusals.push({ key, id: person.id, channel: channel ?? '', about: about ?? '' });
      if (isNew && channel === 'email') await this.change(person.id, { news: 'no' });
      response.status(204).end();
    });
    app.post('/v1/hooks/members', (request, response) => {
      this.hook = request.body as { url: string; secret: string };
      response.status(204).end();
    });
    app.delete('/v1/hooks/members', (_request, response) => {
      this.hook = null;
      response.status(204).end();
    });
    app.get(
      '/',
      (_request, response) => void response.send(deskPage(this.people, this.fault, this.options.token)),
    );
    app.post('/fault', (request, response) => {
      const fault = String((request.body as { fault?: string }).fault) as DeskFault;
      this.fault = DESK_FAULTS.includes(fault) ? fault : 'none';
      response.redirect(303, '/');
    });
    app.post('/people', async (request, response) => {
      const { id, email, first, last, news, act } = request.body as Record<string, string>;
      const isNews = news === 'yes' || news === 'no' ? news : '';
      await this.change(id || `D-${1000 + this.people.length}`, {
        ...{ email: email ?? '', first: first ?? '', last: last ?? '', news: isNews, gone: act === 'delete' },
        ...(act === 'add' ? { paid_up: true } : {}),
      });
      response.redirect(303, '/');
    });
    return app;
  }
}
