import { Injectable } from '@nestjs/common';
import type { CampaignView, RosterRow } from '@goodword/core/contract';
import type { Bound, Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

interface CampaignRow extends Pick<
  Tables['campaign'],
  'id' | 'version' | 'name' | 'appeal_code' | 'is_open' | 'made_at'
> {
  kind: CampaignView['kind'];
  stages: string[];
  made_by_name: string | null;
}

const MINE = '(:chapter IS NULL OR s.chapter_id = :chapter) AND s.erased_at IS NULL';

/** Campaigns with their stages, and who is on their rosters. Owns `campaign`, `roster`. */
@Injectable()
export class CampaignsRepository {
  async all(db: Scoped): Promise<CampaignView[]> {
    const [rows, counts] = await Promise.all([this.select(db, ''), this.counts(db)]);
    return rows.map((row) => view(row, counts));
  }

  async find(db: Scoped, id: number): Promise<CampaignView | undefined> {
    const [[row], counts] = await Promise.all([
      this.select(db, 'AND c.id = :id', { id }),
      this.counts(db, id),
    ]);
    return row && view(row, counts);
  }

  private select(db: Scoped, rest: string, bindings: Record<string, Bound> = {}): Promise<CampaignRow[]> {
    return db.sql<CampaignRow>(
      `SELECT c.id, c.version, c.name, c.kind, c.appeal_code, c.stages, c.is_open, c.made_at,
          t.name AS made_by_name FROM campaign c LEFT JOIN teammate t ON t.id = c.made_by
        WHERE c.organization_id = :org
          AND (:chapter IS NULL OR c.chapter_id IS NULL OR c.chapter_id = :chapter) ${rest}
        ORDER BY c.is_open DESC, c.id DESC`,
      bindings,
    );
  }

  private counts(
    db: Scoped,
    id: number | null = null,
  ): Promise<{ campaign_id: number; stage: string; n: number }[]> {
    // Nobody erased is on a roster, so that people are looked up only for whoever sees those of one chapter.
    const mine = db.scope.chapterId === null ? '' : `JOIN supporter s ON s.id = r.supporter_id AND ${MINE}`;
    return db.sql(
      `SELECT r.campaign_id, r.stage, COUNT(*) AS n FROM roster r ${mine}
        WHERE r.organization_id = :org AND (:id IS NULL OR r.campaign_id = :id)
        GROUP BY r.campaign_id, r.stage`,
      { id },
    );
  }

  async make(
    tx: Scoped,
    campaign: { name: string; kind: string; appealCode: string | null; stages: string[] },
  ): Promise<number> {
    return tx.insert('campaign', {
      chapter_id: tx.scope.chapterId,
      name: campaign.name,
      kind: campaign.kind,
      appeal_code: campaign.appealCode,
      stages: JSON.stringify(campaign.stages),
      made_by: tx.scope.actorId,
    });
  }

  async change(
    tx: Scoped,
    id: number,
    values: Record<string, string | boolean | null | undefined>,
  ): Promise<void> {
    await tx.ofChapter('campaign').where('campaign.id', id).update(values);
  }

  async renameStanding(tx: Scoped, id: number, from: string, to: string): Promise<number> {
    tx.changed('roster', id, 'everybody');
    return tx.execute(
      'UPDATE roster SET stage = :to WHERE organization_id = :org AND campaign_id = :id AND stage = :from',
      { id, from, to },
    );
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    tx.changed('roster', id, 'everybody');
    await tx.execute('DELETE FROM roster WHERE organization_id = :org AND campaign_id = :id', { id });
    await tx.ofChapter('campaign').where('campaign.id', id).delete();
  }

  async roster(
    db: Scoped,
    id: number,
    query: { stage?: string; after: number; limit: number },
  ): Promise<{ rows: RosterRow[]; total: number }> {
    const which = `FROM roster r
      JOIN supporter s ON s.id = r.supporter_id AND ${MINE}
      LEFT JOIN teammate t ON t.id = r.put_by
      LEFT JOIN batch b ON b.id = r.batch_id
      WHERE r.organization_id = :org AND r.campaign_id = :id ${query.stage ? 'AND r.stage = :stage' : ''}`;
    const bindings = { id, stage: query.stage ?? null, after: query.after, limit: query.limit };
    const [count] = await db.sql<{ n: number }>(`SELECT COUNT(*) AS n ${which}`, bindings);
    const rows = await db.sql<{
      id: number;
      first_name: string;
      last_name: string;
      stage: string;
      put_at: Date;
      by_name: string | null;
      batch: string | null;
    }>(
      `SELECT s.id, s.first_name, s.last_name, r.stage, r.put_at, t.name AS by_name, b.name AS batch ${which}
          AND s.id > :after
        ORDER BY s.id
        LIMIT :limit`,
      bindings,
    );
    return {
      total: count?.n ?? 0,
      rows: rows.map((row) => ({
        supporterId: row.id,
        firstName: row.first_name,
        lastName: row.last_name,
        stage: row.stage,
        putAt: row.put_at.toISOString(),
        by: row.batch ? `by the batch “${row.batch}”` : (row.by_name ?? ''),
      })),
    };
  }

  /**
   * Puts people on, or moves those who are on it; of the ids only those that the caller may see. Returns how
   * many changed.
   */
  async put(tx: Scoped, id: number, supporterIds: readonly number[], stage: string): Promise<number> {
    let changed = 0;
    tx.changed('roster', id, supporterIds);
    for (let at = 0; at < supporterIds.length; at += 5000) {
      const affected = await tx.execute(
        `INSERT INTO roster (organization_id, campaign_id, supporter_id, stage, put_by)
          SELECT :org, :id, s.id, :stage, :actor
          FROM supporter s
          WHERE s.organization_id = :org AND ${MINE} AND s.id IN (:ids)
          ON DUPLICATE KEY UPDATE put_at = IF(roster.stage = VALUES(stage), roster.put_at, UTC_TIMESTAMP(3)),
          put_by = IF(roster.stage = VALUES(stage), roster.put_by, VALUES(put_by)),
            batch_id = IF(roster.stage = VALUES(stage), roster.batch_id, NULL), stage = VALUES(stage)`,
        { id, stage, ids: supporterIds.slice(at, at + 5000), actor: tx.scope.actorId },
      );
      changed += affected;
    }
    return changed;
  }

  /** Everybody of a group that the caller may see. */
  async idsIn(db: Scoped, kind: 'list' | 'tag' | 'batch', groupId: number): Promise<number[]> {
    const table = kind === 'batch' ? 'batch_row' : `supporter_${kind}`;
    const rows = await db.sql<{ id: number }>(
      `SELECT DISTINCT s.id
        FROM ${table} g
        JOIN supporter s ON s.id = g.supporter_id AND ${MINE}
        WHERE g.organization_id = :org AND g.${kind}_id = :groupId`,
      { groupId },
    );
    return rows.map((row) => row.id);
  }

  async takeOff(tx: Scoped, id: number, supporterIds: readonly number[]): Promise<number> {
    let changed = 0;
    tx.changed('roster', id, supporterIds);
    for (let at = 0; at < supporterIds.length; at += 5000) {
      changed += await tx.execute(
        `DELETE r
          FROM roster r
          JOIN supporter s ON s.id = r.supporter_id AND (:chapter IS NULL OR s.chapter_id = :chapter)
          WHERE r.organization_id = :org AND r.campaign_id = :id AND r.supporter_id IN (:ids)`,
        { id, ids: supporterIds.slice(at, at + 5000) },
      );
    }
    return changed;
  }

  /** The rosters that somebody is on. */
  async of(
    db: Scoped,
    supporterId: number,
  ): Promise<{ id: number; name: string; stage: string; stages: string[] }[]> {
    return db.sql(
      `SELECT c.id, c.name, r.stage, c.stages
        FROM roster r
        JOIN campaign c ON c.id = r.campaign_id
          AND (:chapter IS NULL OR c.chapter_id IS NULL OR c.chapter_id = :chapter)
        WHERE r.organization_id = :org AND r.supporter_id = :supporterId ORDER BY c.name`,
      { supporterId },
    );
  }
}

function view(
  row: CampaignRow,
  counts: readonly { campaign_id: number; stage: string; n: number }[],
): CampaignView {
  const mine = counts.filter((count) => count.campaign_id === row.id);
  return {
    id: row.id,
    version: row.version,
    name: row.name,
    kind: row.kind,
    appealCode: row.appeal_code,
    stages: row.stages,
    isOpen: row.is_open === 1,
    madeAt: row.made_at.toISOString(),
    madeBy: row.made_by_name ?? '',
    people: mine.reduce((sum, count) => sum + count.n, 0),
    counts: Object.fromEntries(mine.map((count) => [count.stage, count.n])),
  };
}
