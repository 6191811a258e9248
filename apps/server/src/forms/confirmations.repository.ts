import { Injectable } from '@nestjs/common';
import type { Scope as PermissionScope, SendingChannel } from '@goodword/core/permission';
import type { Database, Scoped } from '../platform/database';

export interface ConfirmationRow {
  id: number;
  organization_id: number;
  kind: 'join' | 'address';
  form_id: number | null;
  version: number | null;
  supporter_id: number;
  contact_point_id: number;
  channel: SendingChannel;
  asks: { scope: PermissionScope; words: string }[];
  /** What the mail says, where a batch and no form asks. */
  request: { subject: string; body: string } | null;
  state: 'waiting' | 'handing' | 'sent' | 'confirmed' | 'dropped';
  sent: number;
  asked_at: Date;
  expires_at: Date;
  confirmed_at: Date | null;
  normal: string;
  shown: string;
  on_hold: number;
  do_not_contact: number;
}

export interface NewConfirmation {
  kind: 'join' | 'address';
  formId: number | null;
  version: number | null;
  supporterId: number;
  contactPointId: number;
  channel: SendingChannel;
  asks: { scope: PermissionScope; words: string }[];
  expiresAt: Date;
  saidNo: boolean;
}

/** Whoever types an address into form after form gets its owner at most so many mails a day. */
const MOST_A_DAY = 3;
const POINT =
  'SELECT c.*, cp.normal, cp.shown, cp.on_hold, cp.do_not_contact FROM confirmation c JOIN contact_point cp ON cp.id = c.contact_point_id';

@Injectable()
export class ConfirmationsRepository {
  /** Adds one that is due at once; after too many in a day, or where a STOP forbids it, it is kept but never sent. */
  async add(tx: Scoped, one: NewConfirmation): Promise<number> {
    const [recent] = await tx.sql<{ n: number }>(
      'SELECT COUNT(*) AS n FROM confirmation WHERE organization_id = :org AND contact_point_id = :point AND channel = :channel AND asked_at > UTC_TIMESTAMP(3) - INTERVAL 1 DAY',
      { point: one.contactPointId, channel: one.channel },
    );
    const dropped = (recent?.n ?? 0) >= MOST_A_DAY || (one.channel === 'text' && one.saidNo);
    return tx.insert('confirmation', {
      kind: one.kind,
      form_id: one.formId,
      version: one.version,
      supporter_id: one.supporterId,
      contact_point_id: one.contactPointId,
      channel: one.channel,
      asks: JSON.stringify(one.asks),
      expires_at: one.expiresAt,
      due_at: dropped ? null : new Date(),
      state: dropped ? 'dropped' : 'waiting',
      detail: dropped
        ? one.saidNo && one.channel === 'text'
          ? 'The number has stopped our texts; only START from it lifts that'
          : 'Asked too often today'
        : null,
    });
  }

  /** Takes the next one that is due, in any organization, marked as under way. */
  async claim(database: Database): Promise<{ id: number; organizationId: number; sentBefore: number } | null> {
    const knex = database.unscoped();
    return knex.transaction(async (trx) => {
      const row = (await trx('confirmation')
        .whereIn('state', ['waiting', 'sent'])
        .where('due_at', '<=', knex.raw('UTC_TIMESTAMP(3)'))
        .orderBy('due_at')
        .forUpdate()
        .skipLocked()
        .first('id', 'organization_id', 'sent')) as { id: number; organization_id: number; sent: number } | undefined;
      if (!row) return null;
      // From here on it counts as sent: after a crash in the middle it is not sent again, the reminder comes in its time.
      await trx('confirmation')
        .where('id', row.id)
        .update({ state: 'handing', sent: row.sent + 1, due_at: null });
      return { id: row.id, organizationId: row.organization_id, sentBefore: row.sent };
    });
  }

  /** What a dead worker left under way counts as sent. */
  async sweep(database: Database): Promise<void> {
    const knex = database.unscoped();
    await knex('confirmation')
      .where('state', 'handing')
      .where('asked_at', '<', knex.raw('UTC_TIMESTAMP(3) - INTERVAL 1 HOUR'))
      .update({ state: 'sent', due_at: knex.raw('IF(sent = 1, asked_at + INTERVAL 3 DAY, NULL)') });
  }

  /** A signed token is all the proof there is, so this one is found without a scope, and gives the scope. */
  async byToken(database: Database, id: number): Promise<ConfirmationRow | undefined> {
    return (await database
      .unscoped()('confirmation as c')
      .join('contact_point as cp', 'cp.id', 'c.contact_point_id')
      .where('c.id', id)
      .first('c.*', 'cp.normal', 'cp.shown', 'cp.on_hold', 'cp.do_not_contact')) as ConfirmationRow | undefined;
  }

  async find(db: Scoped, id: number, lock = false): Promise<ConfirmationRow | undefined> {
    const [row] = await db.sql<ConfirmationRow>(`${POINT} WHERE c.organization_id = :org AND c.id = :id ${lock ? 'FOR UPDATE' : ''}`, { id });
    return row;
  }

  /** The open questions at a number, for an answer that says yes. */
  async openAt(tx: Scoped, contactPointId: number): Promise<ConfirmationRow[]> {
    return tx.sql<ConfirmationRow>(
      `${POINT} WHERE c.organization_id = :org AND c.contact_point_id = :contactPointId AND c.channel = 'text' AND c.state IN ('handing', 'sent') AND c.expires_at > UTC_TIMESTAMP(3) FOR UPDATE`,
      { contactPointId },
    );
  }

  async change(
    tx: Scoped,
    id: number,
    values: Partial<{ state: ConfirmationRow['state']; sent: number; due_at: Date | null; confirmed_at: Date; detail: string | null }>,
  ): Promise<void> {
    await tx.table('confirmation').where('confirmation.id', id).update(values);
  }
}
