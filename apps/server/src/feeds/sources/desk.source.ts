import { isUtf8 } from 'node:buffer';
import { Inject, Injectable } from '@nestjs/common';
import Joi from 'joi';
import { FILE_LIMITS } from '@goodword/core/intake';
import { bodyOf, FetchFault, FetchOut, type Asked } from '../../platform/fetch-out';
import type { Answer, AskedOf, Connection, FeedSource, Offer, ToldRefusal, SourceRow } from './source';

const PAGE_BYTES = 20 * 1024 * 1024;

const named = { key: Joi.string().max(100).required(), name: Joi.string().max(200).required() };
const offerShape = Joi.object({
  types: Joi.array()
    .items(
      Joi.object({
        ...named,
        filters: Joi.array().items(Joi.object(named).unknown()).max(500).default([]),
        fields: Joi.array().items(Joi.object(named).unknown()).min(1).max(FILE_LIMITS.columns).required(),
      }).unknown(),
    )
    .max(100)
    .required(),
  tells: Joi.boolean().default(false),
  takes: Joi.boolean().default(false),
}).unknown();
const id = Joi.alternatives(Joi.string().min(1).max(190), Joi.number()).required();
const pageShape = Joi.object({
  records: Joi.array().items(Joi.object({ id }).unknown()).max(10_000).required(),
  next: Joi.string().max(2000).allow(null).default(null),
  position: Joi.string().max(200).allow(null).default(null),
}).unknown();

interface Types extends Offer {
  types: (Offer['types'][number] & { fields: { key: string; name: string }[] })[];
}
interface Page {
  records: Record<string, unknown>[];
  next: string | null;
  position: string | null;
}

/**
 * A donor database over HTTP and JSON: what types of records it has and which filters are kept there at
 * `v1/types`, the records in pages at `v1/records/<type>`, those changed since a position with `since`,
 * nothing where the entity tag is still the same (RFC 9110 §13.1.2). What is gone since is told as
 * `{ "id": …, "gone": true }`.
 */
@Injectable()
export class DeskSource implements FeedSource {
  readonly kind = 'desk';

  constructor(@Inject(FetchOut) private readonly out: FetchOut) {}

  async offer(at: Connection): Promise<Offer> {
    const { types, tells, takes } = await this.types(at);
    return { types: types.map(({ key, name, filters }) => ({ key, name, filters })), tells, takes };
  }

  async read(at: Connection, asked: AskedOf): Promise<Answer> {
    const type = (await this.types(at)).types.find(({ key }) => key === asked.type);
    const host = new URL(at.url).host;
    if (!type) throw new FetchFault('desk.no-type', { host, type: asked.type });
    if (asked.filter !== null && !type.filters.some(({ key }) => key === asked.filter))
      throw new FetchFault('desk.no-filter', { host, filter: asked.filter });
    const query = new URLSearchParams({
      ...(asked.filter === null ? {} : { filter: asked.filter }),
      ...(asked.since === null ? {} : { since: asked.since }),
    });
    const first = address(at, `v1/records/${encodeURIComponent(asked.type)}?${query.toString()}`);
    const answer = await this.ask(at, first, asked.etag === null ? {} : { 'if-none-match': asked.etag });
    if (answer.unchanged) return { unchanged: true };
    const mark = { etag: answer.etag, position: answer.page.position };
    return {
      unchanged: false,
      header: type.fields.map(({ name }) => name),
      whole: asked.since === null,
      pages: this.pages(at, first, answer.page, type.fields),
      mark,
    };
  }

  async listen(at: Connection, type: string, hook: { url: string; secret: string } | null): Promise<void> {
    const path = `v1/hooks/${encodeURIComponent(type)}`;
    const answer = await this.out.ask({
      ...{ url: address(at, path).href, method: hook ? 'POST' : 'DELETE' },
      headers: { ...proofOf(at), 'content-type': 'application/json' },
      ...(hook ? { body: JSON.stringify(hook) } : {}),
    });
    answer.resume();
    if ((answer.statusCode ?? 500) >= 400)
      throw new FetchFault('desk.status', { host: new URL(at.url).host, status: answer.statusCode ?? 0 });
  }

