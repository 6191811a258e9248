import type { DeliveryFault } from '@goodword/core/delivery';
import { Injectable } from '@nestjs/common';
import type { TextAnswers } from '@goodword/core/contract';
import { Database } from '../platform/database';
import { type Scoped, rowsOf } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export interface NumberOwner {
  id: number;
  name: string;
  text_from: string;
  text_answers: TextAnswers | null;
}

/** As whom the program writes to owners. */
type MailOwner = Pick<Tables['organization'], 'name' | 'list_domain' | 'from_email'>;

/** Where a mail went, for what comes back of it. */
export interface Addressee {
  organizationId: number;
  /** Null for a teammate's. */
  contactPointId: number | null;
  address: string;
}

export interface LastDelivery {
  id: number;
  messageId: number;
  supporterId: number;
}

/** Whom what comes back is from, and what it answers. */
@Injectable()
export class InboundRepository {
  /** The organization that a number belongs to; incoming texts carry no other name. */
  async organizationOf(database: Database, number: string): Promise<NumberOwner | undefined> {
    return await rowsOf(database.unscoped(), 'organization')
      .where('text_from', number)
      .first('id', 'name', 'text_from', 'text_answers');
  }

  /** Domains that mail comes back to, of every organization. */
  async domains(database: Database): Promise<Set<string>> {
    const rows = await rowsOf(database.unscoped(), 'organization').select('list_domain');
    return new Set(rows.map((row) => row.list_domain.toLowerCase()));
  }

  /** Who owns the organization of a domain; without one, of the only organization there is. */
  async owners(
    database: Database,
    domain: string | null,
  ): Promise<{ id: number; email: string; organization: MailOwner }[]> {
    const organizations = await rowsOf(database.unscoped(), 'organization').select(
      'id',
      'name',
      'list_domain',
      'from_email',
    );
    const asked =
      domain === null
        ? organizations
        : organizations.filter((one) => one.list_domain.toLowerCase() === domain.toLowerCase());
    const [found, ...more] = asked;
    if (!found || more.length > 0) return [];
    const owners = await rowsOf(database.unscoped(), 'teammate')
      .where({ organization_id: found.id, role: 'owner' })
      .select('id', 'email')
      .limit(5);
    return owners.map((owner) => ({ ...owner, organization: found }));
  }

  async pointAddress(database: Database, id: number): Promise<Addressee | null> {
    const point = await rowsOf(database.unscoped(), 'contact_point')
      .where({ id })
      .first('organization_id', 'normal');
    return point
      ? { organizationId: point.organization_id, contactPointId: id, address: point.normal }
      : null;
  }

  async mateAddress(database: Database, id: number): Promise<Addressee | null> {
    const mate = await rowsOf(database.unscoped(), 'teammate')
      .where({ id })
      .first('organization_id', 'email');
    return mate ? { organizationId: mate.organization_id, contactPointId: null, address: mate.email } : null;
  }

  async deliveryByKey(
    database: Database,
    key: string,
  ): Promise<
    | {
        id: number;
        organization_id: number;
        message_id: number;
        supporter_id: number;
        contact_point_id: number;
        state: string;
      }
    | undefined
  > {
    return (await rowsOf(database.unscoped(), 'delivery').where('provider_key', key).first()) as never;
  }

  /** The address, made where it is not known: a stop from a stranger is kept too. */
  async point(tx: Scoped, kind: 'email' | 'mobile', normal: string): Promise<number> {
    await tx.execute(
      `INSERT IGNORE INTO contact_point (organization_id, kind, normal, shown)
        VALUES (:org, :kind, :normal, :normal)`,
      {
        kind,
        normal,
      },
    );
    const [row] = await tx.sql<{ id: number }>(
      'SELECT id FROM contact_point WHERE organization_id = :org AND kind = :kind AND normal = :normal',
      {
        kind,
        normal,
      },
    );
    return row!.id;
  }

  /** The newest delivery to an address, which a reply answers. */
  async lastDelivery(db: Scoped, contactPointId: number): Promise<LastDelivery | undefined> {
    const [row] = await db.sql<Pick<Tables['delivery'], 'id' | 'message_id' | 'supporter_id'>>(
      `SELECT id, message_id, supporter_id
        FROM delivery
        WHERE organization_id = :org AND contact_point_id = :contactPointId AND state IN ('sent', 'delivered')
        ORDER BY sent_at DESC, id DESC
        LIMIT 1`,
      { contactPointId },
    );
    return row && { id: row.id, messageId: row.message_id, supporterId: row.supporter_id };
  }

  async answersOf(db: Scoped): Promise<{ name: string; text_answers: TextAnswers | null }> {
    const [row] = await db.sql<{ name: string; text_answers: TextAnswers | null }>(
      'SELECT name, text_answers FROM organization WHERE id = :org',
    );
    return row!;
  }

  async keepAnswers(tx: Scoped, answers: TextAnswers): Promise<void> {
    await tx.execute('UPDATE organization SET text_answers = :answers WHERE id = :org', {
      answers: JSON.stringify(answers),
    });
  }

  async setState(
    tx: Scoped,
    deliveryId: number,
    state: 'delivered' | 'bounced' | 'failed',
    detail: string,
    fault: DeliveryFault | null = null,
  ): Promise<boolean> {
    const from =
      state === 'delivered'
        ? "state IN ('sent', 'in-flight', 'unsure')"
        : "state IN ('sent', 'in-flight', 'unsure', 'delivered')";
    return (
      (await tx.execute(
        `UPDATE delivery
          SET state = :state, sent_at = COALESCE(sent_at, UTC_TIMESTAMP(3)), detail = :detail,
            fault = :fault
          WHERE organization_id = :org AND id = :deliveryId AND ${from}`,
        { deliveryId, state, fault, detail: detail.slice(0, 300) },
      )) > 0
    );
  }
}
