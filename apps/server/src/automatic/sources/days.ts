import type { Occurrence } from '@goodword/core/automations';
import { addMonths, dateParts, isoDay, keptOn, startOfDay, type Day } from '@goodword/core/common';
import { lastSaidSql } from '../../permission/ledger/happened.sql';
import type { Scoped } from '../../platform/scoped';
import { type CauseSource, type LookWindow } from './source';

/** Days of any year as they stand in tables: 101 to 1231; those that are kept on a day. */
function kept(day: Day): number[] {
  const { year, month, day: d } = dateParts(day);
  const on = month * 100 + d;
  return on === 228 && keptOn(229, year) === 228 ? [228, 229] : [on];
}

const each = ({ from, to }: LookWindow['days']): Day[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_none, i) => from + i);

async function having(db: Scoped, fieldId: number, on: Day, yearly: boolean): Promise<{ id: number }[]> {
  const monthDay = 'COALESCE(v.month_day, DATE_FORMAT(FROM_DAYS(719528 + v.date_value), "%c%d") + 0)';
  const which = yearly
    ? `${monthDay} IN (:monthDays) AND (v.date_value IS NULL OR v.date_value <= :on)`
    : 'v.date_value = :on';
  return db.sql(
    `SELECT v.supporter_id AS id
      FROM field_value v
      JOIN supporter s ON s.id = v.supporter_id AND s.erased_at IS NULL
        AND (:chapter IS NULL OR s.chapter_id = :chapter)
      WHERE v.organization_id = :org AND v.field_id = :fieldId AND ${which}`,
    { fieldId, on, monthDays: kept(on) },
  );
}

/** A date of somebody's comes, is so many days ahead, or so many past; of a birthday each year. */
export const dateSource: CauseSource<'date'> = {
  async found(db, { fieldId, days, yearly }, window) {
    const found: Occurrence[] = [];
    for (const day of each(window.days)) {
      const at = startOfDay(day, window.zone);
      // Three days before the date it happens on the day whose third next is the date.
      for (const { id } of await having(db, fieldId, day - days, yearly))
        found.push({ supporterId: id, key: `date:${isoDay(day - days)}`, at });
    }
    return found;
  },
  async standing(db, { fieldId, yearly }, some) {
    const stands = new Set<number>();
    const byKey = new Map<string, (typeof some)[number][]>();
    for (const one of some) byKey.set(one.causeKey, [...(byKey.get(one.causeKey) ?? []), one]);
    for (const [key, visits] of byKey) {
      const on = Date.parse(key.slice(5)) / 86_400_000;
      const there = new Set((await having(db, fieldId, on, yearly)).map(({ id }) => id));
      for (const { id, supporterId } of visits) if (there.has(supporterId)) stands.add(id);
    }
    return stands;
  },
};

/** The last that somebody did: gave, followed a link, replied, or said something of permission themselves. */
const LAST = `SELECT s.id, GREATEST(
    COALESCE((SELECT MAX(g.given_on) FROM gift g
      WHERE g.organization_id = :org AND g.supporter_id = s.id AND g.amount > 0), -1),
    COALESCE((SELECT MAX(DATEDIFF(e.at, '1970-01-01')) FROM delivery_event e
      WHERE e.organization_id = :org AND e.supporter_id = s.id AND e.kind IN ('clicked', 'replied')), -1),
    COALESCE((${lastSaidSql('s.id')}), -1)) AS last
  FROM supporter s
  WHERE s.organization_id = :org AND s.erased_at IS NULL AND (:chapter IS NULL OR s.chapter_id = :chapter)`;

/** So many months have gone by since somebody did anything. */
export const quietSource: CauseSource<'quiet'> = {
  async found(db, { months }, window) {
    const days = each(window.days);
    if (days.length === 0) return [];
    // Of a day at the end of a month those of the days that the month before has not come with it.
    const lasts = [addMonths(days[0]!, -months) - 3, addMonths(days.at(-1)!, -months)] as const;
    const rows = await db.sql<{ id: number; last: number }>(
      `SELECT l.id, l.last FROM (${LAST}) l WHERE l.last BETWEEN :first AND :latest`,
      { first: lasts[0], latest: lasts[1] },
    );
    const found: Occurrence[] = [];
    for (const { id, last } of rows) {
      const on = addMonths(Number(last), months);
      if (on >= window.days.from && on <= window.days.to)
        found.push({
          ...{ supporterId: id, key: `quiet:${isoDay(Number(last))}` },
          at: startOfDay(on, window.zone),
        });
    }
    return found;
  },
  async standing(db, _cause, some) {
    const rows = await db.sql<{ id: number; last: number }>(`${LAST} AND s.id IN (:ids)`, {
      ids: some.map(({ supporterId }) => supporterId),
    });
    const lasts = new Map(rows.map(({ id, last }) => [id, `quiet:${isoDay(Number(last))}`]));
    return new Set(
      some.filter(({ supporterId, causeKey }) => lasts.get(supporterId) === causeKey).map(({ id }) => id),
    );
  },
};
