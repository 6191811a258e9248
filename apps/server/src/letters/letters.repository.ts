import { Injectable } from '@nestjs/common';
import type { LetterForm } from '@goodword/core/print';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export interface LettersRow extends Pick<
  Tables['message_letters'],
  'message_id' | 'asked' | 'made' | 'done' | 'total' | 'problem'
> {
  form: LetterForm;
  /** As YYYY-MM-DD. */
  posted_on: string | null;
}

export type LetterFileRow = Pick<
  Tables['letter_file'],
  'id' | 'kind' | 'name' | 'storage_key' | 'first_number' | 'last_number'
>;

/** Somebody whom a letter is for: by the delivery that it is, or beside the one of their household. */
export interface SharingLetter {
  /** The delivery. */
  id: number;
  supporterId: number;
  contactPointId: number;
}

/** A delivery by post that has not been posted. */
export interface WaitingLetter extends SharingLetter {
  householdId: number | null;
}

/** A letter that was laid out, by its number in the pile. */
export interface NumberedLetter extends WaitingLetter {
  number: number;
  name: string;
}

/** Letters of messages by post. Owns `message_letters`, `message_letter`, `letter_file`. */
@Injectable()
export class LettersRepository {
  async find(db: Scoped, messageId: number): Promise<LettersRow | undefined> {
    const [row] = await db.sql<LettersRow>(
      `SELECT message_id, form, asked, made, done, total, problem,
          DATE_FORMAT(posted_on, '%Y-%m-%d') AS posted_on
        FROM message_letters
        WHERE organization_id = :org AND message_id = :messageId`,
      { messageId },
    );
    return row;
  }

  /** Asks for the letters to be laid out, the first time or anew. */
  async ask(tx: Scoped, messageId: number, form: LetterForm): Promise<void> {
    await tx.execute(
      `INSERT INTO message_letters (organization_id, message_id, form)
        VALUES (:org, :messageId, :form)
        ON DUPLICATE KEY UPDATE form = :form, asked = asked + 1, done = 0, problem = NULL`,
      { messageId, form },
    );
  }

  async change(
    tx: Scoped,
    messageId: number,
    values: Partial<
      Record<'made' | 'done' | 'total', number> & { problem: string | null; posted_on: string }
    >,
  ): Promise<void> {
    await tx.table('message_letters').where('message_id', messageId).update(values);
  }

  async files(db: Scoped, messageId: number): Promise<LetterFileRow[]> {
    return db.sql(
      `SELECT id, kind, name, storage_key, first_number, last_number
        FROM letter_file
        WHERE organization_id = :org AND message_id = :messageId
        ORDER BY kind, first_number`,
      { messageId },
    );
  }

  /** Takes what was laid out before away; returns the files, to be removed where they lie. */
  async clear(tx: Scoped, messageId: number): Promise<string[]> {
    const keys = (await this.files(tx, messageId)).map(({ storage_key: key }) => key);
    for (const table of ['letter_file', 'message_letter'] as const)
      await tx.table(table).where('message_id', messageId).delete();
    return keys;
  }

  async keep(
    tx: Scoped,
    messageId: number,
    letters: readonly { number: number; deliveryId: number }[],
    files: readonly Omit<LetterFileRow, 'id'>[],
  ): Promise<void> {
    await tx.insertAll(
      'message_letter',
      ['message_id', 'number', 'delivery_id'],
      letters.map(({ number, deliveryId }) => [messageId, number, deliveryId]),
    );
    await tx.insertAll(
      'letter_file',
      ['message_id', 'kind', 'name', 'storage_key', 'first_number', 'last_number'],
      files.map((file) => [
        ...[messageId, file.kind, file.name, file.storage_key, file.first_number, file.last_number],
      ]),
    );
  }

  /** Deliveries that wait to be posted, in rising order of the person. */
  async waiting(db: Scoped, messageId: number): Promise<WaitingLetter[]> {
    return db.sql(
      `SELECT d.id, d.supporter_id AS supporterId, d.contact_point_id AS contactPointId,
          s.household_id AS householdId
        FROM delivery d
        JOIN supporter s ON s.id = d.supporter_id
        WHERE d.organization_id = :org AND d.message_id = :messageId AND d.state = 'ready'
        ORDER BY d.supporter_id`,
      { messageId },
    );
  }

  /** Those whom the letter of another one of their household is for too. */
  async sharing(db: Scoped, messageId: number): Promise<(SharingLetter & { householdId: number })[]> {
    return db.sql(
      `SELECT d.id, d.supporter_id AS supporterId, d.contact_point_id AS contactPointId,
          s.household_id AS householdId
        FROM delivery d
        JOIN supporter s ON s.id = d.supporter_id
        WHERE d.organization_id = :org AND d.message_id = :messageId AND d.verdict = 'shared-address'
          AND s.household_id IS NOT NULL
        ORDER BY d.supporter_id`,
      { messageId },
    );
  }

  /** Letters that were laid out and wait to be posted, by their numbers. */
  async numbered(db: Scoped, messageId: number): Promise<NumberedLetter[]> {
    return db.sql(
      `SELECT l.number, d.id, d.supporter_id AS supporterId, d.contact_point_id AS contactPointId,
          s.household_id AS householdId, TRIM(CONCAT(s.first_name, ' ', s.last_name)) AS name
        FROM message_letter l
        JOIN delivery d ON d.id = l.delivery_id AND d.state = 'ready'
        JOIN supporter s ON s.id = d.supporter_id
        WHERE l.organization_id = :org AND l.message_id = :messageId
        ORDER BY l.number`,
      { messageId },
    );
  }

  /** The letter of a household is theirs from now on: whoever had it before may not be written to. */
  async take(tx: Scoped, id: number): Promise<void> {
    await tx.execute(
      `UPDATE delivery
        SET state = 'ready', verdict = 'send'
        WHERE organization_id = :org AND id = :id AND verdict = 'shared-address'`,
      { id },
    );
  }
}
