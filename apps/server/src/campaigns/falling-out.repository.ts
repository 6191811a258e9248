import { Inject, Injectable } from '@nestjs/common';
import { fallOf, type Fall, type RosterFacts } from '@goodword/core/campaigns';
import type { Scoped } from '../platform/scoped';
import { StepsRepository, type CampaignFrame } from './steps.repository';

/** For more people than these everybody's facts are read, which is one statement each. */
const NAMED = 5000;

const NOTHING: RosterFacts = { stage: null, takenOff: false, given: 0, replied: false, left: false };

/**
 * Who is out of a campaign by now: the facts of each, and what the core says of them. Asked wherever a step
 * is counted, written down or handed over. Owns `campaign_off`.
 */
@Injectable()
export class FallingOutRepository {
  constructor(@Inject(StepsRepository) private readonly steps: StepsRepository) {}

  /** Those of these people who are out of the campaign of a step; nobody where the message is none. */
  async ofMessage(db: Scoped, messageId: number, ids: readonly number[]): Promise<Map<number, Fall>> {
    const step = await this.steps.of(db, messageId);
    return step ? this.of(db, step, ids) : new Map();
  }

  async of(db: Scoped, campaign: CampaignFrame, ids: readonly number[]): Promise<Map<number, Fall>> {
    const facts = await this.facts(db, campaign, ids);
    const out = new Map<number, Fall>();
    for (const id of ids) {
      const fall = fallOf(campaign.ends, facts.get(id) ?? NOTHING);
      if (fall) out.set(id, fall);
    }
    return out;
  }

  private async facts(
    db: Scoped,
    { campaignId, firstDay, appealCode }: CampaignFrame,
    ids: readonly number[],
  ): Promise<Map<number, RosterFacts>> {
    const some = ids.length <= NAMED;
    const named = (column: string) => (some ? `AND ${column} IN (:ids)` : '');
    const facts = new Map<number, RosterFacts>();
    if (ids.length === 0) return facts;
    const put = (id: number, part: Partial<RosterFacts>) =>
      facts.set(id, { ...(facts.get(id) ?? NOTHING), ...part });
    const bindings = { ...(some && { ids }), campaignId };
    const [standing, off, gifts, acts] = await Promise.all([
      db.sql<{ id: number; stage: string }>(
        `SELECT supporter_id AS id, stage
          FROM roster
          WHERE organization_id = :org AND campaign_id = :campaignId ${named('supporter_id')}`,
        bindings,
      ),
      db.sql<{ id: number }>(
        `SELECT supporter_id AS id
          FROM campaign_off
          WHERE organization_id = :org AND campaign_id = :campaignId ${named('supporter_id')}`,
        bindings,
      ),
      db.sql<{ id: number; given: string }>(
        `SELECT supporter_id AS id, SUM(amount) AS given
          FROM gift
          WHERE organization_id = :org AND (given_on >= :firstDay OR appeal = :code) ${named('supporter_id')}
          GROUP BY supporter_id`,
        { ...(some && { ids }), firstDay, code: appealCode },
      ),
      db.sql<{ id: number; replied: number; left_it: number }>(
        `SELECT d.supporter_id AS id, MAX(d.replied) AS replied, MAX(d.left_it) AS left_it
          FROM campaign_step s
          JOIN delivery d ON d.message_id = s.message_id AND (d.replied = 1 OR d.left_it = 1)
          WHERE s.organization_id = :org AND s.campaign_id = :campaignId ${named('d.supporter_id')}
          GROUP BY d.supporter_id`,
        bindings,
      ),
    ]);
    for (const { id, stage } of standing) put(id, { stage });
    for (const { id } of off) put(id, { takenOff: true });
    for (const { id, given } of gifts) put(id, { given: Number(given) });
    for (const { id, replied, left_it } of acts) put(id, { replied: replied === 1, left: left_it === 1 });
    return facts;
  }

  /** Whoever is taken off by hand does not come back by themselves. */
  async tookOff(tx: Scoped, campaignId: number, ids: readonly number[]): Promise<void> {
    await tx.insertAll(
      'campaign_off',
      ['campaign_id', 'supporter_id'],
      ids.map((id) => [campaignId, id]),
      true,
    );
  }

  async forget(tx: Scoped, campaignId: number): Promise<void> {
    await tx.table('campaign_off').where('campaign_off.campaign_id', campaignId).delete();
  }
}
