import { Injectable } from '@nestjs/common';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export type EvidenceRow = Pick<Tables['evidence'], 'id' | 'name' | 'mime' | 'bytes' | 'storage_key'>;

/** Files that show what somebody signed. Owns `evidence`. */
@Injectable()
export class EvidenceRepository {
  async add(
    tx: Scoped,
    file: {
      supporterId: number;
      name: string;
      mime: string;
      bytes: number;
      sha256: string;
      storageKey: string;
    },
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
    return db.sql<EvidenceRow>(
      `SELECT id, name, mime, bytes, storage_key
        FROM evidence
        WHERE organization_id = :org AND supporter_id = :supporterId AND storage_key IS NOT NULL`,
      {
        supporterId,
      },
    );
  }

  async find(db: Scoped, supporterId: number, id: number): Promise<EvidenceRow | undefined> {
    return (await this.of(db, supporterId)).find((row) => row.id === id);
  }
}
