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
      | (Pick<MessageRow, 'purpose' | 'list_id'> & { id: number; organization_id: number; message_id: number; message_name: string; supporter_id: number; contact_point_id: number; channel: SendingChannel; list_name: string | null; organization: string; state: string })
      | undefined;
    if (!row) return null;
    return {
      id: row.id, organizationId: row.organization_id, messageId: row.message_id, messageName: row.message_name, supporterId: row.supporter_id, contactPointId: row.contact_point_id, channel: row.channel,
      scope: scopeOf(row), scopeName: row.list_name ?? row.purpose ?? 'appeals', organization: row.organization, state: row.state,
    };
  }

  /** Whether the address has a no for the scope that the person has not taken back. */
  async standsAtNo(db: Scoped, delivery: TokenDelivery, scopes: readonly PermissionScope[]): Promise<boolean> {
    const rows = await db.sql(
      `SELECT 1 FROM permission_state n LEFT JOIN permission_state y ON y.organization_id = :org AND y.contact_point_id = n.contact_point_id AND y.supporter_id = :supporterId AND y.channel = n.channel AND y.scope IN (n.scope, 'all')
        WHERE n.organization_id = :org AND n.contact_point_id = :contactPointId AND n.supporter_id = 0 AND n.channel = :channel AND n.scope IN (:scopes) AND n.no_at IS NOT NULL
        GROUP BY n.scope, n.no_at HAVING COALESCE(MAX(y.own_yes_at), '1970-01-01') <= n.no_at`,
      { supporterId: delivery.supporterId, contactPointId: delivery.contactPointId, channel: delivery.channel, scopes: [...scopes] },
    );
    return rows.length > 0;
  }

  /** Sets a mark on the delivery; true when it was not there before. */
  async mark(tx: Scoped, deliveryId: number, flag: 'opened' | 'followed' | 'left_it' | 'replied'): Promise<boolean> {
    return (await tx.execute(`UPDATE delivery SET ${flag} = 1 WHERE organization_id = :org AND id = :deliveryId AND ${flag} = 0`, { deliveryId })) > 0;
  }

  async event(tx: Scoped, delivery: Pick<TokenDelivery, 'id' | 'messageId' | 'supporterId'>, kind: string, detail: string): Promise<void> {
    await tx.insert('delivery_event', { delivery_id: delivery.id, message_id: delivery.messageId, supporter_id: delivery.supporterId, kind, detail: detail.slice(0, 500) });
  }

  async hasFollowed(db: Scoped, deliveryId: number, url: string): Promise<boolean> {
    const rows = await db.sql("SELECT 1 FROM delivery_event WHERE organization_id = :org AND delivery_id = :deliveryId AND kind = 'followed' AND detail = :url", { deliveryId, url: url.slice(0, 500) });
    return rows.length > 0;
  }

  async link(db: Scoped, messageId: number, position: number): Promise<string | null> {
    const [row] = await db.sql<{ url: string }>('SELECT url FROM message_link WHERE organization_id = :org AND message_id = :messageId AND position = :position', { messageId, position });
    return row?.url ?? null;
  }
}
