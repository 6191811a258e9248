import { Injectable } from '@nestjs/common';
import type { CampaignGoal } from '@goodword/core/contract';
import { isoDay } from '@goodword/core/common';
import type { Bound, Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';
import type { CampaignFrame } from '../campaigns/steps.repository';

type GoalRow = Pick<Tables['campaign'], 'goal_kind' | 'goal_amount' | 'goal_by'>;

/** What a campaign wants to reach, and how far it is. */
@Injectable()
export class PlanRepository {
  async goal(db: Scoped, id: number): Promise<CampaignGoal | null> {
    const [row] = await db.sql<GoalRow>(
      'SELECT goal_kind, goal_amount, goal_by FROM campaign WHERE organization_id = :org AND id = :id',
      { id },
    );
    if (!row || row.goal_kind === null || row.goal_amount === null) return null;
    const { goal_kind: kind, goal_amount: amount, goal_by: by } = row;
    return { kind, amount: Number(amount), by: by === null ? null : isoDay(by) };
  }

  /**
   * What has been given to a campaign: with its code, or since its first day by people of its roster whose
   * gift names no other one.
   */
  async given(
    db: Scoped,
    { campaignId, firstDay, appealCode }: CampaignFrame,
  ): Promise<{ people: number; gifts: number; money: number }> {
    const [row] = await db.sql<{ people: number; gifts: number; money: string | null }>(
      `SELECT COUNT(DISTINCT IF(g.amount > 0, g.supporter_id, NULL)) AS people,
          COUNT(IF(g.amount > 0, 1, NULL)) AS gifts, SUM(g.amount) AS money
        FROM gift g
        JOIN supporter s ON s.id = g.supporter_id AND (:chapter IS NULL OR s.chapter_id = :chapter)
        LEFT JOIN roster r ON r.organization_id = g.organization_id AND r.campaign_id = :campaignId
          AND r.supporter_id = g.supporter_id
        WHERE g.organization_id = :org
          AND (g.appeal = :code
            OR (g.given_on >= :firstDay AND COALESCE(g.appeal, '') = '' AND r.supporter_id IS NOT NULL))`,
      { campaignId, firstDay, code: appealCode },
    );
    return { people: row?.people ?? 0, gifts: row?.gifts ?? 0, money: Number(row?.money ?? 0) };
  }

  /**
   * Holds a campaign, so that its day does not change while steps are set going by it; the first statement of
   * its transaction, so that what is read afterwards is of now. Its version.
   */
  async lock(tx: Scoped, id: number): Promise<number | undefined> {
    const [row] = await tx.sql<{ version: number }>(
      'SELECT version FROM campaign WHERE organization_id = :org AND id = :id FOR UPDATE',
      { id },
    );
    return row?.version;
  }

  async save(tx: Scoped, id: number, values: Record<string, Bound>): Promise<void> {
    await tx.ofChapter('campaign').where('campaign.id', id).update(values);
  }

  /** What became of some messages at one person. */
  async cameTo(
    db: Scoped,
    supporterId: number,
    messageIds: readonly number[],
  ): Promise<Map<number, DeliveryOfPerson>> {
    if (messageIds.length === 0) return new Map();
    const rows = await db.sql<DeliveryOfPerson>(
      `SELECT message_id, state, verdict, door_verdict, detail, sent_at, not_before
        FROM delivery
        WHERE organization_id = :org AND supporter_id = :supporterId AND message_id IN (:messageIds)`,
      { supporterId, messageIds },
    );
    return new Map(rows.map((row) => [row.message_id, row]));
  }
}

/** One delivery as the path of a person tells it. */
export type DeliveryOfPerson = Pick<
  Tables['delivery'],
  'message_id' | 'state' | 'verdict' | 'door_verdict' | 'detail' | 'sent_at' | 'not_before'
>;