  async tell(at: Connection, { key, type, record, channel, about, at: saidAt }: ToldRefusal): Promise<void> {
    const answer = await this.out.ask({
      ...{ url: address(at, `v1/refusals/${encodeURIComponent(type)}`).href, method: 'POST' },
      headers: { ...proofOf(at), 'content-type': 'application/json', 'idempotency-key': key },
      body: JSON.stringify({ id: record, channel, about, at: saidAt.toISOString() }),
    });
    answer.resume();
    const status = answer.statusCode ?? 0;
    // A record that is there no longer has nothing that could be closed.
    if (status >= 400 && status !== 404 && status !== 410)
      throw new FetchFault('desk.status', { host: new URL(at.url).host, status });
  }

  private async *pages(
    at: Connection,
    first: URL,
    page: Page,
    fields: readonly { key: string }[],
  ): AsyncGenerator<SourceRow[]> {
    const asked = new Set([first.href]);
    for (let next: Page | null = page; next;) {
      yield next.records.map((record) => rowOf(record, fields));
      if (next.next === null) return;
      const url = new URL(next.next, first);
      // A page of another host would get our token.
      if (url.origin !== first.origin) throw new FetchFault('desk.elsewhere', { host: first.host });
      if (asked.has(url.href)) throw new FetchFault('desk.again', { host: first.host, page: asked.size });
      asked.add(url.href);
      const answer = await this.ask(at, url, {});
      next = answer.unchanged ? null : answer.page;
    }
  }

  private async types(at: Connection): Promise<Types> {
    const url = address(at, 'v1/types');
    const answer = await this.json({ url: url.href, headers: proofOf(at) });
    return checked<Types>(offerShape, answer.body, url.host);
  }

  private async ask(
    at: Connection,
    url: URL,
    headers: Record<string, string>,
  ): Promise<{ unchanged: true } | { unchanged: false; page: Page; etag: string | null }> {
    const { status, body, etag } = await this.json({
      url: url.href,
      headers: { ...proofOf(at), ...headers },
    });
    if (status === 304) return { unchanged: true };
    return { unchanged: false, page: checked<Page>(pageShape, body, url.host), etag };
  }

  private async json(asked: Asked): Promise<{ status: number; body: unknown; etag: string | null }> {
    const { host } = new URL(asked.url);
    const answer = await this.out.ask({
      ...asked,
      headers: { accept: 'application/json', ...asked.headers },
    });
    const status = answer.statusCode ?? 0;
    if (status === 304) {
      answer.resume();
      return { status, body: null, etag: null };
    }
    if (status === 401 || status === 403) throw new FetchFault('desk.token', { host });
    if (status !== 200) throw new FetchFault('desk.status', { host, status });
    const bytes = await bodyOf(answer, PAGE_BYTES, host);
    const kind = answer.headers['content-type'] ?? '';
    if (!/\bjson\b/.test(kind)) throw new FetchFault('desk.not-json', { host, kind: kind || 'nothing' });
    const etag = answer.headers.etag;
    return { status, body: parsed(bytes, host), etag: etag && etag.length <= 200 ? etag : null };
  }
}

const proofOf = (at: Connection): Record<string, string> =>
  at.token === '' ? {} : { authorization: `Bearer ${at.token}` };

const address = (at: Connection, path: string): URL =>
  new URL(path, at.url.endsWith('/') ? at.url : `${at.url}/`);

/** JSON is UTF-8 (RFC 8259 §8.1); what is none would come as broken names. */
function parsed(bytes: Buffer, host: string): unknown {
  if (!isUtf8(bytes)) throw new FetchFault('desk.encoding', { host });
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    throw new FetchFault('desk.broken', { host, bytes: bytes.length });
  }
}

function checked<T>(shape: Joi.ObjectSchema, body: unknown, host: string): T {
  const { value, error } = shape.validate(body, { convert: false }) as Joi.ValidationResult<T>;
  if (error) throw new FetchFault('desk.shape', { host, what: error.message });
  return value;
}

function rowOf(record: Record<string, unknown>, fields: readonly { key: string }[]): SourceRow {
  const cells = fields.map(({ key }) => cellOf(record[key]));
  return record.gone === true ? { cells, gone: true } : { cells };
}

/** A value as a cell of a sheet has it: several with commas between. */
function cellOf(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (Array.isArray(value)) return value.map(cellOf).join(', ');
  const text = typeof value === 'object' ? JSON.stringify(value) : String(value as string | number | boolean);
  return text.slice(0, FILE_LIMITS.cell);
}
