import { Injectable } from '@nestjs/common';
import { dayInZone } from '@goodword/core/common';
import { mailsLeft, type LimitedBy, type MailLimits, type MailsSent } from '@goodword/core/delivery';
import { momentOf } from '@goodword/core/schedule';
import type { Scoped } from '../platform/scoped';

const HOUR_MS = 3_600_000;

/** How much mail may leave now, by what has left in any message of the organization. */
@Injectable()
export class MailLimitsRepository {
  async limits(db: Scoped): Promise<{ limits: MailLimits; zone: string } | null> {
    const [row] = await db.sql<{ mail_limits: MailLimits | null; time_zone: string }>(
      'SELECT mail_limits, time_zone FROM organization WHERE id = :org',
    );
    return row?.mail_limits ? { limits: row.mail_limits, zone: row.time_zone } : null;
  }

  /**
   * How many may leave now; what is under way counts as gone. In a transaction that leases by it the
   * organization is to be locked before, or two workers take the same room.
   */
  async left(
    db: Scoped,
    { limits, zone }: { limits: MailLimits; zone: string },
  ): Promise<{ left: number; by: LimitedBy | null }> {
    const now = new Date();
    return mailsLeft(limits, await this.sentBy(db, zone, now), dayInZone(now.getTime(), zone));
  }

  /** What has left in the spans before a moment that limits are for, or is under way. */
  async sentBy(db: Scoped, zone: string, at: Date): Promise<MailsSent> {
    const now = at.getTime();
    const today = dayInZone(now, zone);
    const midnight = momentOf({ day: today, minutes: 0 }, zone).at;
    const [row] = await db.sql<Record<'hour' | 'day' | 'today' | 'under', number>>(
      `SELECT COUNT(IF(sent_at > :hour, 1, NULL)) AS hour, COUNT(IF(sent_at > :day, 1, NULL)) AS day,
          COUNT(IF(sent_at >= :midnight, 1, NULL)) AS today,
          (SELECT COUNT(*)
            FROM delivery u
            WHERE u.state IN ('leased', 'in-flight') AND u.organization_id = :org
              AND u.channel = 'email') AS under
        FROM delivery
        WHERE organization_id = :org AND channel = 'email' AND sent_at >= :since`,
      {
        ...{ hour: new Date(now - HOUR_MS), day: new Date(now - 24 * HOUR_MS), midnight: new Date(midnight) },
        since: new Date(Math.min(midnight, now - 24 * HOUR_MS)),
      },
    );
    const { hour = 0, day = 0, today: gone = 0, under = 0 } = row ?? {};
    return { hour: Number(hour) + under, day: Number(day) + under, today: Number(gone) + under };
  }
}
