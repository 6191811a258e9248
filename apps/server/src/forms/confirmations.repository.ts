import { Injectable } from '@nestjs/common';
import type { NewPoint } from '../supporters/contact-points.repository';
import type { FieldValue } from '@goodword/core/fields';
import { looseEmail, mailboxOf } from '@goodword/core/intake';
import type { Channel, Scope as PermissionScope } from '@goodword/core/permission';
import { type Database } from '../platform/database';
import { type Scoped, rowsOf } from '../platform/scoped';
import { isLandline } from '../permission/line.sql';

/** One thing that is asked to be confirmed; on the channel of the request where it names none. */
export interface ConfirmAsk {
  scope: PermissionScope;
  words: string;
  channel?: Channel;
}

/**
 * What comes of a confirmation beside permission: kept with the question until the person has answered it.
 */
export interface PendingConfirmation {
  firstName?: string;
  lastName?: string;
  country?: string | null;
  language?: string | null;
  values?: { fieldId: number; value: FieldValue }[];
  tagIds?: number[];
  listIds?: number[];
  /** Further addresses that become theirs. */
  addresses?: NewPoint[];
  /** The address that gives way to the one that is confirmed. */
  replaces?: number | null;
}

export interface ConfirmationRow {
  id: number;
  organization_id: number;
  kind: 'join' | 'address';
  form_id: number | null;
  version: number | null;
  supporter_id: number;
  contact_point_id: number;
  channel: Channel;
  asks: ConfirmAsk[];
  pending: PendingConfirmation | null;
  /** What the mail says, where a batch and no form asks. */
  request: { subject: string; body: string } | null;
  state: 'waiting' | 'in-flight' | 'sent' | 'confirmed' | 'dropped';
  sent: number;
  asked_at: Date;
  expires_at: Date;
  confirmed_at: Date | null;
  mailbox: string;
  normal: string;
  shown: string;
  on_hold: number;
  do_not_contact: number;
  landline: number;
}

export interface NewConfirmation {
  kind: 'join' | 'address';
  formId: number | null;
  version: number | null;
  supporterId: number;
  contactPointId: number;
  /** The address in its normal form. */
  normal: string;
  channel: Channel;
  asks: ConfirmAsk[];
  pending?: PendingConfirmation;
  expiresAt: Date;
}

/** Requests that went to a mailbox or number. */
export interface RequestsSent {
  /** Since it last answered one. */
  unanswered: number[];
  all: number[];
  neverAgain: boolean;
}

const COLUMNS = [
  'c.id',
  'c.organization_id',
  'c.kind',
  'c.form_id',
  'c.version',
  'c.supporter_id',
  'c.contact_point_id',
  'c.channel',
  'c.asks',
  'c.pending',
  'c.request',
  'c.state',
  'c.sent',
  'c.asked_at',
  'c.expires_at',
  'c.confirmed_at',
  'c.mailbox',
  'cp.normal',
  'cp.shown',
  'cp.on_hold',
  'cp.do_not_contact',
];
const POINT = `SELECT ${COLUMNS.join(', ')},
  ${isLandline('cp.line')} AS landline
  FROM confirmation c JOIN contact_point cp ON cp.id = c.contact_point_id`;

/** What a worker that died left under way. */
const LEFT = "state = 'in-flight' AND asked_at < UTC_TIMESTAMP(3) - INTERVAL 1 HOUR";

/** For `due`: a confirmation or its reminder is to be sent, or one was left under way. */
export const CONFIRMATIONS_DUE = `SELECT 'confirmations' AS due FROM DUAL WHERE EXISTS
  (SELECT 1 FROM confirmation WHERE state IN ('waiting', 'sent') AND due_at <= UTC_TIMESTAMP(3))
  OR EXISTS (SELECT 1 FROM confirmation WHERE ${LEFT})`;

/**
 * Requests to confirm: what was asked of whom, how often, and what came of it. Owns `confirmation`,
 * `confirmation_sent`.
 */
@Injectable()
export class ConfirmationsRepository {
  /** Adds one that is due at once. Whether it may go is decided when it is about to. */
  async add(tx: Scoped, one: NewConfirmation): Promise<number> {
    return tx.insert('confirmation', {
      kind: one.kind,
      form_id: one.formId,
      version: one.version,
      supporter_id: one.supporterId,
      contact_point_id: one.contactPointId,
      mailbox: mailboxOf(one.normal),
      channel: one.channel,
      asks: JSON.stringify(one.asks),
      pending: one.pending ? JSON.stringify(one.pending) : null,
      expires_at: one.expiresAt,
      due_at: new Date(),
      state: 'waiting',
    });
  }

  /** The next one that is due, in any organization. */
  async due(database: Database): Promise<{ id: number; organizationId: number } | null> {
    const knex = database.unscoped();
    const row = (await rowsOf(knex, 'confirmation')
      .whereIn('state', ['waiting', 'sent'])
      .where('due_at', '<=', knex.raw('UTC_TIMESTAMP(3)'))
      .orderBy('due_at')
      .first('id', 'organization_id')) as { id: number; organization_id: number } | undefined;
    return row ? { id: row.id, organizationId: row.organization_id } : null;
  }

  /**
   * Holds one that is still due, and every other that goes to the same mailbox: whoever sends another one
   * there waits and counts this one. Undefined where somebody else was faster.
   */
  async holdDue(tx: Scoped, id: number): Promise<ConfirmationRow | undefined> {
    const [row] = await tx.sql<ConfirmationRow>(
      `${POINT}
        WHERE c.organization_id = :org AND c.id = :id AND c.state IN ('waiting', 'sent')
          AND c.due_at <= UTC_TIMESTAMP(3)
        FOR UPDATE SKIP LOCKED`,
      { id },
    );
    if (row)
      await tx.sql(
        'SELECT id FROM confirmation WHERE organization_id = :org AND mailbox = :mailbox FOR UPDATE',
        { mailbox: row.mailbox },
      );
    return row;
  }

