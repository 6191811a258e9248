import { Injectable } from '@nestjs/common';
import type { Scope as PermissionScope, SendingChannel } from '@goodword/core/permission';
import { scopeOfMessage, type MessageRow } from '../messages/messages.repository';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { currentRecord } from '../supporters/merged';

/** What a token in a message stands for. */
export interface TokenDelivery {
  id: number;
  organizationId: number;
  messageId: number;
  messageName: string;
  supporterId: number;
  contactPointId: number;
  channel: SendingChannel;
  scope: PermissionScope;
  /** The list's or purpose's name, as supporters know it. */
  scopeName: string;
  organization: string;
  state: string;
}

type TokenRow = Pick<MessageRow, 'purpose' | 'list_id'> & {
  id: number;
  organization_id: number;
  message_id: number;
  message_name: string;
  supporter_id: number;
  contact_point_id: number;
  channel: SendingChannel;
  list_name: string | null;
  organization: string;
  state: string;
};

/** What a link of a delivery leads to, and the marks that it leaves there. */
@Injectable()
export class UnsubscribeRepository {
  /** A token is all the proof there is, so the delivery is found without a scope, and gives the scope. */
  async delivery(database: Database, id: number): Promise<TokenDelivery | null> {
    const row = await database
      .unscoped()('delivery as d')
      .join('message as m', 'm.id', 'd.message_id')
      .join('organization as o', 'o.id', 'd.organization_id')
      .leftJoin('list as l', 'l.id', 'm.list_id')
      .where('d.id', id)
      .whereNotNull('d.contact_point_id')
      .first<TokenRow | undefined>(
        'd.id',
        'd.organization_id',
        'd.message_id',
        'd.supporter_id',
        'd.contact_point_id',
        'd.channel',
        'd.state',
        'm.name as message_name',
        'm.purpose',
        'm.list_id',
        'l.name as list_name',
        'o.name as organization',
      );
    if (!row) return null;
    return {
      id: row.id,
      organizationId: row.organization_id,
      messageId: row.message_id,
      messageName: row.message_name,
      supporterId: await currentRecord(database, row.supporter_id),
      contactPointId: row.contact_point_id,
      channel: row.channel,
      scope: scopeOfMessage(row),
      scopeName: row.list_name ?? row.purpose ?? 'appeals',
      organization: row.organization,
      state: row.state,
    };
  }

  /**
   * The address that the person has now in the place of one that they corrected; the same where they did not.
   */
  async currentPoint(db: Scoped, supporterId: number, contactPointId: number): Promise<number> {
    const rows = await db.sql<{ from_point_id: number; to_point_id: number }>(
      `SELECT from_point_id, to_point_id
        FROM address_change
        WHERE organization_id = :org AND supporter_id = :supporterId
        ORDER BY id`,
      { supporterId },
    );
    return rows.reduce(
      (at, change) => (change.from_point_id === at ? change.to_point_id : at),
      contactPointId,
    );
  }

  /** One press after the other, where two come at once. */
  async lockDelivery(tx: Scoped, deliveryId: number): Promise<void> {
    await tx.sql('SELECT id FROM delivery WHERE organization_id = :org AND id = :deliveryId FOR UPDATE', {
      deliveryId,
    });
  }

  /** Sets a mark on the delivery; true when it was not there before. */
  async mark(
    tx: Scoped,
    deliveryId: number,
    flag: 'opened' | 'clicked' | 'left_it' | 'replied',
  ): Promise<boolean> {
    return (
      (await tx.execute(
        `UPDATE delivery SET ${flag} = 1 WHERE organization_id = :org AND id = :deliveryId AND ${flag} = 0`,
        { deliveryId },
      )) > 0
    );
  }

  async event(
    tx: Scoped,
    delivery: Pick<TokenDelivery, 'id' | 'messageId' | 'supporterId'>,
    kind: string,
    detail: string,
  ): Promise<void> {
    tx.changed('messages', 0, [delivery.supporterId]);
    await tx.insert('delivery_event', {
      delivery_id: delivery.id,
      message_id: delivery.messageId,
      supporter_id: delivery.supporterId,
      kind,
      detail: detail.slice(0, 500),
    });
  }

  async hasEvent(db: Scoped, deliveryId: number, kind: string): Promise<boolean> {
    const known = `SELECT 1
        FROM delivery_event
        WHERE organization_id = :org AND delivery_id = :deliveryId AND kind = :kind
        LIMIT 1`;
    return (await db.sql(known, { deliveryId, kind })).length > 0;
  }

  async hasClicked(db: Scoped, deliveryId: number, url: string): Promise<boolean> {
    const rows = await db.sql(
      `SELECT 1
        FROM delivery_event
        WHERE organization_id = :org AND delivery_id = :deliveryId AND kind = 'clicked' AND detail = :url`,
      { deliveryId, url: url.slice(0, 500) },
    );
    return rows.length > 0;
  }

  async link(db: Scoped, messageId: number, position: number): Promise<string | null> {
    const [row] = await db.sql<{ url: string }>(
      `SELECT url
        FROM message_link
        WHERE organization_id = :org AND message_id = :messageId AND position = :position`,
      { messageId, position },
    );
    return row?.url ?? null;
  }
}
