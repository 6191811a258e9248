import { Injectable } from '@nestjs/common';
import type { Channel } from '@goodword/core/permission';
import type { Scoped } from '../platform/database';

export interface EvidenceRow {
  id: number;
  name: string;
  mime: string;
  bytes: number;
  storage_key: string | null;
}

/** Files that show what somebody signed, and what was sent on the strength of an entry. */
@Injectable()
export class EvidenceRepository {
  async add(
    tx: Scoped,
    file: { supporterId: number; name: string; mime: string; bytes: number; sha256: string; storageKey: string },
  ): Promise<number> {
    return tx.insert('evidence', {
      supporter_id: file.supporterId,
      name: file.name.slice(0, 200),
      mime: file.mime,
      bytes: file.bytes,
      sha256: file.sha256,
      storage_key: file.storageKey,
      added_by: tx.scope.actorId,
    });
  }

  async of(db: Scoped, supporterId: number): Promise<EvidenceRow[]> {
    return db.sql<EvidenceRow>('SELECT * FROM evidence WHERE organization_id = :org AND supporter_id = :supporterId AND storage_key IS NOT NULL', {
      supporterId,
    });
  }

  async find(db: Scoped, supporterId: number, id: number): Promise<EvidenceRow | undefined> {
    return (await this.of(db, supporterId)).find((row) => row.id === id);
  }

  /** Messages that rested on an entry of the person. */
  async sentOn(
    db: Scoped,
    supporterId: number,
  ): Promise<{ entry_id: number; name: string; channel: Channel; sent_at: Date | null; state: string }[]> {
    return db.sql(
      `SELECT d.entry_id, m.name, d.channel, d.sent_at, d.state FROM delivery d JOIN message m ON m.id = d.message_id
        WHERE d.organization_id = :org AND d.supporter_id = :supporterId AND d.entry_id IS NOT NULL AND d.state IN ('sent', 'delivered', 'bounced', 'unsure') ORDER BY d.sent_at DESC`,
      { supporterId },
    );
  }
}