  async requestsTo(tx: Scoped, mailbox: string): Promise<RequestsSent> {
    const sent = await tx.sql<{ at: Date }>(
      `SELECT at
        FROM confirmation_sent
        WHERE organization_id = :org AND mailbox = :mailbox
        ORDER BY at LOCK IN SHARE MODE`,
      { mailbox },
    );
    const [answered] = await tx.sql<{ at: Date | null; never: number | null }>(
      `SELECT MAX(c.confirmed_at) AS at, MAX(cp.never_ask) AS never
        FROM confirmation c
        JOIN contact_point cp ON cp.id = c.contact_point_id
        WHERE c.organization_id = :org AND c.mailbox = :mailbox`,
      { mailbox },
    );
    const since = answered?.at?.getTime() ?? -Infinity;
    const all = sent.map(({ at }) => at.getTime());
    return { all, unanswered: all.filter((at) => at > since), neverAgain: answered?.never === 1 };
  }

  /** Addresses on file that lead to the same mailbox. */
  async pointsOfMailbox(
    db: Scoped,
    row: Pick<ConfirmationRow, 'contact_point_id' | 'normal' | 'mailbox'>,
  ): Promise<number[]> {
    if (!row.normal.includes('@')) return [row.contact_point_id];
    const alike = await db.sql<{ id: number; normal: string }>(
      `SELECT id, normal
        FROM contact_point
        WHERE organization_id = :org AND loose = :loose AND kind = 'email'`,
      { loose: looseEmail(row.normal) },
    );
    const same = alike
      .filter(({ normal }) => mailboxOf(normal) === mailboxOf(row.normal))
      .map(({ id }) => id);
    return [...new Set([row.contact_point_id, ...same])];
  }

  /**
   * It counts as sent from here on: after a crash in the middle it is not sent again, the reminder comes in
   * its time.
   */
  async claim(tx: Scoped, row: ConfirmationRow): Promise<number> {
    await this.change(tx, row.id, { state: 'in-flight', sent: row.sent + 1, due_at: null });
    return tx.insert('confirmation_sent', {
      confirmation_id: row.id,
      contact_point_id: row.contact_point_id,
      mailbox: row.mailbox,
      channel: row.channel,
    });
  }

  /** What the request said, once it has gone; one that did not go is none. */
  async keepSent(tx: Scoped, sentId: number, words: string | null): Promise<void> {
    if (words === null)
      await tx.execute('DELETE FROM confirmation_sent WHERE organization_id = :org AND id = :sentId', {
        sentId,
      });
    else
      await tx.execute(
        'UPDATE confirmation_sent SET words = :words WHERE organization_id = :org AND id = :sentId',
        {
          sentId,
          words: words.slice(0, 4000),
        },
      );
  }

  /** What a dead worker left under way counts as sent. */
  async sweep(database: Database): Promise<void> {
    const knex = database.unscoped();
    await rowsOf(knex, 'confirmation')
      .whereRaw(LEFT)
      .update({ state: 'sent', due_at: knex.raw('IF(sent = 1, asked_at + INTERVAL 3 DAY, NULL)') });
  }

  /** A signed token is all the proof there is, so this one is found without a scope, and gives the scope. */
  async byToken(database: Database, id: number): Promise<ConfirmationRow | undefined> {
    return database
      .unscoped()('confirmation as c')
      .join('contact_point as cp', 'cp.id', 'c.contact_point_id')
      .where('c.id', id)
      .first<ConfirmationRow | undefined>(COLUMNS);
  }

  async find(db: Scoped, id: number, lock = false): Promise<ConfirmationRow | undefined> {
    const [row] = await db.sql<ConfirmationRow>(
      `${POINT} WHERE c.organization_id = :org AND c.id = :id ${lock ? 'FOR UPDATE' : ''}`,
      { id },
    );
    return row;
  }

  /** The open questions at a number, for an answer that says yes. */
  async openAt(tx: Scoped, contactPointId: number): Promise<ConfirmationRow[]> {
    return tx.sql<ConfirmationRow>(
      `${POINT}
        WHERE c.organization_id = :org AND c.contact_point_id = :contactPointId
          AND c.channel IN ('text', 'call')
        AND c.state IN ('in-flight', 'sent') AND c.expires_at > UTC_TIMESTAMP(3) FOR UPDATE`,
      { contactPointId },
    );
  }

  /**
   * Nothing is asked of a mailbox any more: what waits is dropped, and what is being handed over comes with
   * no reminder.
   */
  async neverAsk(tx: Scoped, row: Pick<ConfirmationRow, 'contact_point_id' | 'mailbox'>): Promise<void> {
    await tx.execute('UPDATE contact_point SET never_ask = 1 WHERE organization_id = :org AND id = :id', {
      id: row.contact_point_id,
    });
    await tx.execute(
      `UPDATE confirmation SET state = 'dropped', due_at = NULL, detail = 'They asked never to be asked again'
        WHERE organization_id = :org AND mailbox = :mailbox AND state IN ('waiting', 'in-flight', 'sent')`,
      { mailbox: row.mailbox },
    );
  }

  async change(
    tx: Scoped,
    id: number,
    values: Partial<{
      state: ConfirmationRow['state'];
      sent: number;
      due_at: Date | null;
      confirmed_at: Date;
      detail: string | null;
    }>,
  ): Promise<void> {
    await tx.table('confirmation').where('confirmation.id', id).update(values);
  }
}
