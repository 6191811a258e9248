import { Injectable } from '@nestjs/common';
import type { BatchWill } from '@goodword/core/contract';
import { allColumns, type IntakePlan } from '@goodword/core/intake';
import { UNION_COUNTRIES, type HouseRules } from '@goodword/core/permission';
import type { Bound, Scoped } from '../../platform/scoped';
import { byPlaceSql } from '../../permission/place.sql';
import type { BatchContents } from './batch-contents';
import { OWN_COLUMNS } from '../bringing-in/bring-in.repository';
import { FURTHER } from '../bringing-in/row-addresses.repository';
import { takes } from '../../permission/line.sql';

const PERSON_OF_ROW =
  'COALESCE(NULLIF(r.supporter_id, 0), -CAST(COALESCE(r.same_as_row, r.row_no) AS SIGNED))';
const MINE = 'r.organization_id = :org AND r.batch_id = :batchId';
const COMING = `${MINE} AND r.verdict IN ('new', 'shares', 'update', 'same', 'gift')`;

/** Every address of the coming rows, with the key of the person: who is here, or the row that makes them. */
function addressesSql(kind: 'email' | 'mobile'): string {
  const person = 'COALESCE(NULLIF(r.supporter_id, 0), -CAST(COALESCE(r.same_as_row, r.row_no) AS SIGNED))';
  const says = `r.${kind === 'email' ? 'email' : 'text'}_says AS says`;
  const line = `AND ${takes(kind === 'mobile' ? 'text' : 'email', 'r.line')}`;
  return `SELECT r.batch_id, r.row_no, ${person} AS person, r.supporter_id, r.country, r.${kind} AS normal,
      ${says}
    FROM batch_row r
    WHERE ${COMING} AND r.${kind} IS NOT NULL ${line}
    UNION ALL
    SELECT r.batch_id, r.row_no, ${person}, r.supporter_id, r.country, m.normal, ${says}
    FROM batch_row r
    JOIN batch_more m ON m.batch_id = r.batch_id AND m.row_no = r.row_no AND m.kind = '${kind}'
    WHERE ${COMING}`;
}

/**
 * What a checked batch will do, counted before anything is written; and who of those who are here stays the
 * same.
 */
@Injectable()
export class ForecastRepository {
  /** Rows that would change nothing about somebody who is here: no value, address, group, stage or entry. */
  async markSame(
    tx: Scoped,
    batchId: number,
    plan: IntakePlan,
    groups: { tagIds: number[]; listIds: number[]; allKnown: boolean },
    writing: ReadonlySet<number>,
  ): Promise<void> {
    if (!groups.allKnown) return;
    const own = OWN_COLUMNS.map(
      ([column]) => `(COALESCE(r.${column}, '') = '' OR BINARY s.${column} <=> BINARY r.${column})`,
    );
    const linked = (kind: string, normal: string) =>
      `EXISTS (SELECT 1 FROM contact_point cp JOIN supporter_contact sc ON sc.contact_point_id = cp.id
        WHERE cp.organization_id = :org AND cp.kind = ${kind} AND cp.normal = ${normal}
        AND sc.supporter_id = r.supporter_id)`;
    const more = (kinds: string, unlike: string) =>
      `NOT EXISTS (SELECT 1 FROM batch_more m
        WHERE m.batch_id = r.batch_id AND m.row_no = r.row_no AND m.kind IN (${kinds}) AND NOT ${unlike})`;
    const members = (kind: 'tag' | 'list', ids: readonly number[]) =>
      ids.length === 0
        ? 'TRUE'
        : `(SELECT COUNT(*) FROM supporter_${kind} g
          WHERE g.supporter_id = r.supporter_id AND g.${kind}_id IN (${ids.join(', ')})) = ${
            new Set(ids).size
          }`;
    const tagged = `EXISTS (SELECT 1 FROM supporter_tag g JOIN tag t ON t.id = g.tag_id
        WHERE g.supporter_id = r.supporter_id AND t.organization_id = :org AND t.name = m.value)`;
    const values = `NOT EXISTS (SELECT 1 FROM batch_value v
      LEFT JOIN field_value f ON f.supporter_id = r.supporter_id AND f.field_id = v.field_id
      WHERE v.batch_id = r.batch_id AND v.row_no = r.row_no
      AND NOT (f.text_value <=> v.text_value AND f.number_value <=> v.number_value
      AND f.date_value <=> v.date_value AND f.month_day <=> v.month_day))`;
    const roster = plan.roster
      ? `EXISTS (SELECT 1 FROM roster o
        WHERE o.campaign_id = ${plan.roster.campaignId} AND o.supporter_id = r.supporter_id AND o.stage =
          COALESCE((SELECT m.value FROM batch_more m
          WHERE m.batch_id = r.batch_id AND m.row_no = r.row_no AND m.kind = 'stage'), :stage))`
      : 'TRUE';
    const changes = [
      ...own,
      `(r.email IS NULL OR ${linked("'email'", 'r.email')})`,
      `(r.mobile IS NULL OR ${linked("'mobile'", 'r.mobile')})`,
      more("'email', 'mobile', 'post'", linked("CONCAT(m.kind, '')", FURTHER)),
      values,
      more("'tag'", tagged),
      members('tag', groups.tagIds),
      members('list', groups.listIds),
      roster,
      'r.row_no NOT IN (:writing)',
    ];
    const here =
      plan.what === 'here'
        ? [
            members('tag', groups.tagIds),
            members('list', groups.listIds),
            more("'tag'", tagged),
            roster,
            'r.row_no NOT IN (:writing)',
          ]
        : changes;
    await tx.execute(
      `UPDATE batch_row r
        JOIN supporter s ON s.id = r.supporter_id
        SET r.verdict = 'same'
        WHERE ${MINE} AND r.verdict = 'update' AND r.same_as_row IS NULL AND ${here.join(' AND ')}`,
      {
        batchId,
        stage: plan.roster?.stage ?? '',
        writing: [0, ...writing],
      },
    );
    // A row that says nothing new still stands where another row of the same person says otherwise: the last
    // one counts.
    await tx.execute(
      `UPDATE batch_row r
        JOIN batch_row o ON o.organization_id = :org AND o.supporter_id = r.supporter_id
          AND o.batch_id = r.batch_id AND o.verdict = 'update'
        SET r.verdict = 'update' WHERE ${MINE} AND r.verdict = 'same'`,
      { batchId },
    );
  }

