import { Injectable } from '@nestjs/common';
import type { WeekView } from '@goodword/core/contract';
import { startOfDay, type Day } from '@goodword/core/common';
import { USUAL_WEEKS } from '@goodword/core/today';
import { refusalsByWeek } from '../permission/ledger/by-week.sql';
import type { Bound, Scoped } from '../platform/scoped';

export type WeekKind = WeekView['figures'][number]['kind'];
/** How much came in each week, counted from the present one backwards. */
export type ByWeek = Map<number, number>;

/** What came week by week, in half a year; read whole, so rarely. */
@Injectable()
export class WeekRepository {
  async weeks(
    db: Scoped,
    today: Day,
    zone: string,
  ): Promise<{ counts: Record<WeekKind, ByWeek>; lived: number }> {
    const [since, end] = [startOfDay(today + 1 - 7 * (USUAL_WEEKS + 1), zone), startOfDay(today + 1, zone)];
    const times = { since: new Date(since), end: new Date(end) };
    const ofChapter = db.scope.chapterId === null ? '' : 'AND s.chapter_id = :chapter';
    const weekOf = (at: string) => `FLOOR((TIMESTAMPDIFF(SECOND, ${at}, :end) - 1) / 604800)`;
    const person = (of: string) =>
      ofChapter === '' ? '' : `JOIN supporter s ON s.id = ${of}.supporter_id ${ofChapter}`;
    const [joined, left, gave, replied, lived] = await Promise.all([
      grouped(
        db,
        `SELECT ${weekOf('s.created_at')} AS week, COUNT(*) AS n FROM supporter s
          WHERE s.organization_id = :org AND s.created_at >= :since AND s.created_at < :end ${ofChapter}
          GROUP BY week`,
        times,
      ),
      grouped(db, refusalsByWeek(weekOf('e.said_at'), person('e')), times),
      grouped(
        db,
        `SELECT FLOOR((:today - g.given_on) / 7) AS week, SUM(g.amount) AS n FROM gift g ${person('g')}
          WHERE g.organization_id = :org AND g.given_on > :today - :days AND g.given_on <= :today
          GROUP BY week`,
        { today, days: 7 * (USUAL_WEEKS + 1) },
      ),
      grouped(
        db,
        `SELECT ${weekOf('r.at')} AS week, COUNT(*) AS n FROM reply r ${person('r')}
          WHERE r.organization_id = :org AND r.keyword = 'none' AND r.at >= :since AND r.at < :end
          GROUP BY week`,
        times,
      ),
      db.sql<{ weeks: number | null }>(
        `SELECT TIMESTAMPDIFF(DAY, MIN(created_at), :end) / 7 - 1 AS weeks
          FROM supporter
          WHERE organization_id = :org`,
        times,
      ),
    ]);
    return { counts: { joined, left, gave, replied }, lived: Number(lived[0]?.weeks ?? 0) };
  }
}

async function grouped(db: Scoped, text: string, bindings: Record<string, Bound>): Promise<ByWeek> {
  const rows = await db.sql<{ week: number | string; n: number | string }>(text, bindings);
  return new Map(rows.map(({ week, n }) => [Number(week), Number(n)]));
}
