import { Inject, Injectable } from '@nestjs/common';
import type { DncAdded, DncRow, Page } from '@goodword/core/contract';
import { refusalDomains, readRefusal, type Refusal } from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Invalid, NotFound } from '../platform/errors';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { AccessScope } from '../platform/scope';
import { HouseKeys, type Hasher } from '../platform/house-keys';
import { DoNotContactRepository, type NewDnc } from './do-not-contact.repository';
import { sentence } from '../platform/words';

/** Most lines that one list may have; a longer one comes as a file of people who said no. */
const MOST_LINES = 50_000;

/** The do-not-contact list: what is never written to, whoever brings it in again. */
@Injectable()
export class DoNotContactService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(HouseKeys) private readonly keys: HouseKeys,
    @Inject(DoNotContactRepository) private readonly list: DoNotContactRepository,
  ) {}

  async page(
    scope: AccessScope,
    query: { search?: string; after?: string; limit: number },
  ): Promise<Page<DncRow>> {
    const after = decodeCursor(query.after, 1)?.[0];
    const { rows, total } = await this.list.page(
      this.database.read(scope),
      query.search ?? '',
      after === undefined ? null : Number(after),
      query.limit,
    );
    return { rows, total, next: rows.length === query.limit ? encodeCursor([rows.at(-1)!.id]) : null };
  }

  /** Adds one entry a line. Lines that can't be read are told and the others are added. */
  async add(
    scope: AccessScope,
    text: string,
    note: string,
    how: 'hand' | 'file' = 'hand',
  ): Promise<DncAdded> {
    const lines = text.split(/\r\n|\r|\n/);
    if (lines.length > MOST_LINES)
      throw new Invalid([
        {
          field: 'lines',
          code: 'many',
          message: sentence('do-not-contact.too-many', { most: MOST_LINES, count: lines.length }),
        },
      ]);
    const hashOf = await this.keys.hasher();
    return this.database.write(scope, async (tx) => {
      const [organization] = await tx.sql<{ country: string }>(
        'SELECT country FROM organization WHERE id = :org',
      );
      const refused: DncAdded['refused'] = [];
      const entries = new Map<string, NewDnc>();
      lines.forEach((line, i) => {
        if (line.trim() === '') return;
        const read = readRefusal(line, organization?.country ?? 'US');
        if (read.ok) {
          const entry = entryOf(read.refusal, hashOf);
          entries.set(`${entry.kind}:${entry.hash}`, entry);
        } else refused.push({ line: i + 1, text: line.trim().slice(0, 80), reason: speak(read.reason) });
      });
      const all = [...entries.values()];
      const added = await this.list.add(tx, all, how, note);
      const closed = await this.list.close(tx, all);
      if (added > 0) await audit(tx, 'dnc-add', { 'do-not-contact': 0 }, `${added} added to do-not-contact`);
      return { added, already: all.length - added, refused, closed };
    });
  }

  /** Puts one address on the list by the program itself: a complaint. */
  async close(
    tx: Scoped,
    kind: 'email' | 'mobile',
    normal: string,
    how: string,
    note: string,
  ): Promise<void> {
    const entry = entryOf({ kind, normal }, await this.keys.hasher());
    await this.list.add(tx, [entry], how, note);
    await this.list.close(tx, [entry]);
  }

  /**
   * Takes an entry off; addresses that another entry closes stay closed, and every no in the ledger stays as
   * it is.
   */
  async remove(scope: AccessScope, id: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const entry = await this.list.find(tx, id);
      if (!entry) throw new NotFound('do-not-contact entry');
      await this.list.remove(tx, id);
      const covered = (await this.list.marked(tx)).filter((point) => covers(entry, point));
      await this.list.reopen(tx, covered);
      await this.closeNew(tx, covered);
      await audit(
        tx,
        'dnc-remove',
        { 'do-not-contact': id },
        `Taken off do-not-contact: ${entry.shown ?? entry.kind}`,
        { before: entry.shown },
      );
    });
  }

  /** Whether an address that comes in, by whatever road, is closed. */
  async isClosed(db: Scoped, kind: 'email' | 'mobile', normal: string): Promise<boolean> {
    const hashOf = await this.keys.hasher();
    return this.list.isClosed(db, kind, normal, {
      own: hashOf(kind, normal),
      domains: ['', ...domainHashes(normal, hashOf)],
    });
  }

  /** Whether nothing is closed at all, so that nobody who comes in needs to be looked up. */
  isEmpty(db: Scoped): Promise<boolean> {
    return this.list.isEmpty(db);
  }

  /**
   * Marks those of the addresses that an entry closes (they have just come in, or were just opened); the
   * whole list is read once for all of them.
   */
  async closeNew(tx: Scoped, points: readonly { id: number; kind: string; normal: string }[]): Promise<void> {
    const { hashes, ranges } = await this.list.everything(tx);
    if (points.length === 0 || hashes.size + ranges.length === 0) return;
    const hashOf = await this.keys.hasher();
    const closed = points.filter(({ kind, normal }) => {
      return (
        hashes.has(hashOf(kind, normal)) ||
        (kind === 'email' && domainHashes(normal, hashOf).some((hash) => hashes.has(hash))) ||
        (kind === 'mobile' &&
          ranges.some(({ from, to }) => normal.length === from.length && normal >= from && normal <= to))
      );
    });
    await this.list.mark(tx, closed);
  }
}

const domainHashes = (normal: string, hashOf: Hasher) =>
  refusalDomains(normal).map((domain) => hashOf('domain', domain));

function entryOf(refusal: Refusal, hashOf: Hasher): NewDnc {
  if (refusal.kind === 'range') {
    const shown = `${refusal.from} - ${refusal.to}`;
    return { kind: 'range', hash: hashOf('range', shown), shown, from: refusal.from, to: refusal.to };
  }
  return {
    kind: refusal.kind,
    hash: hashOf(refusal.kind, refusal.normal),
    shown: refusal.normal,
    from: null,
    to: null,
  };
}

function covers(
  entry: { kind: DncRow['kind']; shown: string | null; range_from: string | null; range_to: string | null },
  point: { kind: string; normal: string },
): boolean {
  switch (entry.kind) {
    case 'email':
    case 'mobile':
      return entry.shown === null || (point.kind === entry.kind && point.normal === entry.shown);
    case 'domain':
      return (
        point.kind === 'email' && entry.shown !== null && refusalDomains(point.normal).includes(entry.shown)
      );
    case 'range':
      return point.kind === 'mobile' && point.normal >= entry.range_from! && point.normal <= entry.range_to!;
  }
}
