import { Injectable } from '@nestjs/common';
import {
  normalAddress,
  normalPostcode,
  shownAddress,
  type Candidate,
  type CleanRow,
} from '@goodword/core/intake';
import { isoDay } from '@goodword/core/common';
import { CHANNELS } from '@goodword/core/permission';
import type { Bound, Scoped } from '../../platform/scoped';
import type { LineType } from '../../platform/lookups';
import { valueColumns } from '../../supporters/fields.repository';
import { type StagedRow } from '../batches.repository';
import { NO_SUPPORTER } from '../staged-rows.repository';
import { MOST_AT_ONE, nameAt, type MatchClue } from '../doubles/earlier-rows';
import { plainStart, type OnFileCandidates } from './stager';
import type { Tables } from '../../platform/tables/generated';

const flag = (says: boolean | undefined) => (says === undefined ? null : says ? 1 : 0);

const ROW_COLUMNS = [
  'batch_id',
  'row_no',
  'verdict',
  'same_as_row',
  'supporter_id',
  'first_name',
  'last_name',
  'email',
  'email_shown',
  'mobile',
  'mobile_shown',
  'country',
  'region',
  'place_said',
  'email_says',
  'text_says',
  'reason',
  'hint',
  'why',
  'candidates',
  'line',
  'stranger',
  'external_id',
  'postcode',
  'met_by',
  'chapter_id',
] as const;

/**
 * What checking a batch writes and reads: staged rows, and the people whom rows may be. Owns `batch_row`,
 * `batch_value`, `batch_more`, `batch_gift`, `mail_domain`.
 */
@Injectable()
export class StagingRepository {
  async stage(
    tx: Scoped,
    batchId: number,
    rows: readonly StagedRow[],
    lines: ReadonlyMap<string, LineType>,
  ): Promise<void> {
    await tx.load(
      'batch_row',
      ROW_COLUMNS,
      rows.map((row) => rowValues(batchId, row, lines)),
    );
    await tx.load(
      'batch_value',
      ['batch_id', 'row_no', 'field_id', 'text_value', 'number_value', 'date_value', 'month_day'],
      rows.flatMap((row) =>
        joinedTexts(row.values).map(({ fieldId, value }) => [
          batchId,
          row.rowNo,
          fieldId,
          ...valueColumns(value),
        ]),
      ),
    );
    await tx.load(
      'batch_more',
      ['batch_id', 'row_no', 'kind', 'n', 'normal', 'value'],
      rows.flatMap((row) =>
        row.clean
          ? moreOf(row.clean).map(([kind, n, normal, value]) => [batchId, row.rowNo, kind, n, normal, value])
          : [],
      ),
    );
    await tx.load(
      'batch_gift',
      ['batch_id', 'row_no', 'amount', 'currency', 'given_on', 'own_id', 'appeal', 'recurring'],
      rows.flatMap((row) => giftValues(batchId, row)),
    );
  }

  /**
   * Who has one of these, in one chapter or (null) in all, by the clue that leads to them; see
   * `candidatesAt`. The chapters of those who were found are added to `chapters`.
   */
  async candidates(
    db: Scoped,
    chapterId: number | null,
    clues: readonly MatchClue[],
    chapters = new Set<number>(),
  ): Promise<Map<string, Candidate[]>> {
    const sets = new Map<MatchClue['by'], Set<string>>();
    for (const { by, key } of clues) {
      const known = sets.get(by);
      if (known) known.add(key);
      else sets.set(by, new Set([key]));
    }
    const keys = (by: MatchClue['by']) => [...(sets.get(by) ?? [])];
    const loose = sets.get('looseEmail') ?? new Set();
    const found = new Map<string, Candidate[]>();
    const put = (at: string, candidate: Candidate, most: number): boolean => {
      const known = found.get(at);
      if (known && known.length >= most) return false;
      if (known) known.push(candidate);
      else found.set(at, [candidate]);
      return true;
    };
    const add = (
      by: MatchClue['by'],
      key: string,
      row: { id: number; first_name: string; last_name: string },
    ) => {
      const candidate: Candidate = { id: row.id, firstName: row.first_name, lastName: row.last_name, by };
      // Beyond the first at a clue only those of a row's own name are asked for.
      if (!put(`${by}:${key}`, candidate, MOST_AT_ONE) && by !== 'nearby')
        put(nameAt(`${by}:${key}`, candidate), candidate, MOST_AT_ONE);
    };
    const [emails, mobiles, externals, blocks] = await Promise.all([
      this.atPoints(db, chapterId, 'email', 'loose', keys('looseEmail')),
      this.atPoints(db, chapterId, 'mobile', 'normal', keys('mobile')),
      this.people(db, chapterId, 'external_id', keys('externalId')),
      this.people(db, chapterId, 'block', keys('nearby')),
    ]);
    for (const row of [...emails, ...mobiles, ...externals, ...blocks]) chapters.add(row.chapter_id);
    // One look-up by the loose form finds the exact ones too.
    for (const row of emails) {
      add('email', row.normal, row);
      if (loose.has(row.loose!)) add('looseEmail', row.loose!, row);
    }
    for (const row of mobiles) add('mobile', row.normal, row);
    for (const row of externals) add('externalId', row.external_id!, row);
    for (const row of blocks) add('nearby', `${row.postcode!}|${plainStart(row.last_name)}`, row);
    return found;
  }

