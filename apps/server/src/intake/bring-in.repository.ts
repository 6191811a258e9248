import { Injectable } from '@nestjs/common';
import type { ChannelPermission, ConfirmRequest, IntakePlan } from '@goodword/core/intake';
import type { HouseRules } from '@goodword/core/permission';
import { LedgerRepository } from '../permission/ledger.repository';
import { confirmDaysSql } from '../permission/place.sql';
import type { Bound, Scoped } from '../platform/database';
import type { BatchRow, Resolved } from './batches.repository';

/** Rows `from` to `to`, both included, of one batch. */
export interface Slice extends Record<string, Bound> {
  batchId: number;
  from: number;
  to: number;
}

/**
 * Addresses by their normal form. Joined to rows by this index and in this order, whatever the optimizer thinks: while a
 * table fills, what it believes of it is old: a slice of twenty-five was joined by looking at every pair, in each of three
 * runs, and took 33 s.
 */
const POINTS = 'JOIN contact_point cp FORCE INDEX (by_normal) ON';

export const ROWS = 'r.organization_id = :org AND r.batch_id = :batchId AND r.row_no BETWEEN :from AND :to';
const COMES = `${ROWS} AND r.supporter_id > 0 AND r.verdict IN ('new', 'shares', 'update')`;
/** Addresses that stand beside the rows. */
const MORE_ADDRESSES = ['email', 'mobile', 'post'] as const;
const MORE = 'JOIN batch_more m ON m.batch_id = r.batch_id AND m.row_no = r.row_no';

/** Columns of a supporter that a file may fill, each with the key under which its value before is kept. */
export const OWN_COLUMNS = [
  ['first_name', -1],
  ['last_name', -2],
  ['external_id', -3],
  ['postcode', -4],
] as const;

/** Which columns a plan's evidence comes from. */
export interface Dated {
  signedOn: boolean;
  signedWords: boolean;
}

/** What the staged rows of a batch hold, so that statements over what is not there are left out. */
export interface Holds extends Dated {
  /** Kinds of what stands beside the rows, and the addresses of the rows themselves. */
  more: ReadonlySet<string>;
  own: ReadonlySet<AddressKind>;
  values: boolean;
  updates: boolean;
  /** Channels of which some row says no. */
  refused: ReadonlySet<'email' | 'text'>;
}

type AddressKind = 'email' | 'mobile';
/** What a batch can write into the ledger; each makes the mark of its name. */
type Entered = 'yes' | 'no' | 'asked';

export function datedOf(plan: IntakePlan): Dated {
  const targets = new Set([...plan.columns, ...plan.constants.map(({ choice }) => choice)].map((choice) => choice.to));
  return { signedOn: targets.has('signedOn'), signedWords: targets.has('signedWords') };
}

/** The moment and the words of a channel's yes, as SQL over a staged row `r`: from columns where there are, else for all. */
export function saidSql(holds: Dated, channel: 'email' | 'text'): { at: string; words: string; joins: string } {
  const signed = holds.signedOn ? "LEFT JOIN batch_more sg ON sg.batch_id = r.batch_id AND sg.row_no = r.row_no AND sg.kind = 'signed'" : '';
  const worded = holds.signedWords ? "LEFT JOIN batch_more sw ON sw.batch_id = r.batch_id AND sw.row_no = r.row_no AND sw.kind = 'words'" : '';
  return {
    at: holds.signedOn ? `LEAST(COALESCE(TIMESTAMP(sg.value, '12:00:00'), :${channel}At), UTC_TIMESTAMP(3))` : `:${channel}At`,
    words: holds.signedWords ? `COALESCE(CONCAT(sw.value, :${channel}Vouched), :${channel}Words)` : `:${channel}Words`,
    joins: `${signed} ${worded}`,
  };
}

/**
 * Brings staged rows in, a slice in one transaction and every step one statement over the slice. Each step could be run
 * twice without another result, so a slice that was cut off is simply brought in again, and a file that was brought in
 * before changes nothing.
 */
@Injectable()
export class BringInRepository {
  constructor(private readonly ledger: LedgerRepository) {}

