import { Inject, Injectable } from '@nestjs/common';
import type { BatchRowView, RowWrites } from '@goodword/core/contract';
import { formatValue, type Manner } from '@goodword/core/fields';
import { allColumns, readsRefusals, type IntakePlan } from '@goodword/core/intake';
import { CHANNELS } from '@goodword/core/permission';
import { MATCH_KEY_WORDS } from '@goodword/core/words';
import type { Scoped } from '../../platform/scoped';
import { BatchEntriesRepository, type RowSays } from '../../permission/ledger/batch-entries.repository';
import { FieldsRepository, valueOf, type ValueRow } from '../../supporters/fields.repository';
import { GroupsRepository } from '../../supporters/groups.repository';
import { type BatchRow } from '../batches.repository';
import { COMING, NO_SUPPORTER, type StagedView } from '../staged-rows.repository';
import { OWN_COLUMNS } from '../bringing-in/bring-in.repository';
import { FURTHER } from '../bringing-in/row-addresses.repository';
import { RowPermissionRepository } from '../bringing-in/row-permission.repository';
import { type PermissionFacts } from '../bringing-in/row-claims.repository';
import type { Tables } from '../../platform/tables/generated';

type Change = BatchRowView['changes'][number];
type ByRow<T> = Map<number, T[]>;

/** Rows that are in, and those that are still to come: what the first did is read from where they left it. */
function parted(batch: BatchRow, rows: readonly StagedView[]): { isIn: boolean; some: StagedView[] }[] {
  const wholly = ['done', 'taking-out', 'taken-out'].includes(batch.state);
  const partly = batch.state === 'bringing' || batch.state === 'stopped';
  const isIn = ({ row_no }: StagedView) => wholly || (partly && row_no <= batch.next_row);
  return [true, false]
    .map((which) => ({ isIn: which, some: rows.filter((row) => isIn(row) === which) }))
    .filter(({ some }) => some.length > 0);
}

/** Rows of one batch that are all in, or all still to come. */
interface Part {
  batch: BatchRow;
  isIn: boolean;
  bindings: { id: number; rows: number[] };
}

const OWN_WORDS: Record<(typeof OWN_COLUMNS)[number][0], string> = {
  first_name: 'First name',
  last_name: 'Last name',
  external_id: 'Own id',
  postcode: 'Postcode',
  country: 'Country',
  region: 'Region',
};
const ADDED: Record<string, string> = {
  email: 'Email added',
  mobile: 'Phone added',
  post: 'Postal address added',
};

/**
 * What the page and the API tell of rows, a page of them at a time: whom each meets and by what, what
 * changes, and all that it writes.
 */
@Injectable()
export class RowStoryRepository {
  constructor(
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(RowPermissionRepository) private readonly permission: RowPermissionRepository,
    @Inject(BatchEntriesRepository) private readonly entries: BatchEntriesRepository,
  ) {}

  /**
   * Whom rows meet: somebody who is here, an earlier row, or for a shared address one of those who have it.
   */
  async met(
    db: Scoped,
    batch: BatchRow,
    rows: readonly StagedView[],
  ): Promise<Map<number, NonNullable<BatchRowView['meets']>>> {
    const out = new Map<number, NonNullable<BatchRowView['meets']>>();
    const here = rows.filter(
      ({ verdict, supporter_id }) =>
        supporter_id !== NO_SUPPORTER && verdict !== 'new' && verdict !== 'shares',
    );
    const names = await this.namesOf(
      db,
      here.map((row) => row.supporter_id),
    );
    for (const row of rows) {
      const by = row.met_by ? `the same ${MATCH_KEY_WORDS[row.met_by].toLowerCase()}` : 'as you settled it';
      if (row.same_as_row !== null)
        out.set(row.row_no, { supporterId: null, row: row.same_as_row, name: '', by });
      else if (names.has(row.supporter_id))
        out.set(row.row_no, {
          supporterId: row.supporter_id,
          row: null,
          name: names.get(row.supporter_id)!,
          by,
        });
    }
    for (const one of await this.sharers(db, batch, rows)) {
      const by = one.kind === 'email' ? 'shares their email' : 'shares their phone';
      if (!out.has(one.row_no))
        out.set(one.row_no, { supporterId: one.id, row: null, name: one.name.trim(), by });
    }
    return out;
  }

