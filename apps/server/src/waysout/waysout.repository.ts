import { Injectable } from '@nestjs/common';
import type { Scope as PermissionScope, SendingChannel } from '@goodword/core/permission';
import { scopeOf, type MessageRow } from '../messages/messages.repository';
import { Database, type Scoped } from '../platform/database';

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

@Injectable()
export class WaysOutRepository {
  /** A token is all the proof there is, so the delivery is found without a scope, and gives the scope. */
  async delivery(database: Database, id: number): Promise<TokenDelivery | null> {
    const row = (await database
      .unscoped()('delivery as d')
      .join('message as m', 'm.id', 'd.message_id')
      .join('organization as o', 'o.id', 'd.organization_id')
      .leftJoin('list as l', 'l.id', 'm.list_id')
      .where('d.id', id)
      .whereNotNull('d.contact_point_id')
      .first('d.*', 'm.name as message_name', 'm.purpose', 'm.list_id', 'l.name as list_name', 'o.name as organization')) as
      | (Pick<MessageRow, 'purpose' | 'list_id'> & {
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
        })
      | undefined;
    if (!row) return null;
    return {
      id: row.id,
      organizationId: row.organization_id,
      messageId: row.message_id,
      messageName: row.message_name,
      supporterId: row.supporter_id,
      contactPointId: row.contact_point_id,
      channel: row.channel,
      scope: scopeOf(row),
      scopeName: row.list_name ?? row.purpose ?? 'appeals',
      organization: row.organization,
      state: row.state,
    };
  }

  /** Whether the person stands at no for a scope: the address has said no to it, and the person has not come back since. */
  async standsAtNo(db: Scoped, delivery: TokenDelivery, scope: PermissionScope): Promise<boolean> {
    const [row] = await db.sql<{ no_at: Date | null; own_yes_at: Date | null }>(
      `SELECT MAX(IF(supporter_id = 0, no_at, NULL)) AS no_at, MAX(IF(supporter_id = :supporterId, own_yes_at, NULL)) AS own_yes_at FROM permission_state
        WHERE organization_id = :org AND contact_point_id = :contactPointId AND supporter_id IN (0, :supporterId) AND channel = :channel AND scope IN (:scope, 'all')`,
      { supporterId: delivery.supporterId, contactPointId: delivery.contactPointId, channel: delivery.channel, scope },
    );
    const { no_at, own_yes_at } = row ?? { no_at: null, own_yes_at: null };
    return no_at !== null && !(own_yes_at !== null && own_yes_at > no_at);
  }

  /** Sets a mark on the delivery; true when it was not there before. */
  async mark(tx: Scoped, deliveryId: number, flag: 'opened' | 'followed' | 'left_it' | 'replied'): Promise<boolean> {
    return (
      (await tx.execute(`UPDATE delivery SET ${flag} = 1 WHERE organization_id = :org AND id = :deliveryId AND ${flag} = 0`, { deliveryId })) > 0
    );
  }

  async event(tx: Scoped, delivery: Pick<TokenDelivery, 'id' | 'messageId' | 'supporterId'>, kind: string, detail: string): Promise<void> {
    tx.changed('messages', 0, [delivery.supporterId]);
    await tx.insert('delivery_event', {
      delivery_id: delivery.id,
      message_id: delivery.messageId,
      supporter_id: delivery.supporterId,
      kind,
      detail: detail.slice(0, 500),
    });
  }

  async hasFollowed(db: Scoped, deliveryId: number, url: string): Promise<boolean> {
    const rows = await db.sql(
      "SELECT 1 FROM delivery_event WHERE organization_id = :org AND delivery_id = :deliveryId AND kind = 'followed' AND detail = :url",
      { deliveryId, url: url.slice(0, 500) },
    );
    return rows.length > 0;
  }

  async link(db: Scoped, messageId: number, position: number): Promise<string | null> {
    const [row] = await db.sql<{ url: string }>(
      'SELECT url FROM message_link WHERE organization_id = :org AND message_id = :messageId AND position = :position',
      { messageId, position },
    );
    return row?.url ?? null;
  }
}
