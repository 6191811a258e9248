import type { SendingChannel } from '@goodword/core/permission';
import type { Scoped } from '../../platform/scoped';

/** What the staged rows of a batch hold, so that statements over what is not there are left out. */
export interface BatchContents {
  /** Kinds of what stands beside the rows, and the addresses of the rows themselves. */
  more: ReadonlySet<string>;
  own: ReadonlySet<'email' | 'mobile'>;
  /** Of the addresses of the rows themselves, the kinds of which any was on file before. */
  onFile: ReadonlySet<'email' | 'mobile'>;
  values: boolean;
  updates: boolean;
  /** Channels that some row says no to. */
  refuses: ReadonlySet<SendingChannel>;
}

/** Of a batch of which nobody has asked: nothing is left out. */
export const ANYTHING: BatchContents = {
  more: { has: () => true } as unknown as ReadonlySet<string>,
  own: new Set(['email', 'mobile']),
  onFile: new Set(['email', 'mobile']),
  values: true,
  updates: true,
  refuses: new Set(['email', 'text']),
};

/** Asked once for a batch, since it goes through all of its rows. */
export async function contentsOf(db: Scoped, batchId: number): Promise<BatchContents> {
  const of = { batchId };
  const more = await db.sql<{ kind: string }>(
    'SELECT DISTINCT kind FROM batch_more WHERE organization_id = :org AND batch_id = :batchId',
    of,
  );
  const [row] = await db.sql<
    Record<'email' | 'mobile' | 'updates' | 'vals' | 'no_email' | 'no_text', number | null>
  >(
    `SELECT MAX(r.email IS NOT NULL) AS email, MAX(r.mobile IS NOT NULL) AS mobile,
      MAX(r.verdict = 'update') AS updates,
        MAX(r.email_says = 0) AS no_email, MAX(r.text_says = 0) AS no_text,
        EXISTS (SELECT 1 FROM batch_value v WHERE v.organization_id = :org AND v.batch_id = :batchId) AS vals
      FROM batch_row r WHERE r.organization_id = :org AND r.batch_id = :batchId`,
    of,
  );
  const those = <K extends string>(some: Record<K, number | null | undefined>): Set<K> =>
    new Set((Object.keys(some) as K[]).filter((key) => Number(some[key]) === 1));
  return {
    more: new Set(more.map(({ kind }) => kind)),
    own: those({ email: row?.email, mobile: row?.mobile }),
    onFile: ANYTHING.onFile,
    values: Number(row?.vals) === 1,
    updates: Number(row?.updates) === 1,
    refuses: those({ email: row?.no_email, text: row?.no_text }),
  };
}

/**
 * The same, of rows none of which is in yet: whether any of their addresses is on file. A file of strangers
 * is looked up once for that, and not once more for each thing that is counted of it.
 */
export async function contentsBefore(db: Scoped, batchId: number): Promise<BatchContents> {
  const contents = await contentsOf(db, batchId);
  const onFile = new Set<'email' | 'mobile'>();
  for (const kind of contents.own) {
    const [any] = await db.sql(
      `SELECT STRAIGHT_JOIN 1 FROM batch_row r
        JOIN contact_point cp FORCE INDEX (by_normal) ON cp.organization_id = :org AND cp.kind = '${kind}'
        AND cp.normal = r.${kind}
        WHERE r.organization_id = :org AND r.batch_id = :batchId LIMIT 1`,
      { batchId },
    );
    if (any) onFile.add(kind);
  }
  return { ...contents, onFile };
}
