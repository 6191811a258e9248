import { Injectable } from '@nestjs/common';
import { usualEnds, type CampaignEnds, type CampaignKind, type StepTime } from '@goodword/core/campaigns';
import { GOING_STATES, type MessageState } from '@goodword/core/contract';
import type { Channel } from '@goodword/core/permission';
import { mapLines, type Line, type Rule } from '@goodword/core/segment';
import type { Bound, Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

/** What a campaign says for all its steps. */
export interface CampaignFrame {
  campaignId: number;
  kind: CampaignKind;
  /** Whose people it is for; null for those of all. */
  chapterId: number | null;
  name: string;
  stages: readonly string[];
  firstDay: number | null;
  appealCode: string | null;
  ends: CampaignEnds;
  joinsFrom: number | null;
}

/** A step, with what its campaign says for it. */
export interface StepOfCampaign extends CampaignFrame, StepTime {
  messageId: number;
  ownTime: boolean;
  rule: Rule | null;
}

/** A step as the plan lists it. */
export interface StepRow extends Pick<
  Tables['campaign_step'],
  'message_id' | 'campaign_id' | 'day' | 'minutes' | 'own_time'
> {
  rule: Rule | null;
  name: string;
  channel: Channel;
  state: MessageState;
  group_version: number;
}

const FRAME = `c.id AS campaign_id, c.chapter_id, c.name, c.kind, c.stages, c.first_day, c.appeal_code,
          c.ends_for, c.ends_at, c.joins_from`;

type FrameRow = Pick<
  Tables['campaign'],
  'chapter_id' | 'name' | 'stages' | 'first_day' | 'appeal_code' | 'ends_for' | 'ends_at' | 'joins_from'
> & { campaign_id: number; kind: CampaignKind };

function frameOf(row: FrameRow): CampaignFrame {
  const usual = usualEnds(row.kind, row.stages);
  return {
    campaignId: row.campaign_id,
    kind: row.kind,
    chapterId: row.chapter_id,
    name: row.name,
    firstDay: row.first_day,
    appealCode: row.appeal_code,
    stages: row.stages,
    ends: {
      causes: row.ends_for ?? usual.causes,
      stages: row.ends_at ?? usual.stages,
      joins: row.joins_from !== null,
    },
    joinsFrom: row.joins_from,
  };
}

/** Steps of campaigns, and what their campaign says for them. Owns `campaign_step`. */
@Injectable()
export class StepsRepository {
  /** The step that a message is; undefined for one that is none. */
  async of(db: Scoped, messageId: number): Promise<StepOfCampaign | undefined> {
    const [row] = await db.sql<
      FrameRow & Pick<StepRow, 'message_id' | 'day' | 'minutes' | 'own_time' | 'rule'>
    >(
      `SELECT ${FRAME}, s.message_id, s.day, s.minutes, s.own_time, s.rule
        FROM campaign_step s
        JOIN campaign c ON c.id = s.campaign_id
        WHERE s.organization_id = :org AND s.message_id = :messageId`,
      { messageId },
    );
    if (!row) return undefined;
    const { message_id, day, minutes, own_time, rule } = row;
    return { ...frameOf(row), ...{ messageId: message_id, day, minutes, ownTime: own_time === 1, rule } };
  }

  async frame(db: Scoped, campaignId: number): Promise<CampaignFrame | undefined> {
    const [row] = await db.sql<FrameRow>(
      `SELECT ${FRAME} FROM campaign c WHERE c.organization_id = :org AND c.id = :campaignId`,
      { campaignId },
    );
    return row && frameOf(row);
  }

  /** The other appeals of which a step is set going and not over. */
  async otherAppeals(db: Scoped, campaignId: number): Promise<CampaignFrame[]> {
    const rows = await db.sql<FrameRow>(
      `SELECT ${FRAME}
        FROM campaign c
        WHERE c.organization_id = :org AND c.kind = 'appeal' AND c.id <> :campaignId
          AND EXISTS (SELECT 1 FROM campaign_step s
            JOIN message m ON m.id = s.message_id
              AND m.state IN (:going)
            WHERE s.campaign_id = c.id)`,
      { campaignId, going: GOING_STATES },
    );
    return rows.map(frameOf);
  }

  async all(db: Scoped, campaignId: number): Promise<StepRow[]> {
    return db.sql<StepRow>(
      `SELECT s.message_id, s.campaign_id, s.day, s.minutes, s.own_time, s.rule, m.name, m.channel, m.state,
          m.group_version
        FROM campaign_step s
        JOIN message m ON m.id = s.message_id
        WHERE s.organization_id = :org AND s.campaign_id = :campaignId`,
      { campaignId },
    );
  }

  /** To how many each of these messages has gone. */
  async went(db: Scoped, messageIds: readonly number[]): Promise<Map<number, number>> {
    if (messageIds.length === 0) return new Map();
    const rows = await db.sql<{ id: number; n: number }>(
      `SELECT message_id AS id, COUNT(*) AS n
        FROM delivery
        WHERE organization_id = :org AND message_id IN (:messageIds) AND sent_at IS NOT NULL
        GROUP BY message_id`,
      { messageIds },
    );
    return new Map(rows.map(({ id, n }) => [id, Number(n)]));
  }

  async add(tx: Scoped, campaignId: number, messageId: number, time: StepTime & { ownTime: boolean }) {
    await tx.insert('campaign_step', {
      ...{ message_id: messageId, campaign_id: campaignId, day: time.day, minutes: time.minutes },
      own_time: Number(time.ownTime),
    });
    // To those of the campaign's chapter, whoever adds it.
    await tx.execute(
      `UPDATE message m
        JOIN campaign c ON c.id = :campaignId
        SET m.chapter_id = c.chapter_id
        WHERE m.organization_id = :org AND m.id = :messageId`,
      { campaignId, messageId },
    );
  }

  async change(
    tx: Scoped,
    messageId: number,
    step: StepTime & { ownTime: boolean; rule: Rule | null },
  ): Promise<void> {
    await this.put(tx, messageId, {
      ...{ day: step.day, minutes: step.minutes, own_time: Number(step.ownTime) },
      rule: step.rule && JSON.stringify(step.rule),
    });
  }

  private async put(tx: Scoped, messageId: number, values: Record<string, Bound>): Promise<void> {
    await tx.table('campaign_step').where('campaign_step.message_id', messageId).update(values);
  }

  /** All of them go with their campaign; their messages stay. */
  async removeAll(tx: Scoped, campaignId: number): Promise<void> {
    await tx.table('campaign_step').where('campaign_step.campaign_id', campaignId).delete();
  }

  async remove(tx: Scoped, messageId: number): Promise<void> {
    await tx.table('campaign_step').where('campaign_step.message_id', messageId).delete();
  }

  /** Conditions of steps that have not left, with whose they are. */
  async waiting(db: Scoped): Promise<{ id: number; name: string; chapter_id: number | null; rule: Rule }[]> {
    return db.sql(
      `SELECT m.id, m.name, m.chapter_id, s.rule
        FROM campaign_step s
        JOIN message m ON m.id = s.message_id AND m.state IN ('draft', 'scheduled', 'preparing')
        WHERE s.organization_id = :org AND s.rule IS NOT NULL`,
    );
  }

  /** Campaigns whose rosters fill themselves, with their segments. */
  async joining(
    db: Scoped,
  ): Promise<{ id: number; name: string; chapter_id: number | null; joins_from: number }[]> {
    return db.sql(
      `SELECT id, name, chapter_id, joins_from
        FROM campaign
        WHERE organization_id = :org AND joins_from IS NOT NULL`,
    );
  }

  /** Writes the lines of conditions anew, where what they name is another now. */
  async rewrite(tx: Scoped, anew: (line: Line) => Line): Promise<void> {
    for (const { id, rule } of await this.waiting(tx.ofAll())) {
      const changed = JSON.stringify(mapLines(rule, anew));
      if (changed !== JSON.stringify(rule)) await this.put(tx, id, { rule: changed });
    }
  }
}
