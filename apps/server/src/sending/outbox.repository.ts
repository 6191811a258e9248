import { decentMoment } from '../permission/decent-moment';
import { Inject, Injectable } from '@nestjs/common';
import { isHandedOver, type Place, type Verdict } from '@goodword/core/permission';
import { FALL_WORDS } from '@goodword/core/words';
import { retryAfter, type DeliveryFault } from '@goodword/core/delivery';
import { FactsRepository, type EligibilityQuery } from '../permission/ledger/facts.repository';
import { Database } from '../platform/database';
import type { Tables } from '../platform/tables/generated';
import { type Scoped, rowsOf } from '../platform/scoped';
import type { HandOver } from '../platform/mail-out';
import type { AccessScope } from '../platform/scope';
import { addEvents, WAITS_FOR_HOUR } from './delivery-events';
import type { Fall } from '@goodword/core/campaigns';
import { AutomationsRepository, type Automation } from '../automations/automations.repository';
import { VisitsRepository } from '../automations/visits.repository';
import { FallingOutRepository } from '../campaigns/falling-out.repository';
import { StepsRepository, type CampaignFrame } from '../campaigns/steps.repository';
import { DeliveryFaultsRepository } from './delivery-faults.repository';
import { type LeasedDelivery } from './leases.repository';

/** What became of one hand-over, to be written down. */
export interface DeliveryOutcome {
  delivery: LeasedDelivery;
  result: HandOver;
}

interface AtDoor {
  id: number;
  verdict: Verdict;
  /** More of why not, where the verdict does not say it all. */
  why: string | null;
  place: Place;
}

interface AtDoorRow {
  id: number;
  supporterId: number;
  contactPointId: number;
  occasion: number;
}

/** What a message belongs to, which may have ended for somebody. */
export interface AtDoorBeside {
  campaign?: CampaignFrame | null;
  automation?: Automation | null;
  /** Who is excepted by the sentence of the automatic message, as of now. */
  excepted?: ReadonlySet<number>;
}

/** So often a mail is tried again that a server refused for who sends it. */
const POLICY_TRIES = 3;

/** For `due`: a message is going out, or a worker has left deliveries behind. */
export const DELIVERIES_DUE = `SELECT 'deliveries' AS due
  FROM DUAL
  WHERE EXISTS (SELECT 1 FROM message WHERE state = 'sending')
  OR EXISTS (SELECT 1 FROM delivery
    WHERE state IN ('leased', 'in-flight') AND lease_until < UTC_TIMESTAMP(3))`;

/**
 * Hand-over's view of the outbox: the decision at the door, and what came of it. Owns `delivery` on its way,
 * `delivery_event`; leases of it are taken by `LeasesRepository`.
 */
