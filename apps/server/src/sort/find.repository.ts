import { likeEscape, likeWords } from '../platform/search';
import { Injectable } from '@nestjs/common';
import type { Scoped } from '../platform/scoped';

const MINE = `JOIN supporter_contact sc ON sc.contact_point_id = cp.id
    JOIN supporter s ON s.id = sc.supporter_id AND s.erased_at IS NULL
      AND (:chapter IS NULL OR s.chapter_id = :chapter)`;

/**
 * Finds by what stands in an index: the beginning of an email, the end of a number, a part of a name of a
 * thing.
 */
@Injectable()
export class FindRepository {
  async byEmail(db: Scoped, beginning: string, limit: number): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT DISTINCT s.id
        FROM contact_point cp ${MINE}
        WHERE cp.organization_id = :org AND cp.kind = 'email' AND cp.normal LIKE :like
        LIMIT :limit`,
      { like: `${likeEscape(beginning.toLowerCase())}%`, limit },
    );
    return rows.map(({ id }) => id);
  }

  /**
   * Numbers are kept a second time from their end, so that last digits are the beginning of something too.
   */
  async byDigits(db: Scoped, digits: string, limit: number): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT DISTINCT s.id
        FROM contact_point cp ${MINE}
        WHERE cp.organization_id = :org AND cp.tail LIKE :like
        LIMIT :limit`,
      { like: `${[...digits].reverse().join('')}%`, limit },
    );
    return rows.map(({ id }) => id);
  }

  async things(
    db: Scoped,
    words: string,
    limit: number,
  ): Promise<
    { kind: 'list' | 'tag' | 'segment' | 'campaign' | 'message'; id: number; name: string; state: string }[]
  > {
    const of = (kind: string, state = "''") =>
      `(SELECT '${kind}' AS kind, id, name, ${state} AS state FROM ${kind}
        WHERE organization_id = :org AND (:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter)
        AND name LIKE :like ORDER BY name LIKE :begins DESC, name LIMIT :limit)`;
    const all = [of('list'), of('tag'), of('segment'), of('campaign'), of('message', 'state')];
    return db.sql(all.join(' UNION ALL '), {
      like: likeWords(words),
      begins: `${likeEscape(words)}%`,
      limit,
    });
  }
}