  private async namesOf(db: Scoped, ids: readonly number[]): Promise<Map<number, string>> {
    if (ids.length === 0) return new Map();
    const people = await db.sql<{ id: number; name: string }>(
      `SELECT id, TRIM(CONCAT(first_name, ' ', last_name)) AS name
        FROM supporter
        WHERE organization_id = :org AND (:chapter IS NULL OR chapter_id = :chapter) AND id IN (:ids)`,
      { ids: [...new Set(ids)] },
    );
    return new Map(people.map(({ id, name }) => [id, name]));
  }

  /** For new people at a shared address: somebody else who has it, from before this batch. */
  private async sharers(
    db: Scoped,
    batch: BatchRow,
    rows: readonly StagedView[],
  ): Promise<{ row_no: number; kind: 'email' | 'mobile'; id: number; name: string }[]> {
    const shared = rows.filter(({ verdict }) => verdict === 'shares').map(({ row_no }) => row_no);
    if (shared.length === 0) return [];
    const at = (kind: 'email' | 'mobile') =>
      `SELECT
        STRAIGHT_JOIN r.row_no, '${kind}' AS kind, s.id, CONCAT(s.first_name, ' ', s.last_name) AS name
        FROM batch_row r
        JOIN contact_point cp ON cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = r.${kind}
        JOIN supporter_contact sc ON sc.contact_point_id = cp.id AND NOT (sc.batch_id <=> r.batch_id)
        JOIN supporter s ON s.id = sc.supporter_id AND s.erased_at IS NULL
        AND (:chapter IS NULL OR s.chapter_id = :chapter)
        WHERE r.organization_id = :org AND r.batch_id = :id AND r.row_no IN (:shared)`;
    return db.sql(`${at('email')} UNION ALL ${at('mobile')}`, { id: batch.id, shared });
  }

  /**
   * What rows change about people who are here, added addresses too: before a batch is in from the people,
   * after it from what was kept.
   */
  async changes(
    db: Scoped,
    batch: BatchRow,
    rows: readonly StagedView[],
    manner: Manner,
  ): Promise<ByRow<Change>> {
    const out: ByRow<Change> = new Map();
    // What a row changes about somebody whom an earlier one has just made is no change about anybody here.
    const updating = rows.filter(
      (row) => row.verdict === 'update' && row.supporter_id !== NO_SUPPORTER && row.same_as_row === null,
    );
    for (const { isIn, some } of parted(batch, updating)) {
      const part = { batch, isIn, bindings: { id: batch.id, rows: some.map((row) => row.row_no) } };
      const told = [
        ...(await this.ownChanges(db, part)),
        ...(await this.valueChanges(db, part, manner)),
        ...(await this.addedAddresses(db, part)),
      ];
      for (const { row_no, ...change } of told)
        if (change.from !== change.to) out.set(row_no, [...(out.get(row_no) ?? []), change]);
    }
    return out;
  }

  private async ownChanges(db: Scoped, { isIn, bindings }: Part): Promise<(Change & { row_no: number })[]> {
    const kept = (key: number) =>
      `JOIN batch_before f ON f.batch_id = r.batch_id AND f.supporter_id = r.supporter_id
        AND f.field_id = ${key}`;
    return db.sql(
      OWN_COLUMNS.map(
        ([column, key]) =>
          `SELECT r.row_no, '${OWN_WORDS[column]}' AS what,
            COALESCE(${isIn ? 'f.text_value' : `s.${column}`}, '') AS \`from\`,
            COALESCE(r.${column}, '') AS \`to\`
            FROM batch_row r JOIN supporter s ON s.id = r.supporter_id ${isIn ? kept(key) : ''}
            WHERE r.organization_id = :org AND r.batch_id = :id AND r.row_no IN (:rows)
            AND COALESCE(r.${column}, '') <> ''`,
      ).join(' UNION ALL '),
      bindings,
    );
  }

