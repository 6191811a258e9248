import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../platform/database';
import { MailLimitsRepository } from '../limits/mail-limits.repository';
import { rowsOf, type Scoped } from '../platform/scoped';
import type { AccessScope } from '../platform/scope';
import type { Tables } from '../platform/tables/generated';
import { addEvents } from './delivery-events';

export interface LeasedDelivery extends Pick<
  Tables['delivery'],
  'id' | 'supporter_id' | 'provider_key' | 'attempts'
> {
  to_address: string;
  contact_point_id: number;
  /** What it rested on when it was prepared. */
  entry_id: number | null;
  country: string | null;
  region: string | null;
}

/** Room comes as hours pass: whoever found none looks again after so long. */
const ASK_AGAIN_MS = 2_000;

const CUT_OFF = 'The sending process ended while this was under way. It may or may not have gone.';

/**
 * Deliveries taken by a worker for a time, kept, given back, and found again after it died. Owns the lease of
 * a `delivery`.
 */
@Injectable()
export class LeasesRepository {
  /** Until when nobody asks again whether a limit has room, by organization. */
  private readonly asked = new Map<number, number>();

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MailLimitsRepository) private readonly mailLimits: MailLimitsRepository,
  ) {}

  /**
   * Leases the next deliveries of a message that may go now; rows that another worker is leasing are passed
   * over. Of a mailing no more than may leave within the limits of the house; while a domain is made known
   * those who have clicked or replied go first, for providers look at how the first ones are received.
   */
  async lease(
    scope: AccessScope,
    messageId: number,
    worker: string,
    seconds: number,
    size: number,
    isMailing = false,
  ): Promise<LeasedDelivery[]> {
    const limited = isMailing ? await this.mailLimits.limits(this.database.read(scope)) : null;
    if (limited && (this.asked.get(scope.organizationId) ?? 0) > Date.now()) return [];
    return this.database.writeUnlogged(scope, async (tx) => {
      // Before anything is read, so that what another worker took is seen.
      if (limited) await tx.lockOrganization();
      const { left } = limited ? await this.mailLimits.left(tx, limited) : { left: size };
      if (left === 0) {
        this.asked.set(scope.organizationId, Date.now() + ASK_AGAIN_MS);
        return [];
      }
      const most = Math.min(size, left);
      const rows = await this.ready(tx, messageId, most, (limited?.limits.warmUp ?? null) !== null);
      if (rows.length === 0) return [];
      const ids = rows.map((row) => row.id);
      await tx.execute(
        `UPDATE delivery
          SET state = 'leased', leased_by = :worker, lease_until = UTC_TIMESTAMP(3) + INTERVAL :seconds SECOND
          WHERE organization_id = :org AND id IN (:ids)`,
        { worker, seconds, ids },
      );
      const points = await tx.sql<{ id: number; normal: string }>(
        'SELECT id, normal FROM contact_point WHERE organization_id = :org AND id IN (:points)',
        { points: rows.map((row) => row.contact_point_id) },
      );
      const address = new Map(points.map((point) => [point.id, point.normal]));
      const people = await tx.sql<Pick<Tables['supporter'], 'id' | 'country' | 'region'>>(
        'SELECT id, country, region FROM supporter WHERE organization_id = :org AND id IN (:people)',
        { people: rows.map((row) => row.supporter_id) },
      );
      const placeOf = new Map(people.map(({ id, country, region }) => [id, { country, region }]));
      return rows.map((row) => ({
        ...row,
        to_address: address.get(row.contact_point_id) ?? '',
        ...(placeOf.get(row.supporter_id) ?? { country: null, region: null }),
      }));
    });
  }

  private async ready(
    tx: Scoped,
    messageId: number,
    size: number,
    engagedFirst: boolean,
  ): Promise<LeasedDelivery[]> {
    const next = (which: string) =>
      tx.sql<LeasedDelivery>(
        `SELECT d.id, d.supporter_id, d.provider_key, d.attempts, d.contact_point_id, d.entry_id
          FROM delivery d
          WHERE d.organization_id = :org AND d.message_id = :messageId AND d.state = 'ready'
            AND (d.not_before IS NULL OR d.not_before <= UTC_TIMESTAMP(3)) ${which}
          ORDER BY d.id
          LIMIT :size FOR UPDATE SKIP LOCKED`,
        { messageId, size },
      );
    const engaged = engagedFirst
      ? await next(`AND EXISTS (SELECT 1 FROM delivery e
          WHERE e.organization_id = :org AND e.supporter_id = d.supporter_id
            AND (e.clicked = 1 OR e.replied = 1))`)
      : [];
    return engaged.length > 0 ? engaged : next('');
  }

  async renewLeases(scope: AccessScope, worker: string, seconds: number): Promise<void> {
    await this.database.read(scope).execute(
      `UPDATE delivery
          SET lease_until = UTC_TIMESTAMP(3) + INTERVAL :seconds SECOND
          WHERE organization_id = :org AND leased_by = :worker AND state IN ('leased', 'in-flight')`,
      { worker, seconds },
    );
  }

  /**
   * Takes up what a dead worker left. Leased but not begun goes back. Begun texts go back too where the
   * gateway knows their keys; what else was begun may or may not have gone, so it is shown as unsure and
   * never sent again by itself.
   */
  async sweep(canRepeatTexts: boolean): Promise<{ back: number; unsure: number }> {
    const knex = this.database.unscoped();
    const expired = knex.raw('UTC_TIMESTAMP(3)');
    const back = await rowsOf(knex, 'delivery')
      .where('state', 'leased')
      .where('lease_until', '<', expired)
      .update({ state: 'ready', leased_by: null });
    const texts = canRepeatTexts
      ? await rowsOf(knex, 'delivery')
          .where({ state: 'in-flight', channel: 'text' })
          .where('lease_until', '<', expired)
          .update({ state: 'ready', leased_by: null })
      : 0;
    // What came back to a message that was stopped meanwhile stops with it.
    await rowsOf(knex, 'delivery')
      .where('state', 'ready')
      .whereIn('message_id', rowsOf(knex, 'message').where('state', 'stopped').select('id'))
      .update({ state: 'stopped' });
    const unsure = await rowsOf(knex, 'delivery')
      .where('state', 'in-flight')
      .where('lease_until', '<', expired)
      .select('id', 'organization_id');
    for (const row of unsure) {
      const scope: AccessScope = {
        organizationId: row.organization_id,
        chapterId: null,
        actorId: null,
        role: 'owner',
        boundTo: null,
      };
      await this.database.write(scope, async (tx) => {
        const changed = await tx.execute(
          `UPDATE delivery
            SET state = 'unsure', leased_by = NULL, detail = :detail
            WHERE organization_id = :org AND id = :id AND state = 'in-flight'
              AND lease_until < UTC_TIMESTAMP(3)`,
          { id: row.id, detail: CUT_OFF },
        );
        if (changed > 0) await addEvents(tx, [row.id], 'unsure', CUT_OFF);
      });
    }
    return { back: back + texts, unsure: unsure.length };
  }

  /** Gives back what this worker has leased and not begun, until their domain may be asked again. */
  async putOff(scope: AccessScope, worker: string, ids: readonly number[], until: Date): Promise<void> {
    if (ids.length === 0) return;
    await this.database.read(scope).execute(
      `UPDATE delivery
        SET state = 'ready', leased_by = NULL, not_before = :until,
          detail = 'Their mail provider asks for a while'
        WHERE organization_id = :org AND id IN (:ids) AND leased_by = :worker AND state = 'leased'`,
      { worker, ids, until },
    );
  }

  /** Gives back what this worker has leased and not begun: it is stopping. */
  async giveBack(worker: string): Promise<void> {
    await rowsOf(this.database.unscoped(), 'delivery')
      .where({ state: 'leased', leased_by: worker })
      .update({ state: 'ready', leased_by: null });
  }
}