  private async atPoints(
    db: Scoped,
    chapterId: number | null,
    kind: string,
    column: 'normal' | 'loose',
    keys: string[],
  ) {
    if (keys.length === 0) return [];
    return db.sql<
      Pick<Tables['contact_point'], 'normal' | 'loose' | 'id'> & {
        chapter_id: number;
        first_name: string;
        last_name: string;
      }
    >(
      `SELECT cp.normal, cp.loose, s.id, s.chapter_id, s.first_name, s.last_name
        FROM contact_point cp
        JOIN supporter_contact sc ON sc.contact_point_id = cp.id
        JOIN supporter s ON s.id = sc.supporter_id ${
          chapterId === null ? '' : 'AND s.chapter_id = :chapterId'
        } AND s.erased_at IS NULL
        WHERE cp.organization_id = :org AND cp.kind = :kind AND cp.${column} IN (:keys)`,
      { chapterId, kind, keys },
    );
  }

  private async people(
    db: Scoped,
    chapterId: number | null,
    column: 'external_id' | 'block',
    keys: string[],
  ) {
    if (keys.length === 0) return [];
    return db.sql<
      Pick<Tables['supporter'], 'id' | 'chapter_id' | 'first_name' | 'last_name' | 'postcode' | 'external_id'>
    >(
      `SELECT s.id, s.chapter_id, s.first_name, s.last_name, s.postcode, s.external_id FROM supporter s
        WHERE s.organization_id = :org ${chapterId === null ? '' : 'AND s.chapter_id = :chapterId'}
        AND s.erased_at IS NULL AND s.${column} IN (:keys)`,
      { chapterId, keys },
    );
  }

  /** Which of these addresses somebody of another chapter has. */
  async elsewhere(db: Scoped, chapterId: number, normals: readonly string[]): Promise<Set<string>> {
    if (normals.length === 0) return new Set();
    const rows = await db.sql<{ normal: string }>(
      `SELECT DISTINCT cp.normal
        FROM contact_point cp
        JOIN supporter_contact sc ON sc.contact_point_id = cp.id
        JOIN supporter s ON s.id = sc.supporter_id AND s.chapter_id <> :chapterId AND s.erased_at IS NULL
        WHERE cp.organization_id = :org AND cp.kind IN ('email', 'mobile') AND cp.normal IN (:normals)`,
      { chapterId, normals },
    );
    return new Set(rows.map(({ normal }) => normal));
  }

  /** What is known of these domains already; answers older than a month are asked for again. */
  async knownDomains(db: Scoped, domains: readonly string[]): Promise<Map<string, boolean>> {
    if (domains.length === 0) return new Map();
    const rows = await db.sql<{ domain: string; takes_mail: number }>(
      `SELECT domain, takes_mail
        FROM mail_domain
        WHERE organization_id = :org AND domain IN (:domains)
          AND asked_at > UTC_TIMESTAMP(3) - INTERVAL 30 DAY`,
      { domains },
    );
    return new Map(rows.map((row) => [row.domain, row.takes_mail === 1]));
  }