  /** `entries` is what will be written into the ledger, counted by whoever writes it. */
  async will(
    db: Scoped,
    batchId: number,
    plan: IntakePlan,
    facts: ForecastFacts & { contents: BatchContents },
    entries: BatchWill['entries'],
  ): Promise<BatchWill> {
    const of = { batchId };
    const count = async (sql: string, bindings: Record<string, Bound> = {}) =>
      Number((await db.sql<{ n: number | null }>(sql, { ...of, ...bindings }))[0]?.n ?? 0);
    const stands = (bit: number) =>
      count(
        `SELECT COUNT(DISTINCT ${PERSON_OF_ROW}) AS n
          FROM batch_row r
          WHERE ${COMING} AND (r.stands & ${bit}) <> 0`,
      );
    const [saidNo, alreadyYes, ownChanges, changes, coming, tagged] = [
      await stands(1),
      await stands(2),
      await count(
        `SELECT SUM(${OWN_COLUMNS.map(
          ([column]) => `(COALESCE(r.${column}, '') <> ''
          AND NOT (BINARY s.${column} <=> BINARY r.${column}))`,
        ).join(' + ')}) AS n
          FROM batch_row r JOIN supporter s ON s.id = r.supporter_id WHERE ${MINE} AND r.verdict = 'update'`,
      ),
      await count(
        `SELECT COUNT(*) AS n
          FROM batch_row r
          JOIN batch_value v ON v.batch_id = r.batch_id AND v.row_no = r.row_no
          LEFT JOIN field_value f ON f.supporter_id = r.supporter_id AND f.field_id = v.field_id
          WHERE ${MINE} AND r.verdict = 'update'
          AND NOT (f.text_value <=> v.text_value AND f.number_value <=> v.number_value
          AND f.date_value <=> v.date_value AND f.month_day <=> v.month_day)`,
      ),
      await count(
        `SELECT COUNT(DISTINCT
            COALESCE(NULLIF(r.supporter_id, 0), -CAST(COALESCE(r.same_as_row, r.row_no) AS SIGNED))) AS n
          FROM batch_row r
          WHERE ${COMING} AND r.verdict NOT IN ('same', 'gift')`,
      ),
      await count(
        `SELECT COUNT(*) AS n
          FROM batch_more m
          JOIN batch_row r ON r.batch_id = m.batch_id AND r.row_no = m.row_no
          WHERE ${COMING} AND m.kind = 'tag'`,
      ),
    ];
    const groups = plan.tagIds.length + plan.newTags.length;
    return {
      entries,
      saidNo,
      ...(await this.closed(db, batchId, facts.contents)),
      alreadyYes,
      changes: ownChanges + changes,
      tags: coming * groups + tagged,
      lists: coming * (plan.listIds.length + plan.newLists.length),
      roster: plan.roster ? coming : 0,
      signedLongAgo: await this.signedLongAgo(db, batchId, plan, facts),
      places: await this.places(db, batchId),
      giftsTotal: await this.giftsTotal(db, batchId, facts.currency),
    };
  }