@Injectable()
export class OutboxRepository {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(DeliveryFaultsRepository) private readonly faults: DeliveryFaultsRepository,
    @Inject(StepsRepository) private readonly steps: StepsRepository,
    @Inject(FallingOutRepository) private readonly fallingOut: FallingOutRepository,
    @Inject(AutomationsRepository) private readonly automations: AutomationsRepository,
    @Inject(VisitsRepository) private readonly visits: VisitsRepository,
  ) {}

  /** Messages that are going out, in any organization. */
  async sendingMessages(): Promise<
    Pick<Tables['message'], 'id' | 'organization_id' | 'chapter_id' | 'personal_to' | 'channel'>[]
  > {
    // A word to one person goes before a mailing: each has its turn, and the short ones first.
    return await rowsOf(this.database.unscoped(), 'message')
      .where('state', 'sending')
      .orderByRaw('personal_to IS NULL, id')
      .select('id', 'organization_id', 'chapter_id', 'personal_to', 'channel');
  }

  /**
   * Which of these numbers of these people has had a text in the present span of so many days: the first of
   * each span says how to end texts, so that every later one has such a one at most so many days before it.
   */
  async textedInSpan(db: Scoped, slice: readonly LeasedDelivery[], days: number): Promise<Set<number>> {
    if (slice.length === 0) return new Set();
    const rows = await db.sql<{ id: number }>(
      `SELECT DISTINCT d.contact_point_id AS id
        FROM delivery d
        JOIN message m ON m.id = d.message_id AND m.channel = 'text'
        WHERE d.organization_id = :org AND d.supporter_id IN (:people) AND d.sent_at >= :begins`,
      {
        people: slice.map((one) => one.supporter_id),
        begins: new Date(Date.now() - (Date.now() % (days * 86_400_000))),
      },
    );
    return new Set(rows.map(({ id }) => id));
  }

  /**
   * The moment of hand-over, for a few deliveries at once: decides again from the state of now. Those who may
   * still be written to are marked as under way; those for whom it is not a decent hour wait for one; the
   * others are held at the door, and a paused message's go back. Only what this worker holds is looked at.
   * What it has marked already counts as marked: the answer of that commit was lost, and the delivery still
   * waits here.
   */
  async door(
    tx: Scoped,
    worker: string,
    messageId: number,
    ids: readonly number[],
    asking: EligibilityQuery & AtDoorBeside,
    homeZone: string,
  ): Promise<Set<number>> {
    const [message] = await tx.sql<{ state: string }>(
      'SELECT state FROM message WHERE organization_id = :org AND id = :messageId',
      { messageId },
    );
    if (message?.state !== 'sending') {
      const state = message?.state === 'stopped' ? 'stopped' : 'ready';
      await tx.execute(
        `UPDATE delivery
          SET state = :state, leased_by = NULL
          WHERE organization_id = :org AND id IN (:ids) AND leased_by = :worker
            AND state IN ('leased', 'in-flight')`,
        { ids, state, worker },
      );
      return new Set();
    }
    // Held until the end of the transaction: a lease that ran out while the database was away may be another
    // worker's by now, and what this one saw before would let a mail go twice.
    const leased = await tx.sql<AtDoorRow>(
      `SELECT id, supporter_id AS supporterId, contact_point_id AS contactPointId, occasion FROM delivery
        WHERE organization_id = :org AND id IN (:ids) AND leased_by = :worker
        AND state IN ('leased', 'in-flight') FOR UPDATE`,
      { ids, worker },
    );
    if (leased.length === 0) return new Set();
    const decided = await this.facts.decideAt(tx, leased, { ...asking, messageId });
    const fell = await this.fellOut(tx, leased, asking);
    const rows = leased.map(({ id }, i): AtDoor => {
      const { decision, place } = decided[i]!;
      const fall = fell.get(id);
      if (fall) return { id, verdict: 'fell-out', why: FALL_WORDS[fall], place };
      return { id, verdict: decision.verdict, why: null, place };
    });
    const sending = rows.filter((row) => row.verdict === 'send');
    const go = await this.atDecentHours(tx, sending, asking, homeZone);
    if (go.length > 0)
      await tx.execute(
        "UPDATE delivery SET state = 'in-flight' WHERE organization_id = :org AND id IN (:go)",
        { go },
      );
    for (const refused of rows.filter((row) => row.verdict !== 'send')) {
      await tx.execute(
        `UPDATE delivery
          SET state = 'door', door_verdict = :verdict, detail = :why, leased_by = NULL
          WHERE organization_id = :org AND id = :id`,
        { id: refused.id, verdict: refused.verdict, why: refused.why },
      );
      await addEvents(tx, [refused.id], 'door', '');
    }
    return new Set(go);
  }

  /** What a campaign says for a message that is a step of it. */
  async campaignOf(db: Scoped, messageId: number): Promise<CampaignFrame | null> {
    return (await this.steps.of(db, messageId)) ?? null;
  }

  /** The automatic message that a message is one of. */
  async automationOf(db: Scoped, messageId: number): Promise<Automation | null> {
    return (await this.automations.ofMessage(db, messageId)) ?? null;
  }

  /** By delivery: who is out of the campaign, or of the automatic message, that it belongs to. */
  private async fellOut(
    tx: Scoped,
    leased: readonly AtDoorRow[],
    { campaign = null, automation = null, excepted }: AtDoorBeside,
  ): Promise<Map<number, Fall>> {
    const fell = new Map<number, Fall>();
    if (!campaign && !automation) return fell;
    const people = leased.map(({ supporterId }) => supporterId);
    const outOf = campaign ? await this.fallingOut.of(tx, campaign, people) : new Map<number, Fall>();
    const occasions = leased.map(({ occasion }) => occasion);
    const ended = automation ? await this.visits.fellOut(tx, automation, occasions) : new Map<number, Fall>();
    for (const { id, supporterId, occasion } of leased) {
      const fall =
        outOf.get(supporterId) ??
        ended.get(occasion) ??
        (excepted?.has(supporterId) ? ('excepted' as const) : undefined);
      if (fall) fell.set(id, fall);
    }
    return fell;
  }

  /** Those for whom it is a decent hour where they are; the others wait for the next one. */
  private async atDecentHours(
    tx: Scoped,
    rows: readonly AtDoor[],
    asking: EligibilityQuery,
    homeZone: string,
  ): Promise<number[]> {
    const { channel } = asking;
    if (!isHandedOver(channel)) return rows.map((row) => row.id);
    const now = asking.now.getTime();
    const go: number[] = [];
    const waiting = new Map<number, number[]>();
    for (const row of rows) {
      const at = decentMoment(channel, row.place, { rules: asking.rules, homeZone }, now);
      if (at === now) go.push(row.id);
      else waiting.set(at, [...(waiting.get(at) ?? []), row.id]);
    }
    for (const [at, ids] of waiting) {
      await tx.execute(
        `UPDATE delivery
          SET state = 'ready', leased_by = NULL, not_before = :at,
            detail = :waits
          WHERE organization_id = :org AND id IN (:ids)`,
        { at: new Date(at), ids, waits: WAITS_FOR_HOUR },
      );
    }
    return go;
  }

  async record(tx: Scoped, outcomes: readonly DeliveryOutcome[]): Promise<void> {
    const sent = outcomes
      .filter((outcome) => outcome.result.kind === 'accepted')
      .map((outcome) => outcome.delivery.id);
    if (sent.length > 0) {
      // Only what is not recorded yet: after a commit whose answer was lost, the same outcomes come a second
      // time.
      const open = "organization_id = :org AND id IN (:sent) AND state IN ('in-flight', 'unsure')";
      await tx.execute(
        `INSERT INTO delivery_event (organization_id, delivery_id, message_id, supporter_id, kind)
          SELECT organization_id, id, message_id, supporter_id, 'sent'
          FROM delivery
          WHERE ${open}`,
        { sent },
      );
      await tx.execute(
        `UPDATE delivery
          SET state = 'sent', sent_at = UTC_TIMESTAMP(3), leased_by = NULL, detail = NULL
          WHERE ${open}`,
        { sent },
      );
    }
    for (const outcome of outcomes) await this.recordOther(tx, outcome);
  }

  private async recordOther(tx: Scoped, { delivery, result }: DeliveryOutcome): Promise<void> {
    switch (result.kind) {
      case 'accepted':
        return;
      case 'unreachable':
        return this.again(tx, delivery, delivery.attempts, 3, result.detail);
      case 'unsure':
        return this.settle(tx, delivery.id, 'unsure', result.detail);
      case 'refused': {
        const wait = result.permanent ? null : retryAfter(delivery.attempts);
        if (wait !== null) return this.again(tx, delivery, delivery.attempts + 1, wait * 60, result.detail);
        // For who we are: nobody is lost by it while somebody mends that.
        if (result.fault === 'policy' && delivery.attempts < POLICY_TRIES) {
          await this.again(tx, delivery, delivery.attempts + 1, 3600, result.detail, 'policy');
          return this.faults.follow(tx, { ...delivery, ...result });
        }
        return this.refused(tx, delivery, result);
      }
    }
  }

  /** Refused for good: what follows is by what it was about. */
  private async refused(
    tx: Scoped,
    delivery: LeasedDelivery,
    { fault, detail }: { fault: DeliveryFault; detail: string },
  ): Promise<void> {
    const isAddress = fault === 'address' || fault === 'full';
    await this.settle(tx, delivery.id, isAddress ? 'bounced' : 'failed', detail, fault);
    await this.faults.follow(tx, { ...delivery, fault, detail });
  }

  private async again(
    tx: Scoped,
    delivery: LeasedDelivery,
    attempts: number,
    seconds: number,
    detail: string,
    fault: DeliveryFault | null = null,
  ): Promise<void> {
    await tx.execute(
      `UPDATE delivery
        SET state = 'ready', leased_by = NULL, attempts = :attempts, fault = :fault,
          not_before = UTC_TIMESTAMP(3) + INTERVAL :seconds SECOND, detail = :detail
        WHERE organization_id = :org AND id = :id AND state = 'in-flight'`,
      { id: delivery.id, attempts, seconds, fault, detail: detail.slice(0, 300) },
    );
  }

  private async settle(
    tx: Scoped,
    id: number,
    state: 'unsure' | 'bounced' | 'failed',
    detail: string,
    fault: DeliveryFault | null = null,
  ): Promise<void> {
    await tx.execute(
      `UPDATE delivery
        SET state = :state, leased_by = NULL, detail = :detail, fault = :fault
        WHERE organization_id = :org AND id = :id`,
      {
        id,
        state,
        fault,
        detail: detail.slice(0, 300),
      },
    );
    await addEvents(tx, [id], state, detail);
  }

  /** A message whose last delivery has left is done; an automatic one stands ready for the next. */
  async finish(scope: AccessScope, messageId: number): Promise<void> {
    await this.database.read(scope).execute(
      `UPDATE message m
        SET m.state = IF(EXISTS (SELECT 1 FROM automation_step s WHERE s.message_id = m.id),
          'standing', 'done')
        WHERE m.organization_id = :org AND m.id = :messageId AND m.state = 'sending'
        AND NOT EXISTS (SELECT 1 FROM delivery d
        WHERE d.message_id = m.id AND d.state IN ('ready', 'leased', 'in-flight', 'undecided'))`,
      { messageId },
    );
  }
}
