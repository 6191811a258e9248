import { Injectable } from '@nestjs/common';
import { nameMatchKey } from '@goodword/core/intake';
import type { Place } from '@goodword/core/permission';
import type { Bound, Scoped } from '../platform/scoped';
import { BroughtTogether, NotFound } from '../platform/errors';
import type { Tables } from '../platform/tables/generated';

export interface PersonRow {
  id: number;
  first_name: string;
  last_name: string;
  chapter_id: number;
  chapter: string;
  batch_id: number | null;
  created_at: Date;
  country: string | null;
  region: string | null;
  language: string | null;
}

export type GiftRow = Pick<Tables['gift'], 'id' | 'supporter_id' | 'amount' | 'given_on' | 'note'>;

export interface SupporterFilter {
  search?: string;
  tag?: number;
  list?: number;
  batch?: number;
  /** Only people with an address on hold. */
  hold?: boolean;
}

interface Condition {
  sql: string;
  bindings: Record<string, Bound>;
}

function likeEscape(text: string): string {
  return text.replace(/[\\%_]/g, '\\$&');
}

/**
 * A search is an address where it has an @, a number where it is mostly digits, else the beginnings of names.
 */
function searchCondition(search: string): Condition {
  const digits = search.replace(/\D/g, '');
  const point = (kind: string, like: string): Condition => ({
    sql: `EXISTS (SELECT 1 FROM supporter_contact sc JOIN contact_point cp ON cp.id = sc.contact_point_id
      WHERE sc.supporter_id = s.id AND cp.kind = '${kind}' AND cp.normal LIKE :like)`,
    bindings: { like },
  });
  if (search.includes('@')) return point('email', `${likeEscape(search.toLowerCase())}%`);
  if (digits.length >= 4 && /^[\d\s()+.-]+$/.test(search)) return point('mobile', `%${digits}%`);
  const [first = '', ...rest] = search.split(/\s+/).filter((word) => nameMatchKey(word) !== '');
  const last = rest.join(' ');
  if (last === '') {
    return {
      sql: `(s.first_name LIKE :word OR s.last_name LIKE :word
        OR EXISTS (SELECT 1 FROM supporter_contact sc JOIN contact_point cp ON cp.id = sc.contact_point_id
        WHERE sc.supporter_id = s.id AND cp.kind = 'email' AND cp.normal LIKE :word))`,
      bindings: { word: `${likeEscape(first.toLowerCase())}%` },
    };
  }
  return {
    sql: `((s.first_name LIKE :first AND s.last_name LIKE :last)
      OR (s.first_name LIKE :last AND s.last_name LIKE :first))`,
    bindings: { first: `${likeEscape(first)}%`, last: `${likeEscape(last)}%` },
  };
}

function conditions(filter: SupporterFilter, chapterId: number | null): Condition[] {
  // Written out: a condition that may hold of anybody keeps the count from reading an index alone.
  const mine = chapterId === null ? '' : 'AND s.chapter_id = :chapter';
  const out: Condition[] = [
    { sql: `s.organization_id = :org AND s.erased_at IS NULL ${mine}`, bindings: {} },
  ];
  if (filter.search) out.push(searchCondition(filter.search));
  if (filter.tag)
    out.push({
      sql: 'EXISTS (SELECT 1 FROM supporter_tag x WHERE x.supporter_id = s.id AND x.tag_id = :tag)',
      bindings: { tag: filter.tag },
    });
  if (filter.list)
    out.push({
      sql: 'EXISTS (SELECT 1 FROM supporter_list x WHERE x.supporter_id = s.id AND x.list_id = :list)',
      bindings: { list: filter.list },
    });
  if (filter.batch)
    out.push({
      sql: `EXISTS (SELECT 1 FROM batch_row x
        WHERE x.organization_id = :org AND x.supporter_id = s.id AND x.batch_id = :batch)`,
      bindings: { batch: filter.batch },
    });
  if (filter.hold) {
    out.push({
      sql: `EXISTS (SELECT 1 FROM supporter_contact sc JOIN contact_point cp ON cp.id = sc.contact_point_id
        WHERE sc.supporter_id = s.id AND cp.on_hold = 1)`,
      bindings: {},
    });
  }
  return out;
}

/** People first: begun at the chapters, a page of fifty would sort everybody. */
const PERSON = `SELECT s.id, s.first_name, s.last_name, s.chapter_id, c.name AS chapter, s.batch_id,
      s.created_at, s.country, s.region, s.language
    FROM supporter s
    STRAIGHT_JOIN chapter c ON c.id = s.chapter_id`;

/** People, their places and gifts. Owns `supporter`, `gift`, `place_before`. */
@Injectable()
export class SupportersRepository {
  /** One page by (last name, first name, id); `after` holds those of the last row before it. */
  async page(
    db: Scoped,
    filter: SupporterFilter,
    after: (string | number)[] | null,
    limit: number,
  ): Promise<{ rows: PersonRow[]; total: number }> {
    const all = conditions(filter, db.scope.chapterId);
    const where = all.map((condition) => condition.sql).join(' AND ');
    const bindings = Object.assign({}, ...all.map((condition) => condition.bindings)) as Record<
      string,
      Bound
    >;
    const behind = after
      ? `AND (s.last_name > :aLast OR (s.last_name = :aLast
          AND (s.first_name > :aFirst OR (s.first_name = :aFirst AND s.id > :aId))))`
      : '';
    const [aLast = '', aFirst = '', aId = 0] = after ?? [];
    const page = `${PERSON} WHERE ${where} ${behind} ORDER BY s.last_name, s.first_name, s.id LIMIT :limit`;
    const [[count], rows] = await Promise.all([
      db.sql<{ n: number }>(`SELECT COUNT(*) AS n FROM supporter s WHERE ${where}`, bindings),
      db.sql<PersonRow>(page, { ...bindings, aLast, aFirst, aId, limit }),
    ]);
    return { rows, total: count?.n ?? 0 };
  }