  /** People of whom an address is on do-not-contact, and on hold. */
  private async closed(
    db: Scoped,
    batchId: number,
    contents: BatchContents,
  ): Promise<{ doNotContact: number; onHold: number }> {
    const kinds = (['email', 'mobile'] as const).filter(
      (kind) => contents.onFile.has(kind) || contents.more.has(kind),
    );
    if (kinds.length === 0) return { doNotContact: 0, onHold: 0 };
    const points = kinds.map(
      (kind) => `SELECT a.person, cp.on_hold, cp.do_not_contact FROM (${addressesSql(kind)}) a
        JOIN contact_point cp ON cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = a.normal
        WHERE cp.on_hold = 1 OR cp.do_not_contact = 1`,
    );
    const [row] = await db.sql<{ doNotContact: number; onHold: number }>(
      `SELECT COUNT(DISTINCT IF(p.do_not_contact = 1, p.person, NULL)) AS doNotContact,
        COUNT(DISTINCT IF(p.on_hold = 1, p.person, NULL)) AS onHold
        FROM (${points.join(' UNION ALL ')}) p`,
      { batchId },
    );
    return { doNotContact: Number(row?.doNotContact ?? 0), onHold: Number(row?.onHold ?? 0) };
  }

  /** Rows whose day of permission lies before the months after which evidence counts as old. */
  private async signedLongAgo(
    db: Scoped,
    batchId: number,
    plan: IntakePlan,
    facts: ForecastFacts,
  ): Promise<number> {
    const said = (['email', 'text'] as const)
      .map((channel) => plan.permission[channel])
      .find((one) => one.said === 'yes');
    if (said?.said !== 'yes') return 0;
    const dated = allColumns(plan).some(({ to }) => to === 'signedOn');
    const at = dated
      ? `COALESCE((SELECT m.value FROM batch_more m
        WHERE m.batch_id = r.batch_id AND m.row_no = r.row_no AND m.kind = 'signed'), :day)`
      : ':day';
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n FROM batch_row r LEFT JOIN supporter s ON s.id = r.supporter_id
        WHERE ${COMING} AND DATE(${at}) < UTC_DATE() - INTERVAL
        ${byPlaceSql(facts.rules, PLACE_OF_ROW('r'), (place) => place.oldAfterMonths)} MONTH`,
      { batchId, day: said.on },
    );
    return row?.n ?? 0;
  }

  /** People of places with rules of their own. */
  private async places(db: Scoped, batchId: number): Promise<Record<string, number>> {
    const rows = await db.sql<{ country: string; n: number }>(
      `SELECT COALESCE(r.country, s.country) AS country, COUNT(*) AS n
        FROM batch_row r
        LEFT JOIN supporter s ON s.id = r.supporter_id
        WHERE ${COMING} AND COALESCE(r.country, s.country) IS NOT NULL
        GROUP BY 1`,
      { batchId },
    );
    const out: Record<string, number> = {};
    for (const { country, n } of rows) {
      const place = (UNION_COUNTRIES as readonly string[]).includes(country) ? 'EU' : country;
      out[place] = (out[place] ?? 0) + n;
    }
    return out;
  }

  private async giftsTotal(db: Scoped, batchId: number, currency: string): Promise<BatchWill['giftsTotal']> {
    const rows = await db.sql<{ currency: string; minor: number }>(
      `SELECT COALESCE(NULLIF(g.currency, ''), :currency) AS currency, SUM(g.amount) AS minor
        FROM batch_gift g
        JOIN batch_row r ON r.batch_id = g.batch_id AND r.row_no = g.row_no
        WHERE ${MINE} AND r.verdict IN ('gift', 'new', 'shares') GROUP BY 1 ORDER BY 2 DESC`,
      { batchId, currency },
    );
    return rows.map((row) => ({ currency: row.currency, minor: Number(row.minor) }));
  }
}

/** What the statements need to know beside the plan. */
export interface ForecastFacts {
  currency: string;
  rules: HouseRules;
}

/** Where somebody of a row lives: as is known of who is here, and as the row says of who is new. */
const PLACE_OF_ROW = (row: string) => ({
  country: `IF(${row}.supporter_id = 0, ${row}.country, s.country)`,
  region: `IF(${row}.supporter_id = 0, ${row}.region, s.region)`,
});