  async keepDomains(tx: Scoped, answers: ReadonlyMap<string, boolean>): Promise<void> {
    for (const [domain, takes] of answers) {
      await tx.execute(
        `INSERT INTO mail_domain (organization_id, domain, takes_mail) VALUES (:org, :domain, :takes)
          ON DUPLICATE KEY UPDATE takes_mail = :takes, asked_at = UTC_TIMESTAMP(3)`,
        { domain, takes },
      );
    }
  }
}

function rowValues(batchId: number, row: StagedRow, lines: ReadonlyMap<string, LineType>): Bound[] {
  const { clean } = row;
  return [
    batchId,
    row.rowNo,
    row.verdict,
    row.sameAsRow,
    row.supporterId ?? NO_SUPPORTER,
    clean?.firstName ?? '',
    clean?.lastName ?? '',
    clean?.email?.normal ?? null,
    clean?.email?.shown ?? null,
    clean?.mobile?.normal ?? null,
    clean?.mobile?.shown ?? null,
    row.place?.country ?? null,
    row.place?.region ?? null,
    row.place?.said ? 1 : 0,
    flag(clean?.consent.email),
    flag(clean?.consent.text),
    row.reason.slice(0, 500),
    row.hint.slice(0, 500),
    row.why,
    row.candidates.length > 0 ? JSON.stringify(row.candidates) : null,
    clean?.mobile ? (lines.get(clean.mobile.normal) ?? null) : null,
    row.stranger ? 1 : 0,
    clean?.externalId ?? null,
    normalPostcode(clean?.post?.postcode ?? '') || null,
    row.metBy,
    row.chapterId,
  ];
}

/** Several columns of one text field follow each other in it. */
function joinedTexts(values: StagedRow['values']): StagedRow['values'] {
  const out = new Map<number, StagedRow['values'][number]>();
  for (const one of values) {
    const known = out.get(one.fieldId);
    if (known?.value.text !== undefined && one.value.text !== undefined)
      out.set(one.fieldId, {
        fieldId: one.fieldId,
        value: { text: `${known.value.text}, ${one.value.text}`.slice(0, 500) },
      });
    else out.set(one.fieldId, one);
  }
  return [...out.values()];
}

type More = [kind: string, n: number, normal: string, value: string];

function moreOf(row: CleanRow): More[] {
  const post: More[] =
    // A postcode alone is no address; it is kept for finding likely doubles.
    row.post && (row.post.street || row.post.city)
      ? [['post', 0, normalAddress(row.post), JSON.stringify({ ...row.post, shown: shownAddress(row.post) })]]
      : [];
  const one = (kind: string, value: string | null): More[] => (value === null ? [] : [[kind, 0, '', value]]);
  return [
    ...row.moreEmails.map((email, n): More => ['email', n, email.normal, email.shown]),
    ...row.moreMobiles.map((mobile, n): More => ['mobile', n, mobile.normal, mobile.shown]),
    ...[...new Set(row.tags)].map((tag, n): More => ['tag', n, '', tag]),
    ...post,
    ...one('stage', row.stage),
    ...one('signed', row.signedOn === null ? null : isoDay(row.signedOn)),
    ...one('words', row.signedWords),
    ...one('status', row.status === 'fine' ? null : row.status),
    ...CHANNELS.flatMap((channel, n): More[] =>
      row.refused.has(channel) ? [['refused', n, '', channel]] : [],
    ),
  ];
}

function giftValues(batchId: number, { clean, rowNo }: StagedRow): Bound[][] {
  const gift = clean?.gift;
  if (!gift || gift.amount === null || gift.on === null || clean.fatal) return [];
  return [
    [
      batchId,
      rowNo,
      gift.amount,
      gift.currency ?? '',
      gift.on,
      gift.ownId,
      gift.appeal,
      gift.recurring ? 1 : 0,
    ],
  ];
}

/** The first people at a clue, and of those beyond them the ones with this name. */
export function candidatesAt(found: ReadonlyMap<string, Candidate[]>): OnFileCandidates {
  return ({ by, key }, name) => {
    const first = found.get(`${by}:${key}`) ?? [];
    return first.length < MOST_AT_ONE
      ? first
      : [...first, ...(found.get(nameAt(`${by}:${key}`, name)) ?? [])];
  };
}
