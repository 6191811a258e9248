import { Inject, Injectable } from '@nestjs/common';
import { ADDRESS_KIND, type AddressKind } from '@goodword/core/permission';
import { HoldsRepository } from '../permission/holds.repository';
import { PersonCellsRepository } from '../permission/ledger/facts.repository';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';
import { EntriesRepository } from '../permission/ledger/entries.repository';

/** Takes away all that identifies a person, in every table that holds any of it. */
@Injectable()
export class ErasureRepository {
  constructor(
    @Inject(HoldsRepository) private readonly holds: HoldsRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(PersonCellsRepository) private readonly cells: PersonCellsRepository,
    @Inject(EntriesRepository) private readonly entries: EntriesRepository,
  ) {}

  /** Files that hold something of the person: evidence, values of fields, what came with their mails. */
  async evidenceKeys(tx: Scoped, supporterId: number): Promise<string[]> {
    const rows = await tx.sql<{ storage_key: string }>(
      `SELECT storage_key
        FROM evidence
        WHERE organization_id = :org AND supporter_id = :supporterId AND storage_key IS NOT NULL
        UNION
        SELECT storage_key
        FROM field_file
        WHERE organization_id = :org AND supporter_id = :supporterId AND storage_key IS NOT NULL
        UNION
        SELECT f.storage_key
        FROM reply_file f
        JOIN reply r ON r.id = f.reply_id
        WHERE f.organization_id = :org AND r.supporter_id = :supporterId AND f.storage_key IS NOT NULL`,
      { supporterId },
    );
    return rows.map((row) => row.storage_key);
  }

  /** Files that came from an address. */
  async pointFiles(tx: Scoped, contactPointId: number): Promise<string[]> {
    const rows = await tx.sql<{ storage_key: string }>(
      `SELECT f.storage_key
        FROM reply_file f
        JOIN reply r ON r.id = f.reply_id
        WHERE f.organization_id = :org AND r.contact_point_id = :contactPointId
          AND f.storage_key IS NOT NULL`,
      { contactPointId },
    );
    return rows.map((row) => row.storage_key);
  }

  /**
   * Files of batches that hold a row of the person, marked as gone: the file itself is deleted after the
   * transaction.
   */
  async batchFiles(tx: Scoped, supporterId: number): Promise<string[]> {
    const rows = await tx.sql<Pick<Tables['batch'], 'id' | 'storage_key' | 'text_key'>>(
      `SELECT DISTINCT b.id, b.storage_key, b.text_key
        FROM batch b
        JOIN batch_row r ON r.batch_id = b.id AND r.supporter_id = :supporterId
        WHERE b.organization_id = :org AND b.file_gone_at IS NULL AND b.state IN ('done', 'taken-out')`,
      { supporterId },
    );
    if (rows.length > 0)
      await tx.execute(
        'UPDATE batch SET file_gone_at = UTC_TIMESTAMP(3) WHERE organization_id = :org AND id IN (:ids)',
        {
          ids: rows.map((row) => row.id),
        },
      );
    return [...new Set(rows.flatMap((row) => [row.storage_key, row.text_key ?? row.storage_key]))];
  }

  /**
   * Files of letters that hold one of the person, taken out of the list: those that are not posted yet are
   * laid out anew when they are asked for. The files themselves are deleted after the transaction.
   */
  async letterFiles(tx: Scoped, supporterId: number): Promise<string[]> {
    const which = `f.organization_id = :org AND f.message_id IN
      (SELECT message_id FROM delivery WHERE organization_id = :org AND supporter_id = :supporterId)`;
    const rows = await tx.sql<{ storage_key: string }>(
      `SELECT f.storage_key FROM letter_file f WHERE ${which}`,
      {
        supporterId,
      },
    );
    await tx.execute(`DELETE f FROM letter_file f WHERE ${which}`, { supporterId });
    return rows.map((row) => row.storage_key);
  }

  /** Records that were brought into this one: they are of the same person. */
  async mergedInto(tx: Scoped, supporterId: number): Promise<number[]> {
    const rows = await tx.sql<{ id: number }>(
      `WITH RECURSIVE own AS (SELECT gone_id AS id FROM merging
        WHERE organization_id = :org AND kept_id = :supporterId AND undone_at IS NULL
        UNION
        SELECT g.gone_id
        FROM merging g
        JOIN own ON g.kept_id = own.id
        WHERE g.organization_id = :org AND g.undone_at IS NULL) SELECT id FROM own`,
      { supporterId },
    );
    return rows.map(({ id }) => id);
  }