  /** What the staged rows hold; asked once for a batch. */
  async holds(db: Scoped, batchId: number, plan: IntakePlan): Promise<Holds> {
    const of = { batchId };
    const more = await db.sql<{ kind: string }>('SELECT DISTINCT kind FROM batch_more WHERE organization_id = :org AND batch_id = :batchId', of);
    const [row] = await db.sql<Record<'email' | 'mobile' | 'noEmail' | 'noText' | 'updates' | 'vals', number | null>>(
      `SELECT MAX(r.email IS NOT NULL) AS email, MAX(r.mobile IS NOT NULL) AS mobile, MAX(r.email_says <=> 0) AS noEmail, MAX(r.text_says <=> 0) AS noText, MAX(r.verdict = 'update') AS updates,
          EXISTS (SELECT 1 FROM batch_value v WHERE v.organization_id = :org AND v.batch_id = :batchId) AS vals
        FROM batch_row r WHERE r.organization_id = :org AND r.batch_id = :batchId`,
      of,
    );
    const those = <K extends string>(some: Record<K, number | null | undefined>): Set<K> =>
      new Set((Object.keys(some) as K[]).filter((key) => Number(some[key]) === 1));
    return {
      ...datedOf(plan),
      more: new Set(more.map(({ kind }) => kind)),
      own: those({ email: row?.email, mobile: row?.mobile }),
      refused: those({ email: row?.noEmail, text: row?.noText }),
      values: Number(row?.vals) === 1,
      updates: Number(row?.updates) === 1,
    };
  }

  /** The first half: the people themselves, and their addresses. May run ahead of the second half of the rows before. */
  async bringPeople(tx: Scoped, batch: BatchRow, holds: Holds, within: { from: number; to: number }): Promise<void> {
    const slice: Slice = { batchId: batch.id, from: within.from, to: within.to };
    await this.makePeople(tx, slice, batch.chapter_id);
    if (holds.updates) await this.updateOwn(tx, slice);
    for (const kind of holds.own) await this.makeAddresses(tx, slice, kind);
    for (const kind of MORE_ADDRESSES) if (holds.more.has(kind)) await this.makeMoreAddresses(tx, slice, kind);
  }

  /** The second half: all that hangs on them. */
  async bringIn(
    tx: Scoped,
    batch: BatchRow,
    plan: IntakePlan,
    resolved: Resolved,
    holds: Holds,
    within: { from: number; to: number; rules: HouseRules },
  ): Promise<void> {
    const slice: Slice = { batchId: batch.id, from: within.from, to: within.to };
    if (plan.what !== 'here') {
      for (const kind of holds.own) await this.linkAddresses(tx, slice, kind);
      for (const kind of MORE_ADDRESSES) if (holds.more.has(kind)) await this.linkMoreAddresses(tx, slice, kind);
      if (holds.values) await this.values(tx, slice);
    }
    await this.groups(tx, slice, resolved, holds);
    if (plan.roster) await this.roster(tx, slice, plan.roster);
    if (plan.what !== 'people') return;
    const made = new Set<Entered>();
    await this.permission(tx, slice, 'email', plan, batch, holds, within.rules, made);
    await this.permission(tx, slice, 'text', plan, batch, holds, within.rules, made);
    await this.ledger.fold(tx, 'batch_id = :batchId AND batch_row BETWEEN :from AND :to', slice, made);
  }

