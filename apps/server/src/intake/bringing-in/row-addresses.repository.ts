import { Injectable } from '@nestjs/common';
import type { Scoped, Bound } from '../../platform/scoped';

/** Rows `from` to `to`, both included, of one batch. */
export interface RowSlice extends Record<string, Bound> {
  batchId: number;
  from: number;
  to: number;
}

/**
 * Addresses by their normal form. Joined to rows by this index and in this order, whatever the optimizer
 * thinks: while a table fills, what it believes of it is old: a slice of twenty-five was joined by looking at
 * every pair, in each of three runs, and took 33 s.
 */
const POINTS = 'JOIN contact_point cp FORCE INDEX (by_normal) ON';

export const ROWS = 'r.organization_id = :org AND r.batch_id = :batchId AND r.row_no BETWEEN :from AND :to';

export const COMES = `${ROWS} AND r.supporter_id > 0 AND r.verdict IN ('new', 'shares', 'update')`;

/** Addresses that stand beside the rows. */
export const MORE_ADDRESSES = ['email', 'mobile', 'post'] as const;

export const MORE = 'JOIN batch_more m ON m.batch_id = r.batch_id AND m.row_no = r.row_no';

/**
 * What an address beside a row (`m`) compares by. Without a street it is a town, which a thousand people
 * have: each has it for themselves, so that nobody shares an address with strangers, nor their no to post.
 */
export const FURTHER = `IF(m.kind = 'post' AND JSON_VALUE(m.value, '$.street') = '',
    CONCAT(LEFT(m.normal, 230), '|', r.supporter_id), m.normal)`;

/**
 * Makes the addresses of rows and hangs them on their people. Writes `contact_point` and
 * `supporter_contact` for a whole slice.
 */
@Injectable()
export class RowAddressesRepository {
  async makeAddresses(tx: Scoped, slice: RowSlice, kind: 'email' | 'mobile'): Promise<void> {
    const line = kind === 'mobile';
    await tx.execute(
      `INSERT ${line ? '' : 'IGNORE '}INTO contact_point
        (organization_id, kind, normal, shown, line, batch_id)
        SELECT :org, '${kind}', r.${kind}, r.${kind}_shown, ${line ? 'r.line' : 'NULL'}, r.batch_id
        FROM batch_row r
        WHERE ${COMES} AND r.${kind} IS NOT NULL
        ${line ? 'ON DUPLICATE KEY UPDATE line = COALESCE(VALUES(line), contact_point.line)' : ''}`,
      slice,
    );
  }

  async linkAddresses(tx: Scoped, slice: RowSlice, kind: 'email' | 'mobile'): Promise<void> {
    await tx.execute(
      `INSERT IGNORE INTO supporter_contact
        (organization_id, supporter_id, contact_point_id, kind, position, batch_id)
        SELECT
        STRAIGHT_JOIN :org, r.supporter_id, cp.id, cp.kind, IF(r.verdict = 'update', 1, 0), r.batch_id
        FROM batch_row r
        ${POINTS} cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = r.${kind} WHERE ${COMES}`,
      slice,
    );
  }

  /** Further emails and numbers, and the postal address. */
  async makeMoreAddresses(tx: Scoped, slice: RowSlice, kind: (typeof MORE_ADDRESSES)[number]): Promise<void> {
    const [shown, parts] =
      kind === 'post' ? ["JSON_VALUE(m.value, '$.shown')", 'm.value'] : ['m.value', 'NULL'];
    await tx.execute(
      `INSERT IGNORE INTO contact_point (organization_id, kind, normal, shown, parts, batch_id)
        SELECT
        STRAIGHT_JOIN :org, '${kind}', ${FURTHER}, MIN(${shown}), MIN(${parts}), r.batch_id
        FROM batch_row r ${MORE} AND m.kind = '${kind}'
        WHERE ${COMES}
        GROUP BY ${FURTHER}, r.batch_id`,
      slice,
    );
  }

  async linkMoreAddresses(tx: Scoped, slice: RowSlice, kind: (typeof MORE_ADDRESSES)[number]): Promise<void> {
    await tx.execute(
      `INSERT IGNORE INTO supporter_contact
        (organization_id, supporter_id, contact_point_id, kind, position, batch_id)
        SELECT
        STRAIGHT_JOIN :org, r.supporter_id, cp.id, cp.kind, 2 + m.n, r.batch_id
        FROM batch_row r ${MORE} AND m.kind = '${kind}'
        ${POINTS} cp.organization_id = :org AND cp.kind = '${kind}' AND cp.normal = ${FURTHER}
        WHERE ${COMES}`,
      slice,
    );
  }
}