  /** Addresses that are or ever were the person's, so far as anything was said, sent or answered there. */
  async everyPoint(
    tx: Scoped,
    supporterIds: readonly number[],
  ): Promise<{ id: number; kind: AddressKind; normal: string; shown: string }[]> {
    const of = (table: string) =>
      `SELECT contact_point_id AS id
        FROM ${table}
        WHERE organization_id = :org AND supporter_id IN (:supporterIds) AND contact_point_id IS NOT NULL`;
    const changed = 'FROM address_change WHERE organization_id = :org AND supporter_id IN (:supporterIds)';
    const said = (await Promise.all(supporterIds.map((id) => this.entries.pointsOf(tx, id)))).flat();
    return tx.sql(
      `SELECT id, kind, normal, shown
        FROM contact_point
        WHERE organization_id = :org AND (id IN (:said) OR id IN (
        ${['supporter_contact', 'delivery', 'confirmation', 'reply'].map(of).join(' UNION ')}
        UNION SELECT from_point_id ${changed} UNION SELECT to_point_id ${changed}))`,
      { supporterIds, said: [...said, 0] },
    );
  }

  /** Those of some addresses that somebody else has. */
  async othersPoints(
    tx: Scoped,
    supporterIds: readonly number[],
    pointIds: readonly number[],
  ): Promise<Set<number>> {
    const rows = await tx.sql<{ id: number }>(
      `SELECT DISTINCT contact_point_id AS id FROM supporter_contact
        WHERE organization_id = :org AND contact_point_id IN (:points)
          AND supporter_id NOT IN (:supporterIds)`,
      { supporterIds, points: [...pointIds, 0] },
    );
    return new Set(rows.map((row) => row.id));
  }

  /**
   * Whether nobody is to be written to there again: on do-not-contact, or refused on a channel that it serves
   * by anybody there or by the person.
   */
  async hasRefused(
    tx: Scoped,
    { id: contactPointId, kind }: { id: number; kind: AddressKind },
    supporterIds: readonly number[],
  ): Promise<boolean> {
    const [point] = await tx.sql<{ do_not_contact: number }>(
      'SELECT do_not_contact FROM contact_point WHERE organization_id = :org AND id = :contactPointId',
      { contactPointId },
    );
    // Whoever asked to be left alone in words that nobody has read yet is left alone.
    const asked = await tx.sql(
      `SELECT 1
        FROM task
        WHERE organization_id = :org AND kind = 'stop' AND contact_point_id = :contactPointId
          AND done_at IS NULL
        LIMIT 1`,
      {
        contactPointId,
      },
    );
    if (asked.length > 0) return true;
    const cells = [
      ...(await this.cells.atAddress(tx, contactPointId)),
      ...(await this.cells.everywhere(tx, supporterIds)),
    ];
    return (
      point?.do_not_contact === 1 ||
      cells.some(
        ({ channel, marks }) => ADDRESS_KIND[channel] === kind && (marks.no ?? marks.stop) !== undefined,
      )
    );
  }

  /** The keyed hash alone says that an address is not to be written to, without saying which it is. */
  async keepHash(tx: Scoped, kind: string, hash: string): Promise<void> {
    await tx.execute(
      `INSERT INTO do_not_contact (organization_id, kind, key_hash, note, how)
          VALUES (:org, :kind, :hash, 'Said no, since erased', 'erasure')
        ON DUPLICATE KEY UPDATE shown = NULL, note = 'Said no, since erased'`,
      { kind: kind === 'post' ? 'email' : kind, hash },
    );
  }

  async blankPoint(tx: Scoped, contactPointId: number, name: string): Promise<void> {
    await tx.execute(
      `UPDATE contact_point
        SET normal = :name, shown = '(erased)', parts = NULL, hold_reason = NULL
        WHERE organization_id = :org AND id = :contactPointId`,
      {
        contactPointId,
        name,
      },
    );
    await this.holds.blank(tx, contactPointId);
    for (const statement of blankReplies('r.contact_point_id = :contactPointId'))
      await tx.execute(statement, { contactPointId });
  }