  /** Whom these rows are about. */
  async peopleOf(db: Scoped, slice: Slice): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(`SELECT DISTINCT r.supporter_id AS id FROM batch_row r WHERE ${ROWS} AND r.supporter_id > 0`, slice);
    return rows.map(({ id }) => id);
  }

  /** Staged values of fields that did not exist yet get the ids that these have now. */
  async resolveValues(tx: Scoped, batchId: number, fields: Record<number, number>): Promise<void> {
    for (const [column, fieldId] of Object.entries(fields)) {
      await tx.execute(
        'UPDATE IGNORE batch_value SET field_id = :fieldId WHERE organization_id = :org AND batch_id = :batchId AND field_id = :placeholder',
        {
          batchId,
          fieldId,
          placeholder: -(Number(column) + 1),
        },
      );
    }
  }

  private async makePeople(tx: Scoped, slice: Slice, chapterId: number): Promise<void> {
    await tx.execute(
      `INSERT IGNORE INTO supporter (organization_id, chapter_id, first_name, last_name, country, external_id, postcode, batch_id, batch_row)
        SELECT :org, :chapterId, r.first_name, r.last_name, r.country, r.external_id, r.postcode, r.batch_id, r.row_no FROM batch_row r WHERE ${ROWS} AND r.verdict IN ('new', 'shares')`,
      { ...slice, chapterId },
    );
    await tx.execute(
      `UPDATE batch_row r JOIN supporter s ON s.batch_id = r.batch_id AND s.batch_row = r.row_no SET r.supporter_id = s.id WHERE ${ROWS} AND r.verdict IN ('new', 'shares')`,
      slice,
    );
    await tx.execute(
      `UPDATE batch_row r JOIN batch_row o ON o.batch_id = r.batch_id AND o.row_no = r.same_as_row SET r.supporter_id = o.supporter_id WHERE ${ROWS} AND r.same_as_row IS NOT NULL`,
      slice,
    );
  }

  /** What is there replaces, the last row of a person last; what stood before is kept. */
  private async updateOwn(tx: Scoped, slice: Slice): Promise<void> {
    const [some] = await tx.sql<{ n: number }>(`SELECT EXISTS (SELECT 1 FROM batch_row r WHERE ${ROWS} AND r.verdict = 'update') AS n`, slice);
    if (some?.n !== 1) return;
    for (const [column, key] of OWN_COLUMNS) {
      const last = `(SELECT r.supporter_id, MAX(r.row_no) AS row_no FROM batch_row r WHERE ${ROWS} AND r.verdict = 'update' AND COALESCE(r.${column}, '') <> '' GROUP BY r.supporter_id) l`;
      const differs = `${last} JOIN batch_row r ON r.batch_id = :batchId AND r.row_no = l.row_no JOIN supporter s ON s.id = l.supporter_id AND NOT (BINARY s.${column} <=> BINARY r.${column})`;
      const kept = await tx.execute(
        `INSERT IGNORE INTO batch_before (organization_id, batch_id, supporter_id, field_id, existed, text_value)
          SELECT :org, r.batch_id, s.id, ${key}, 1, COALESCE(s.${column}, '') FROM ${differs}`,
        slice,
      );
      if (kept === 0 && !(await this.differsStill(tx, slice, differs))) continue;
      await tx.execute(`UPDATE ${differs} SET s.${column} = r.${column}, s.updated_at = UTC_TIMESTAMP(3) WHERE s.organization_id = :org`, slice);
    }
  }

  /** A person whose value before is kept from an earlier row may still have to be changed by a later one. */
  private async differsStill(tx: Scoped, slice: Slice, differs: string): Promise<boolean> {
    return (await tx.sql(`SELECT 1 FROM ${differs} WHERE s.organization_id = :org LIMIT 1`, slice)).length > 0;
  }

  private async makeAddresses(tx: Scoped, slice: Slice, kind: AddressKind): Promise<void> {
    const line = kind === 'mobile';
    await tx.execute(
      `INSERT ${line ? '' : 'IGNORE '}INTO contact_point (organization_id, kind, normal, shown, line, batch_id)
        SELECT :org, '${kind}', r.${kind}, r.${kind}_shown, ${line ? 'r.line' : 'NULL'}, r.batch_id FROM batch_row r WHERE ${COMES} AND r.${kind} IS NOT NULL
        ${line ? 'ON DUPLICATE KEY UPDATE line = COALESCE(VALUES(line), contact_point.line)' : ''}`,
      slice,
    );
  }

  private async linkAddresses(tx: Scoped, slice: Slice, kind: AddressKind): Promise<void> {
    await tx.execute(
      `INSERT IGNORE INTO supporter_contact (organization_id, supporter_id, contact_point_id, kind, position, batch_id)
        SELECT STRAIGHT_JOIN :org, r.supporter_id, cp.id, cp.kind, IF(r.verdict = 'update', 1, 0), r.batch_id FROM batch_row r
        ${POINTS} cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = r.${kind} WHERE ${COMES}`,
      slice,
    );
  }

  /** Further emails and numbers, and the postal address. */
  private async makeMoreAddresses(tx: Scoped, slice: Slice, kind: (typeof MORE_ADDRESSES)[number]): Promise<void> {
    const [shown, parts] = kind === 'post' ? ["JSON_VALUE(m.value, '$.shown')", 'm.value'] : ['m.value', 'NULL'];
    await tx.execute(
      `INSERT IGNORE INTO contact_point (organization_id, kind, normal, shown, parts, batch_id)
        SELECT STRAIGHT_JOIN :org, '${kind}', m.normal, MIN(${shown}), MIN(${parts}), r.batch_id FROM batch_row r ${MORE} AND m.kind = '${kind}' WHERE ${COMES} GROUP BY m.normal, r.batch_id`,
      slice,
    );
  }

  private async linkMoreAddresses(tx: Scoped, slice: Slice, kind: (typeof MORE_ADDRESSES)[number]): Promise<void> {
    await tx.execute(
      `INSERT IGNORE INTO supporter_contact (organization_id, supporter_id, contact_point_id, kind, position, batch_id)
        SELECT STRAIGHT_JOIN :org, r.supporter_id, cp.id, cp.kind, 2 + m.n, r.batch_id FROM batch_row r ${MORE} AND m.kind = '${kind}'
        ${POINTS} cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = m.normal WHERE ${COMES}`,
      slice,
    );
  }

  private async values(tx: Scoped, slice: Slice): Promise<void> {
    const join = 'FROM batch_row r JOIN batch_value v ON v.batch_id = r.batch_id AND v.row_no = r.row_no';
    await tx.execute(
      `INSERT IGNORE INTO batch_before (organization_id, batch_id, supporter_id, field_id, existed, text_value, number_value, date_value, month_day)
        SELECT STRAIGHT_JOIN :org, r.batch_id, r.supporter_id, v.field_id, f.supporter_id IS NOT NULL, f.text_value, f.number_value, f.date_value, f.month_day ${join}
        LEFT JOIN field_value f ON f.supporter_id = r.supporter_id AND f.field_id = v.field_id WHERE ${COMES} AND r.verdict = 'update'`,
      slice,
    );
    await tx.execute(
      `INSERT INTO field_value (organization_id, supporter_id, field_id, text_value, number_value, date_value, month_day)
        SELECT STRAIGHT_JOIN :org, r.supporter_id, v.field_id, v.text_value, v.number_value, v.date_value, v.month_day ${join} WHERE ${COMES} ORDER BY r.row_no
        ON DUPLICATE KEY UPDATE text_value = VALUES(text_value), number_value = VALUES(number_value), date_value = VALUES(date_value), month_day = VALUES(month_day)`,
      slice,
    );
  }

  private async groups(tx: Scoped, slice: Slice, resolved: Resolved, holds: Holds): Promise<void> {
    for (const kind of ['tag', 'list'] as const) {
      for (const groupId of kind === 'tag' ? resolved.tagIds : resolved.listIds) {
        await tx.execute(
          `INSERT IGNORE INTO supporter_${kind} (organization_id, supporter_id, ${kind}_id, batch_id, added_by)
            SELECT :org, r.supporter_id, k.id, r.batch_id, b.created_by FROM batch_row r JOIN batch b ON b.id = r.batch_id JOIN ${kind} k ON k.organization_id = :org AND k.id = :groupId WHERE ${COMES}`,
          { ...slice, groupId },
        );
      }
    }
    if (!holds.more.has('tag')) return;
    await tx.execute(
      `INSERT IGNORE INTO tag (organization_id, chapter_id, name, batch_id)
        SELECT DISTINCT :org, :chapter, m.value, r.batch_id FROM batch_row r ${MORE} AND m.kind = 'tag' WHERE ${COMES}`,
      slice,
    );
    await tx.execute(
      `INSERT IGNORE INTO supporter_tag (organization_id, supporter_id, tag_id, batch_id, added_by)
        SELECT :org, r.supporter_id, t.id, r.batch_id, b.created_by FROM batch_row r ${MORE} AND m.kind = 'tag' JOIN batch b ON b.id = r.batch_id
        JOIN tag t ON t.organization_id = :org AND t.name = m.value WHERE ${COMES}`,
      slice,
    );
  }

  /** Onto the roster, with the standing of the row's own column or the one for all; where somebody stood before is kept. */
  private async roster(tx: Scoped, slice: Slice, roster: { campaignId: number; standing: string }): Promise<void> {
    const standing =
      "COALESCE((SELECT m.value FROM batch_more m WHERE m.batch_id = r.batch_id AND m.row_no = r.row_no AND m.kind = 'standing'), :standing)";
    const bindings = { ...slice, ...roster };
    await tx.execute(
      `INSERT IGNORE INTO batch_roster_before (organization_id, batch_id, supporter_id, standing)
        SELECT :org, r.batch_id, o.supporter_id, o.standing FROM batch_row r JOIN roster o ON o.campaign_id = :campaignId AND o.supporter_id = r.supporter_id
        WHERE ${COMES} AND NOT (o.batch_id <=> r.batch_id)`,
      bindings,
    );
    await tx.execute(
      `INSERT INTO roster (organization_id, campaign_id, supporter_id, standing, batch_id, put_by)
        SELECT :org, :campaignId, r.supporter_id, ${standing}, r.batch_id, b.created_by FROM batch_row r JOIN batch b ON b.id = r.batch_id WHERE ${COMES} ORDER BY r.row_no
        ON DUPLICATE KEY UPDATE standing = VALUES(standing), put_at = IF(roster.standing = VALUES(standing), roster.put_at, UTC_TIMESTAMP(3))`,
      bindings,
    );
  }

  /**
   * Entries of one channel: the yes that the plan vouches for, and every no that a consent column says. People who are to
   * confirm stand as asked, unless they said yes or no before, or signed too long ago to be asked. What was written is told
   * in `made`.
   */
  private async permission(
    tx: Scoped,
    slice: Slice,
    channel: 'email' | 'text',
    plan: IntakePlan,
    batch: BatchRow,
    holds: Holds,
    rules: HouseRules,
    made: Set<Entered>,
  ): Promise<void> {
    const said = plan.permission[channel];
    const { at, words, joins } = saidSql(holds, channel);
    const says = `r.${channel}_says`;
    const facts = entryFacts(said, channel, batch.created_at);
    const kind = channel === 'email' ? 'email' : 'mobile';
    const ways = (['own', 'more'] as const).filter((way) => (way === 'own' ? holds.own.has(kind) : holds.more.has(kind)));
    const asking = channel === 'email' && plan.confirm !== null;
    const ask = asking ? toAskSql(at, rules) : '';
    const insertAt = async (way: 'own' | 'more', state: Entered, scope: string, when: string, how: string) => {
      const [moment, text] = state === 'no' ? [`:${channel}At`, NO_WORDS] : [at, words];
      // Somebody whom this very row makes has no entry yet; for the others it is looked whether the same is there.
      const there = `EXISTS (SELECT 1 FROM permission_entry o WHERE o.organization_id = :org AND o.contact_point_id = cp.id AND o.supporter_id <=> r.supporter_id
            AND o.channel = :channel AND o.scope = :scope AND o.state = :state AND o.how = :how AND o.said_at = ${moment} AND o.words = ${text} AND o.taken_back_at IS NULL)`;
      const rows = await tx.execute(
        `INSERT INTO permission_entry (organization_id, contact_point_id, supporter_id, channel, scope, state, said_at, by_person, how, words, source, batch_id, batch_row, recorded_by)
          SELECT STRAIGHT_JOIN :org, cp.id, r.supporter_id, :channel, :scope, :state, ${moment}, 0, :how, ${text}, CONCAT(:source, ', row ', r.row_no), r.batch_id, r.row_no, :recordedBy
          FROM batch_row r ${asking ? 'JOIN supporter s ON s.id = r.supporter_id' : ''} ${pointsSql(channel, way)} ${joins}
          WHERE ${COMES} AND ${when} AND ((r.verdict IN ('new', 'shares') AND r.same_as_row IS NULL) OR NOT ${there})`,
        { ...slice, channel, scope, state, source: batch.file_name, how, recordedBy: batch.created_by, ...facts },
      );
      if (rows > 0) made.add(state);
    };
    const insert = async (...what: [state: Entered, scope: string, when: string, how: string]) => {
      for (const way of ways) await insertAt(way, ...what);
    };
    if (holds.refused.has(channel)) await insert('no', 'all', `${says} = 0`, 'file');
    if (said.said === 'nothing') return;
    const when = said.from === 'column' ? `${says} = 1` : `COALESCE(${says}, 1) = 1`;
    for (const scope of said.scopes) {
      if (asking) await insert('asked', scope, `${when} AND (${ask})`, said.how);
      await insert('yes', scope, asking ? `${when} AND NOT (${ask})` : when, said.how);
    }
    if (asking) await this.askToConfirm(tx, slice, said.scopes, said.words, plan.confirm!);
  }

  /** One request for each who stands as asked by this batch. */
  private async askToConfirm(tx: Scoped, slice: Slice, scopes: readonly string[], words: string, request: ConfirmRequest): Promise<void> {
    await tx.execute(
      `INSERT INTO confirmation (organization_id, kind, batch_id, supporter_id, contact_point_id, channel, asks, request, due_at, expires_at)
        SELECT DISTINCT :org, 'join', e.batch_id, e.supporter_id, e.contact_point_id, 'email', :asks, :request, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3) + INTERVAL 30 DAY
        FROM permission_entry e WHERE e.organization_id = :org AND e.batch_id = :batchId AND e.batch_row BETWEEN :from AND :to AND e.state = 'asked'
        AND NOT EXISTS (SELECT 1 FROM confirmation c WHERE c.organization_id = :org AND c.contact_point_id = e.contact_point_id AND c.supporter_id = e.supporter_id AND c.batch_id = e.batch_id)`,
      { ...slice, asks: JSON.stringify(scopes.map((scope) => ({ scope, words }))), request: JSON.stringify(request) },
    );
  }
}

