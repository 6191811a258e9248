import { Injectable } from '@nestjs/common';
import { isoDay } from '@goodword/core/common';
import type { Channel } from '@goodword/core/permission';
import type { Scoped } from '../../platform/scoped';

/** What a row of a file says on a channel; `at` is the address in its normal form, null for the person. */
export interface RowSays {
  row: number;
  channel: Channel;
  scope: string;
  state: 'yes' | 'no' | 'asked';
  at: string | null;
  on: string;
  words: string;
}

/** The day of a moment, as the ledger counts days. */
export const dayOfMoment = (at: number) => isoDay(Math.floor(at / 86_400_000));

/** Entries by the rows of files that they came from. */
@Injectable()
export class BatchEntriesRepository {
  async ofRows(db: Scoped, batchId: number, rows: readonly number[]): Promise<RowSays[]> {
    const entries = await db.sql<Omit<RowSays, 'on'> & { saidAt: Date }>(
      `SELECT e.batch_row AS \`row\`, e.channel, e.scope, e.state, cp.normal AS at, e.said_at AS saidAt,
          e.words
        FROM permission_entry e
        LEFT JOIN contact_point cp ON cp.id = e.contact_point_id
        WHERE e.organization_id = :org AND e.batch_id = :batchId AND e.batch_row IN (:rows)
        ORDER BY e.id`,
      { batchId, rows },
    );
    return entries.map(({ saidAt, ...entry }) => ({ ...entry, on: dayOfMoment(saidAt.getTime()) }));
  }
}