  /** People by id, in the order given; ids out of the caller's scope are left out. */
  async byIds(db: Scoped, ids: readonly number[]): Promise<PersonRow[]> {
    if (ids.length === 0) return [];
    const rows = await db.sql<PersonRow>(
      `${PERSON}
        WHERE s.organization_id = :org AND s.erased_at IS NULL
          AND (:chapter IS NULL OR s.chapter_id = :chapter) AND s.id IN (:ids)`,
      { ids },
    );
    const order = new Map(ids.map((id, i) => [id, i]));
    return rows.sort((a, b) => order.get(a.id)! - order.get(b.id)!);
  }

  async find(db: Scoped, id: number): Promise<PersonRow | undefined> {
    return (await this.byIds(db, [id]))[0];
  }

  /** As `find`; throws NotFound, or BroughtTogether where another record stands in its place. */
  async need(db: Scoped, id: number): Promise<PersonRow> {
    const person = await this.find(db, id);
    if (person) return person;
    const instead = await this.instead(db, id);
    if (instead) throw new BroughtTogether(instead.id, `${instead.first_name} ${instead.last_name}`.trim());
    throw new NotFound('supporter');
  }

  /** The record into which this one was brought, however many times over. */
  private async instead(db: Scoped, id: number): Promise<PersonRow | undefined> {
    const rows = await db.sql<{ id: number }>(
      `WITH RECURSIVE way AS (SELECT merged_into AS id FROM supporter
        WHERE organization_id = :org AND id = :id AND merged_into IS NOT NULL
        UNION
        SELECT s.merged_into
        FROM supporter s
        JOIN way ON s.id = way.id
        WHERE s.organization_id = :org AND s.merged_into IS NOT NULL) SELECT id FROM way`,
      { id },
    );
    return (
      await this.byIds(
        db,
        rows.map((row) => row.id),
      )
    )[0];
  }

  /**
   * As `need`, and nobody else holds the record until the transaction ends. Whatever edits a record begins
   * with this, so that no edit lands on one that is being brought into another or erased at that moment. The
   * first reading of the transaction: what it reads afterwards is no older.
   */
  async lockForUpdate(tx: Scoped, id: number): Promise<PersonRow> {
    await this.lock(tx, [id]);
    return this.need(tx, id);
  }

  async holdBoth(tx: Scoped, one: number, other: number): Promise<[PersonRow, PersonRow]> {
    await this.lock(tx, [one, other]);
    return [await this.need(tx, one), await this.need(tx, other)];
  }

  /** In the order of ids, so that two who want the same two don't wait for each other. */
  private async lock(tx: Scoped, ids: readonly number[]): Promise<void> {
    await tx.sql(
      'SELECT id FROM supporter WHERE organization_id = :org AND id IN (:ids) ORDER BY id FOR UPDATE',
      { ids },
    );
  }

  async gifts(db: Scoped, supporterIds: readonly number[]): Promise<GiftRow[]> {
    if (supporterIds.length === 0) return [];
    return db.sql<GiftRow>(
      `SELECT id, supporter_id, amount, given_on, note
        FROM gift
        WHERE organization_id = :org AND supporter_id IN (:supporterIds)
        ORDER BY given_on DESC, id DESC`,
      { supporterIds },
    );
  }

  async tagCounts(db: Scoped, supporterIds: readonly number[]): Promise<Map<number, number>> {
    if (supporterIds.length === 0) return new Map();
    const rows = await db.sql<{ supporter_id: number; n: number }>(
      `SELECT supporter_id, COUNT(*) AS n
        FROM supporter_tag
        WHERE organization_id = :org AND supporter_id IN (:supporterIds)
        GROUP BY supporter_id`,
      { supporterIds },
    );
    return new Map(rows.map((row) => [row.supporter_id, row.n]));
  }

  async rename(tx: Scoped, id: number, firstName: string, lastName: string): Promise<void> {
    tx.changed('own', 0, [id]);
    await tx
      .supporters()
      .where('supporter.id', id)
      .update({ first_name: firstName, last_name: lastName, updated_at: new Date() });
  }

  /**
   * Another place has other rules, so everything of the person may be different; where they were before is
   * kept.
   */
  async setPlace(tx: Scoped, id: number, place: Place): Promise<void> {
    tx.changed('people', 0, [id]);
    await this.keepPlaceBefore(tx, id, place);
    await tx
      .supporters()
      .where('supporter.id', id)
      .update({ country: place.country, region: place.region, updated_at: new Date() });
  }

  /**
   * Where somebody was until now, unless that was not known: a place that is learned is no move. Returns the
   * row's id.
   */
  async keepPlaceBefore(tx: Scoped, id: number, next: Place): Promise<number | null> {
    const [now] = await tx.sql<Place>(
      'SELECT country, region FROM supporter WHERE organization_id = :org AND id = :id',
      { id },
    );
    if (!now?.country || (now.country === next.country && now.region === next.region)) return null;
    // A region that is learned within a country is no move either.
    if (now.country === next.country && now.region === null) return null;
    const past = { supporter_id: id, country: now.country, region: now.region, changed_by: tx.scope.actorId };
    return tx.insert('place_before', past);
  }

  async addGift(
    tx: Scoped,
    gift: { supporterId: number; amount: number; on: number; note: string },
  ): Promise<number> {
    tx.changed('gifts', 0, [gift.supporterId]);
    return tx.insert('gift', {
      supporter_id: gift.supporterId,
      amount: gift.amount,
      given_on: gift.on,
      note: gift.note,
      recorded_by: tx.scope.actorId,
    });
  }
}