/** The moment and words of a channel's entries, bound under names of the channel. */
export function entryFacts(said: ChannelPermission, channel: 'email' | 'text', otherwise: Date): Record<string, Bound> {
  const [on, voucher, words] = said.said === 'yes' ? [Date.parse(`${said.on}T12:00:00Z`), said.voucher, said.words] : [otherwise.getTime(), '', ''];
  const vouched = ` (vouched for by ${voucher})`;
  return { [`${channel}At`]: new Date(Math.min(on, Date.now())), [`${channel}Words`]: `${words}${vouched}`, [`${channel}Vouched`]: vouched };
}

const NO_WORDS = "'A consent column of the file says no'";

/** The addresses of a row on a channel, its own or the further ones; a landline takes no texts, so nobody agreed to any there. */
function pointsSql(channel: 'email' | 'text', way: 'own' | 'more'): string {
  const kind = channel === 'email' ? 'email' : 'mobile';
  const line = channel === 'text' ? "AND NOT (cp.line <=> 'landline')" : '';
  const [more, normal] = way === 'own' ? ['', `r.${kind}`] : [`${MORE} AND m.kind = '${kind}'`, 'm.normal'];
  return `${more} ${POINTS} cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = ${normal} ${line}`;
}

/** Whoever signed recently and has neither said yes nor no there may be asked. */
function toAskSql(at: string, rules: HouseRules): string {
  const days = confirmDaysSql(rules, { country: 's.country', region: 's.region' });
  return `${at} >= UTC_TIMESTAMP(3) - INTERVAL ${days} DAY AND cp.on_hold = 0 AND cp.do_not_contact = 0
    AND NOT EXISTS (SELECT 1 FROM permission_state n WHERE n.organization_id = :org AND n.contact_point_id = cp.id AND n.supporter_id = 0 AND n.channel = 'email' AND n.no_at IS NOT NULL)
    AND NOT EXISTS (SELECT 1 FROM permission_state y WHERE y.organization_id = :org AND y.contact_point_id = cp.id AND y.supporter_id = r.supporter_id AND y.channel = 'email' AND y.scope IN (:scope, 'all') AND y.yes_at IS NOT NULL)`;
}