  private async valueChanges(
    db: Scoped,
    { batch, isIn, bindings }: Part,
    manner: Manner,
  ): Promise<(Change & { row_no: number })[]> {
    const before = isIn
      ? `JOIN batch_before f ON f.batch_id = r.batch_id AND f.supporter_id = r.supporter_id
        AND f.field_id = v.field_id`
      : 'LEFT JOIN field_value f ON f.supporter_id = r.supporter_id AND f.field_id = v.field_id';
    const columns = ['text_value', 'number_value', 'date_value', 'month_day'] as const;
    type Both = { row_no: number; field_id: number } & Record<
      `${'v' | 'f'}_${(typeof columns)[number]}`,
      never
    >;
    const values = await db.sql<Both>(
      `SELECT r.row_no, v.field_id,
          ${columns.flatMap((one) => [`v.${one} AS v_${one}`, `f.${one} AS f_${one}`]).join(', ')}
        FROM batch_row r
        JOIN batch_value v ON v.batch_id = r.batch_id AND v.row_no = r.row_no ${before}
        WHERE r.organization_id = :org AND r.batch_id = :id AND r.row_no IN (:rows)`,
      bindings,
    );
    const fields = await this.fieldsOf(db, batch);
    return values.flatMap((row) => {
      const field = fields(row.field_id);
      if (!field) return [];
      const shown = (of: 'v' | 'f') => {
        const value = {
          text_value: row[`${of}_text_value`],
          number_value: row[`${of}_number_value`],
          date_value: row[`${of}_date_value`],
        };
        return formatValue(field.type, valueOf({ ...value, month_day: row[`${of}_month_day`] }), manner);
      };
      return [{ row_no: row.row_no, what: field.name, from: shown('f'), to: shown('v') }];
    });
  }

  /**
   * A field by its id, or by minus the place (from 1) of the column that makes it; those alone that the
   * caller may see.
   */
  private async fieldsOf(db: Scoped, batch: BatchRow) {
    const all = await this.fields.all(db);
    const columns = batch.plan ? allColumns(batch.plan) : [];
    return (id: number) => {
      if (id > 0) return all.find((field) => field.id === id);
      const made = columns[-id - 1];
      return made?.to === 'newField' ? made : undefined;
    };
  }

  /** Addresses that somebody who is here did not have. */
  private async addedAddresses(db: Scoped, { bindings }: Part): Promise<(Change & { row_no: number })[]> {
    const had = (kind: string, normal: string) =>
      `EXISTS (SELECT 1 FROM contact_point cp JOIN supporter_contact sc ON sc.contact_point_id = cp.id
        WHERE cp.organization_id = :org AND cp.kind = ${kind}
        AND cp.normal = ${normal} AND sc.supporter_id = r.supporter_id AND NOT (sc.batch_id <=> r.batch_id))`;
    const rows = 'r.organization_id = :org AND r.batch_id = :id AND r.row_no IN (:rows)';
    const own = (kind: 'email' | 'mobile') =>
      `SELECT r.row_no, '${kind}' AS kind, r.${kind}_shown AS shown
        FROM batch_row r
        WHERE ${rows} AND r.${kind} IS NOT NULL AND NOT ${had(`'${kind}'`, `r.${kind}`)}`;
    const found = await db.sql<{ row_no: number; kind: string; shown: string }>(
      `${own('email')} UNION ALL ${own('mobile')} UNION ALL
        SELECT r.row_no, m.kind, IF(m.kind = 'post', JSON_VALUE(m.value, '$.shown'), m.value) FROM batch_row r
        JOIN batch_more m ON m.batch_id = r.batch_id AND m.row_no = r.row_no
        AND m.kind IN ('email', 'mobile', 'post')
        WHERE ${rows} AND NOT ${had('m.kind', FURTHER)}`,
      bindings,
    );
    return found.map(({ row_no, kind, shown }) => ({ row_no, what: ADDED[kind]!, from: '', to: shown }));
  }

