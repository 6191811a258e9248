import { Injectable } from '@nestjs/common';
import type { FoundProof } from '@goodword/core/proofs';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export interface ProofRow extends Pick<
  Tables['message_proof'],
  'message_id' | 'version' | 'group_version' | 'done' | 'total' | 'began_at' | 'ended_at'
> {
  state: 'waiting' | 'running' | 'done' | 'failed';
  found: FoundProof[] | null;
}

/** What was found of a message's readers. Owns `message_proof`. */
@Injectable()
export class ProofsRepository {
  async find(db: Scoped, messageId: number): Promise<ProofRow | undefined> {
    const [row] = await db.sql<ProofRow>(
      `SELECT message_id, version, group_version, state, done, total, found, began_at, ended_at
        FROM message_proof
        WHERE organization_id = :org AND message_id = :messageId`,
      { messageId },
    );
    return row;
  }

  /** A search begins anew; what was found before goes. */
  async begin(
    tx: Scoped,
    { id, version, group_version: group }: { id: number; version: number; group_version: number },
  ): Promise<void> {
    await tx.execute(
      `REPLACE INTO message_proof
          (organization_id, message_id, version, group_version, state, began_at)
        VALUES (:org, :id, :version, :group, 'waiting', UTC_TIMESTAMP(3))`,
      { id, version, group },
    );
  }

  /** Only of the search for these words and this group; false where another has begun since. */
  async change(
    tx: Scoped,
    { id, version, group_version: group }: { id: number; version: number; group_version: number },
    values: Partial<{ state: ProofRow['state']; done: number; total: number; found: string; ended_at: Date }>,
  ): Promise<boolean> {
    const changed = await tx
      .table('message_proof')
      .where({ message_id: id, version, group_version: group })
      .update(values);
    return changed > 0;
  }
}