  /** Everything that names the person, in every table that has it; what happened and when stays. */
  async blankPerson(tx: Scoped, supporterId: number): Promise<void> {
    const statements = [
      `UPDATE supporter
        SET first_name = '', last_name = '', country = NULL, region = NULL, language = NULL,
          external_id = NULL, postcode = NULL, household_id = NULL, erased_at = UTC_TIMESTAMP(3)
        WHERE organization_id = :org AND id = :supporterId`,
      'DELETE FROM field_value WHERE organization_id = :org AND supporter_id = :supporterId',
      'DELETE FROM supporter_tag WHERE organization_id = :org AND supporter_id = :supporterId',
      'DELETE FROM supporter_list WHERE organization_id = :org AND supporter_id = :supporterId',
      'DELETE FROM supporter_contact WHERE organization_id = :org AND supporter_id = :supporterId',
      `UPDATE automation_visit
        SET state = 'ended', why = 'taken-out', due_at = NULL
        WHERE organization_id = :org AND supporter_id = :supporterId AND state IN ('waiting', 'held')`,
      "UPDATE gift SET note = '' WHERE organization_id = :org AND supporter_id = :supporterId",
      ...blankReplies('r.supporter_id = :supporterId'),
      `UPDATE evidence
        SET name = '(erased)', storage_key = NULL
        WHERE organization_id = :org AND supporter_id = :supporterId`,
      `UPDATE delivery
        SET detail = NULL, state = IF(state IN ('ready', 'leased', 'undecided'), 'stopped', state)
        WHERE organization_id = :org AND supporter_id = :supporterId`,
      `UPDATE delivery_event
        SET detail = ''
        WHERE organization_id = :org AND supporter_id = :supporterId AND kind NOT IN ('clicked')`,
      `UPDATE audit
        SET words = '(erased)', before_value = NULL, after_value = NULL, back = NULL
        WHERE organization_id = :org AND
        ((subject = 'supporter' AND subject_id = :supporterId) OR (subject = 'message' AND subject_id IN
          (SELECT id FROM message WHERE organization_id = :org AND personal_to = :supporterId)))`,
      'DELETE FROM note WHERE organization_id = :org AND supporter_id = :supporterId',
      `UPDATE merging
        SET was = '{}', undone_at = COALESCE(undone_at, UTC_TIMESTAMP(3))
        WHERE organization_id = :org AND (kept_id = :supporterId OR gone_id = :supporterId)`,
      `UPDATE field_file
        SET name = '(erased)', storage_key = NULL
        WHERE organization_id = :org AND supporter_id = :supporterId`,
      `UPDATE message
        SET subject = '(erased)', letter = NULL, body = '(erased)', name = '(erased)', said = NULL,
          in_reply_to = NULL
        WHERE organization_id = :org AND personal_to = :supporterId`,
      `UPDATE call_list_member
        SET note_id = NULL
        WHERE organization_id = :org AND supporter_id = :supporterId`,
      `UPDATE batch_value v
        JOIN batch_row r ON r.batch_id = v.batch_id AND r.row_no = v.row_no
        SET v.text_value = NULL, v.number_value = NULL, v.date_value = NULL, v.month_day = NULL
        WHERE r.organization_id = :org AND r.supporter_id = :supporterId`,
      `UPDATE batch_row
        SET first_name = '', last_name = '', email = NULL, email_shown = NULL, mobile = NULL,
          mobile_shown = NULL, external_id = NULL, postcode = NULL, reason = '', hint = ''
        WHERE organization_id = :org AND supporter_id = :supporterId`,
      `DELETE m
        FROM batch_more m
        JOIN batch_row r ON r.batch_id = m.batch_id AND r.row_no = m.row_no
        WHERE r.organization_id = :org AND r.supporter_id = :supporterId`,
      'DELETE FROM roster WHERE organization_id = :org AND supporter_id = :supporterId',
      'DELETE FROM campaign_off WHERE organization_id = :org AND supporter_id = :supporterId',
      'DELETE FROM batch_before WHERE organization_id = :org AND supporter_id = :supporterId',
      `UPDATE confirmation_sent
        SET words = '(erased)', mailbox = '(erased)'
        WHERE organization_id = :org
          AND confirmation_id IN (SELECT id FROM confirmation
          WHERE organization_id = :org AND supporter_id = :supporterId)`,
      `UPDATE confirmation
        SET asks = '[]', pending = NULL, mailbox = '',
          state = IF(state IN ('waiting', 'sent'), 'dropped', state)
        WHERE organization_id = :org AND supporter_id = :supporterId`,
      // What was asked from a number that somebody else has stays open: nobody knows who of them said it.
      `UPDATE task k
        JOIN supporter_contact sc ON sc.contact_point_id = k.contact_point_id
        SET k.supporter_id = sc.supporter_id, k.words = '(erased)'
        WHERE k.organization_id = :org AND k.supporter_id = :supporterId AND k.kind = 'stop'
        AND k.done_at IS NULL`,
      `UPDATE task
        SET words = '', done_at = COALESCE(done_at, UTC_TIMESTAMP(3)), outcome = COALESCE(outcome, 'erased')
        WHERE organization_id = :org AND supporter_id = :supporterId`,
    ];
    for (const statement of statements) await tx.execute(statement, { supporterId });
    await this.ledger.blank(tx, supporterId);
  }
}

/** What some replies say, and the files that came with them. */
const blankReplies = (which: string): string[] => [
  `UPDATE reply_file f
    JOIN reply r ON r.id = f.reply_id
    SET f.name = '(erased)', f.storage_key = NULL
    WHERE f.organization_id = :org AND ${which}`,
  `UPDATE reply r
    SET r.sender = '(erased)', r.body = '(erased)', r.subject = '', r.mail_id = NULL
    WHERE r.organization_id = :org AND ${which}`,
];