  /** All that rows write, beside the person's name; nothing for those that write nothing. */
  async writes(
    db: Scoped,
    batch: BatchRow,
    rows: readonly StagedView[],
    manner: Manner,
    facts: PermissionFacts,
  ): Promise<Map<number, RowWrites>> {
    const out = new Map<number, RowWrites>();
    const { plan } = batch;
    const coming = rows.filter(({ verdict }) => COMING.includes(verdict) || verdict === 'here');
    if (!plan || coming.length === 0) return out;
    const numbers = coming.map(({ row_no }) => row_no);
    const [values, more, gifts, permission, groups, chapters] = await Promise.all([
      this.valuesOf(db, batch, numbers, manner),
      db.sql<{ row_no: number; kind: string; value: string }>(
        `SELECT row_no, kind, value
          FROM batch_more
          WHERE organization_id = :org AND batch_id = :id AND row_no IN (:numbers)
          ORDER BY row_no, kind, n`,
        { id: batch.id, numbers },
      ),
      db.sql<Pick<Tables['batch_gift'], 'row_no' | 'amount' | 'currency' | 'given_on' | 'own_id' | 'appeal'>>(
        `SELECT row_no, amount, currency, given_on, own_id, appeal
          FROM batch_gift
          WHERE organization_id = :org AND batch_id = :id AND row_no IN (:numbers)`,
        { id: batch.id, numbers },
      ),
      this.permissionOf(db, batch, plan, coming, facts),
      this.groupsOf(db, plan),
      this.chapterNames(db),
    ]);
    for (const row of coming) {
      const own = more.filter(({ row_no }) => row_no === row.row_no);
      const of = (kind: string) => own.filter((one) => one.kind === kind).map(({ value }) => value);
      const quiet = row.verdict === 'here' || row.verdict === 'no' || row.verdict === 'hold';
      const gift = gifts.find(({ row_no }) => row_no === row.row_no);
      out.set(row.row_no, {
        emails: [...(row.email_shown ? [row.email_shown] : []), ...of('email')],
        phones: [...(row.mobile_shown ? [row.mobile_shown] : []), ...of('mobile')],
        post: of('post').map((value) => (JSON.parse(value) as { shown: string }).shown)[0] ?? null,
        ownId: row.external_id,
        fields: quiet ? [] : (values.get(row.row_no) ?? []),
        tags: quiet ? [] : [...groups.tags, ...of('tag')],
        lists: quiet ? [] : groups.lists,
        stage: quiet || !plan.roster ? null : (of('stage')[0] ?? plan.roster.stage),
        chapter:
          row.verdict === 'new' || row.verdict === 'shares'
            ? (chapters.get(row.chapter_id ?? batch.chapter_id) ?? null)
            : null,
        permission: permission
          .filter((one) => one.row === row.row_no)
          .map(({ row: _row, ...entry }) => entry),
        gift: gift
          ? {
              minor: Number(gift.amount),
              currency: gift.currency,
              day: gift.given_on,
              ownId: gift.own_id,
              appeal: gift.appeal,
            }
          : null,
      });
    }
    return out;
  }

  private async chapterNames(db: Scoped): Promise<ReadonlyMap<number, string>> {
    const rows = await db.sql<{ id: number; name: string }>(
      'SELECT id, name FROM chapter WHERE organization_id = :org',
    );
    return new Map(rows.map(({ id, name }) => [id, name]));
  }

  private async permissionOf(
    db: Scoped,
    batch: BatchRow,
    plan: IntakePlan,
    rows: readonly StagedView[],
    facts: PermissionFacts,
  ): Promise<RowSays[]> {
    if (!readsRefusals(plan.what)) return [];
    const each = parted(batch, rows).map(({ isIn, some }) => {
      const numbers = some.map(({ row_no }) => row_no);
      return isIn
        ? this.entries.ofRows(db, batch.id, numbers)
        : this.permission.ofRows(db, batch, plan, numbers, facts);
    });
    const inOrder = ({ channel, scope, at }: RowSays) => `${CHANNELS.indexOf(channel)} ${scope} ${at ?? ''}`;
    return (await Promise.all(each)).flat().sort((a, b) => inOrder(a).localeCompare(inOrder(b)));
  }

  private async valuesOf(
    db: Scoped,
    batch: BatchRow,
    rows: readonly number[],
    manner: Manner,
  ): Promise<ByRow<{ name: string; value: string }>> {
    const fields = await this.fieldsOf(db, batch);
    const values = await db.sql<ValueRow & { row_no: number }>(
      `SELECT field_id, text_value, number_value, date_value, month_day, row_no
        FROM batch_value
        WHERE organization_id = :org AND batch_id = :id AND row_no IN (:rows)`,
      { id: batch.id, rows },
    );
    const out: ByRow<{ name: string; value: string }> = new Map();
    for (const value of values) {
      const field = fields(value.field_id);
      if (field)
        out.set(value.row_no, [
          ...(out.get(value.row_no) ?? []),
          { name: field.name, value: formatValue(field.type, valueOf(value), manner) },
        ]);
    }
    return out;
  }

  /** Names of the tags and lists that everybody of the batch gets. */
  private async groupsOf(db: Scoped, plan: IntakePlan): Promise<{ tags: string[]; lists: string[] }> {
    const [tags, lists] = await Promise.all([this.groups.tags(db), this.groups.lists(db)]);
    const named = (all: readonly { id: number; name: string }[], ids: readonly number[]) =>
      ids.flatMap((id) => all.find((one) => one.id === id)?.name ?? []);
    return {
      tags: [...named(tags, plan.tagIds), ...plan.newTags],
      lists: [...named(lists, plan.listIds), ...plan.newLists.map(({ name }) => name)],
    };
  }
}
