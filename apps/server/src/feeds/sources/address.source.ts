import { isUtf8 } from 'node:buffer';
import { createHash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { FILE_LIMITS, Unreadable } from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { IntakeFiles } from '../../intake/reading/intake-files.service';
import { bodyOf, FetchFault, FetchOut } from '../../platform/fetch-out';
import type { Answer, AskedOf, Connection, FeedSource, Offer, SourceRow } from './source';

const EVERYTHING = { key: 'everything', name: 'Everything in it', filters: [] };
const MOST_BYTES = 50 * 1024 * 1024;

/**
 * A file at an address: anything that Gather reads (a table, a workbook, cards), or JSON with one record in
 * each item. It is always read as a whole; nothing is read where its entity tag (RFC 9110 §8.8.3) or, without
 * one, its bytes are still the same.
 */
@Injectable()
export class AddressSource implements FeedSource {
  readonly kind = 'address';

  constructor(
    @Inject(FetchOut) private readonly out: FetchOut,
    @Inject(IntakeFiles) private readonly files: IntakeFiles,
  ) {}

  async offer(at: Connection): Promise<Offer> {
    (await this.ask(at, null)).destroy();
    return { types: [EVERYTHING], tells: false, takes: false };
  }

  async read(at: Connection, { etag }: AskedOf): Promise<Answer> {
    const { host } = new URL(at.url);
    const answer = await this.ask(at, etag);
    if (answer.statusCode === 304) {
      answer.resume();
      return { unchanged: true };
    }
    const bytes = await bodyOf(answer, MOST_BYTES, host);
    const told = answer.headers.etag;
    const mark =
      told && told.length <= 200 ? told : `sha256:${createHash('sha256').update(bytes).digest('hex')}`;
    if (mark === etag) return { unchanged: true };
    const isJson = /\bjson\b/.test(answer.headers['content-type'] ?? '');
    const table = isJson ? tableOfJson(bytes, host) : await this.tableOf(bytes, host);
    return { unchanged: false, whole: true, ...table, mark: { etag: mark, position: null } };
  }

  private async ask(at: Connection, etag: string | null) {
    const { host } = new URL(at.url);
    const answer = await this.out.ask({
      url: at.url,
      redirects: 3,
      headers: {
        ...(at.token === '' ? {} : { authorization: `Bearer ${at.token}` }),
        ...(etag === null || etag.startsWith('sha256:') ? {} : { 'if-none-match': etag }),
      },
    });
    const status = answer.statusCode ?? 0;
    if (status === 200 || (status === 304 && etag !== null)) return answer;
    answer.resume();
    if (status === 401 || status === 403) throw new FetchFault('desk.token', { host });
    throw new FetchFault('desk.status', { host, status });
  }

  private async tableOf(bytes: Buffer, host: string) {
    try {
      return await this.files.table(bytes);
    } catch (error) {
      if (error instanceof Unreadable)
        throw new FetchFault('feed.unreadable', { host, why: speak(error.said) });
      throw error;
    }
  }
}

/** Records of JSON as a table: a column for every key that some record has, in the order they come. */
function tableOfJson(bytes: Buffer, host: string): { header: string[]; pages: AsyncIterable<SourceRow[]> } {
  if (!isUtf8(bytes)) throw new FetchFault('desk.encoding', { host });
  let value: unknown;
  try {
    value = JSON.parse(bytes.toString('utf8'));
  } catch {
    throw new FetchFault('desk.broken', { host, bytes: bytes.length });
  }
  const records = Array.isArray(value) ? value : Object.values(value ?? {}).find(Array.isArray);
  if (!records?.every((one): one is Record<string, unknown> => typeof one === 'object' && one !== null))
    throw new FetchFault('feed.no-records', { host });
  const header = [...new Set(records.flatMap((record) => Object.keys(record)))];
  if (header.length === 0 || header.length > FILE_LIMITS.columns)
    throw new FetchFault('feed.no-records', { host });
  const cell = (one: unknown): string =>
    one === null || one === undefined
      ? ''
      : typeof one === 'object'
        ? JSON.stringify(one)
        : String(one as string | number | boolean);
  const rows = records.map((record) => ({ cells: header.map((key) => cell(record[key])) }));
  return { header, pages: inOne(rows) };
}

async function* inOne(rows: SourceRow[]): AsyncGenerator<SourceRow[]> {
  await Promise.resolve();
  yield rows;
}
