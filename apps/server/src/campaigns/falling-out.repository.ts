import { Inject, Injectable } from '@nestjs/common';
import { fallOf, isAskedElsewhere, type Claim, type Fall, type RosterFacts } from '@goodword/core/campaigns';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import type { Scoped } from '../platform/scoped';
import { StepsRepository, type CampaignFrame } from './steps.repository';

/** For more people than these everybody's facts are read, which is one statement each. */
const NAMED = 5000;

const NOTHING: RosterFacts = {
  ...{ stage: null, takenOff: false, given: 0, replied: false, left: false, elsewhere: false },
};

/**
 * Who is out of a campaign by now: the facts of each, and what the core says of them. Asked wherever a step
 * is counted, written down or handed over. Owns `campaign_off`.
 */
@Injectable()
export class FallingOutRepository {
  constructor(
    @Inject(StepsRepository) private readonly steps: StepsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
  ) {}

  /** Those of these people who are out of the campaign of a step; nobody where the message is none. */
  async ofMessage(db: Scoped, messageId: number, ids: readonly number[]): Promise<Map<number, Fall>> {
    const step = await this.steps.of(db, messageId);
    return step ? this.of(db, step, ids) : new Map();
  }

  async of(db: Scoped, campaign: CampaignFrame, ids: readonly number[]): Promise<Map<number, Fall>> {
    const elsewhere = await this.elsewhere(db, campaign, ids);
    return this.decided(db, campaign, ids, elsewhere);
  }

  /** Who is out, by what the campaign says itself and who is asked by another one. */
  private async decided(
    db: Scoped,
    campaign: CampaignFrame,
    ids: readonly number[],
    elsewhere: ReadonlySet<number> | null,
  ): Promise<Map<number, Fall>> {
    const facts = await this.facts(db, campaign, ids);
    const ends = { ...campaign.ends, alone: elsewhere !== null };
    const out = new Map<number, Fall>();
    for (const id of ids) {
      const known = facts.get(id) ?? NOTHING;
      const fall = fallOf(ends, elsewhere?.has(id) ? { ...known, elsewhere: true } : known);
      if (fall) out.set(id, fall);
    }
    return out;
  }

  /** Whom another appeal is asking; null where the house does not mind, or where none other is under way. */
  private async elsewhere(
    db: Scoped,
    campaign: CampaignFrame,
    ids: readonly number[],
  ): Promise<Set<number> | null> {
    if (campaign.kind !== 'appeal' || ids.length === 0) return null;
    const others = await this.steps.otherAppeals(db, campaign.campaignId);
    if (others.length === 0 || !(await this.houseRules.rules(db)).oneAppeal) return null;
    const mine = await this.claims(db, campaign.campaignId, ids);
    const elsewhere = new Set<number>();
    for (const other of others) {
      const claims = await this.claims(db, other.campaignId, ids);
      const over = await this.decided(db, other, [...claims.keys()], null);
      for (const [id, claim] of claims)
        if (!over.has(id) && isAskedElsewhere(mine.get(id) ?? null, [claim])) elsewhere.add(id);
    }
    return elsewhere;
  }

  /** What a campaign has come to with each of these people whom a step of it has reached or is to reach. */
  private async claims(db: Scoped, campaignId: number, ids: readonly number[]): Promise<Map<number, Claim>> {
    const some = ids.length <= NAMED;
    const rows = await db.sql<{ id: number; first: number; gone: number }>(
      `SELECT d.supporter_id AS id, MIN(d.id) AS first,
          MAX(d.state NOT IN ('ready', 'leased', 'undecided')) AS gone
        FROM campaign_step s
        JOIN delivery d ON d.message_id = s.message_id
          AND d.state IN ('ready', 'leased', 'undecided', 'in-flight', 'sent', 'delivered', 'unsure')
        WHERE s.organization_id = :org AND s.campaign_id = :campaignId
          ${some ? 'AND d.supporter_id IN (:ids)' : ''}
        GROUP BY d.supporter_id`,
      { ...(some && { ids }), campaignId },
    );
    return new Map(
      rows.map(({ id, first, gone }) => [id, { first: Number(first), gone: Number(gone) === 1 }]),
    );
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
