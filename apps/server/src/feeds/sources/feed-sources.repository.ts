import { Injectable } from '@nestjs/common';
import type { SourceKind } from '@goodword/core/contract';
import type { Bound, Scoped } from '../../platform/scoped';

/** A system that feeds take from, as it is kept. */
export interface FeedSourceRow {
  id: number;
  version: number;
  name: string;
  kind: SourceKind;
  url: string;
  /** Wrapped by the secret; null where it asks for none. */
  token: string | null;
  feeds: number;
}

/** Systems that feeds take from. Owns `feed_source`. */
@Injectable()
export class FeedSourcesRepository {
  async all(db: Scoped): Promise<FeedSourceRow[]> {
    return db.sql(
      `SELECT s.id, s.version, s.name, s.kind, s.url, s.token, COUNT(f.id) AS feeds
        FROM feed_source s
        LEFT JOIN feed f ON f.source_id = s.id
        WHERE s.organization_id = :org
        GROUP BY s.id
        ORDER BY s.name
        LIMIT 200`,
    );
  }

  async find(db: Scoped, id: number): Promise<FeedSourceRow | undefined> {
    const [row] = await db.sql<FeedSourceRow>(
      `SELECT s.id, s.version, s.name, s.kind, s.url, s.token, COUNT(f.id) AS feeds
        FROM feed_source s
        LEFT JOIN feed f ON f.source_id = s.id
        WHERE s.organization_id = :org AND s.id = :id
        GROUP BY s.id`,
      { id },
    );
    return row;
  }

  async make(tx: Scoped, values: Record<'name' | 'kind' | 'url' | 'token', string | null>): Promise<number> {
    return tx.insert('feed_source', values);
  }

  async change(tx: Scoped, id: number, values: Record<string, Bound>): Promise<void> {
    await tx.table('feed_source').where('feed_source.id', id).update(values);
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    await tx.table('feed_source').where('feed_source.id', id).delete();
  }
}
