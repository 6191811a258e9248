import { Injectable } from '@nestjs/common';
import type { Channel, Scope as PermissionScope } from '@goodword/core/permission';
import type { Scoped } from '../../platform/scoped';

/** A no as it stands in the ledger. */
export interface RefusalEntry {
  id: number;
  supporterId: number;
  channel: Channel;
  scope: PermissionScope;
  saidAt: Date;
  /** The batch that it came with; null where it came by another way. */
  batchId: number | null;
}

const COLUMNS = 'e.id, e.channel, e.scope, e.said_at AS saidAt, e.batch_id AS batchId';
const IS_NO = "e.organization_id = :org AND e.state = 'no' AND e.taken_back_at IS NULL";

/** Noes that were written down, of whom they close: for whoever passes them on. Reads `permission_entry`. */
@Injectable()
export class RefusalsRepository {
  /** The newest entry of any kind; 0 where there is none. */
  async newest(db: Scoped): Promise<number> {
    const [row] = await db.sql<{ id: number | null }>(
      'SELECT MAX(id) AS id FROM permission_entry WHERE organization_id = :org',
    );
    return row?.id ?? 0;
  }

  /** Those after an entry, in their order; of one without a person, of all at the address. */
  async after(db: Scoped, id: number): Promise<RefusalEntry[]> {
    return db.sql(
      `SELECT ${COLUMNS}, COALESCE(e.supporter_id, sc.supporter_id) AS supporterId
        FROM permission_entry e
        LEFT JOIN supporter_contact sc ON e.supporter_id IS NULL AND sc.contact_point_id = e.contact_point_id
        WHERE ${IS_NO} AND e.id > :id AND COALESCE(e.supporter_id, sc.supporter_id) IS NOT NULL
        ORDER BY e.id
        LIMIT 100000`,
      { id },
    );
  }

  async isTakenBack(db: Scoped, id: number): Promise<boolean> {
    const [row] = await db.sql<{ taken_back_at: Date | null }>(
      'SELECT taken_back_at FROM permission_entry WHERE organization_id = :org AND id = :id',
      { id },
    );
    return !row || row.taken_back_at !== null;
  }

  /** All of some people. */
  async ofPeople(db: Scoped, people: readonly number[]): Promise<RefusalEntry[]> {
    if (people.length === 0) return [];
    return db.sql(
      `SELECT ${COLUMNS}, e.supporter_id AS supporterId
        FROM permission_entry e
        WHERE ${IS_NO} AND e.supporter_id IN (:people)
        UNION ALL
        SELECT ${COLUMNS}, sc.supporter_id AS supporterId
        FROM supporter_contact sc
        JOIN permission_entry e ON e.contact_point_id = sc.contact_point_id AND e.supporter_id IS NULL
        WHERE ${IS_NO} AND sc.supporter_id IN (:people)`,
      { people },
    );
  }
}
