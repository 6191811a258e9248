import { Injectable } from '@nestjs/common';
import type { Day } from '@goodword/core/common';
import type { Scoped } from '../platform/scoped';

/** People who are asked about in one statement. */
const CHUNK = 20_000;
/** So much of the mailing before tells how fast mail leaves, and of how many of a domain at the least. */
const PACE_OF = 50_000;
const PACE_FROM = 20;

/** So many people in one place. */
export interface PlaceCount {
  country: string | null;
  region: string | null;
  people: number;
}

/** How a mailing went to one domain: so many mails within so many seconds. */
export interface DomainPace {
  domain: string;
  mails: number;
  seconds: number;
}

/** What is known of those whom a message is about to reach, counted. */
@Injectable()
export class AheadRepository {
  /** How many of these people gave on a day or after it, refunds taken away. */
  async gaveSince(db: Scoped, ids: readonly number[], since: Day): Promise<number> {
    let people = 0;
    for await (const { n } of this.slices<{ n: number }>(
      db,
      `SELECT COUNT(*) AS n
        FROM (SELECT supporter_id
          FROM gift
          WHERE organization_id = :org AND supporter_id IN (:ids) AND given_on >= :since
          GROUP BY supporter_id
          HAVING SUM(amount) > 0) AS gave`,
      ids,
      { since },
    ))
      people += Number(n);
    return people;
  }

  /** How many of these people are in which place. */
  async places(db: Scoped, ids: readonly number[]): Promise<PlaceCount[]> {
    const all = new Map<string, PlaceCount>();
    for await (const row of this.slices<PlaceCount>(
      db,
      `SELECT country, region, COUNT(*) AS people
        FROM supporter
        WHERE organization_id = :org AND id IN (:ids)
        GROUP BY country, region`,
      ids,
    )) {
      const key = `${row.country ?? ''} ${row.region ?? ''}`;
      const people = (all.get(key)?.people ?? 0) + Number(row.people);
      all.set(key, { ...row, people });
    }
    return [...all.values()];
  }

  /** How many of these people have their first email at which domain, the most first. */
  async domains(db: Scoped, ids: readonly number[]): Promise<[domain: string, people: number][]> {
    const all = new Map<string, number>();
    for await (const { domain, people } of this.slices<{ domain: string; people: number }>(
      db,
      `SELECT SUBSTRING_INDEX(cp.normal, '@', -1) AS domain, COUNT(*) AS people
        FROM supporter_contact sc
        JOIN contact_point cp ON cp.id = sc.contact_point_id
        WHERE sc.organization_id = :org AND sc.supporter_id IN (:ids) AND sc.kind = 'email'
          AND sc.position = (SELECT MIN(first.position)
            FROM supporter_contact first
            WHERE first.supporter_id = sc.supporter_id AND first.kind = 'email')
        GROUP BY domain`,
      ids,
    ))
      all.set(domain, (all.get(domain) ?? 0) + Number(people));
    return [...all].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]));
  }

  /** How the newest mailing that is over went to its domains; nothing where none was large enough to tell. */
  async pace(db: Scoped): Promise<DomainPace[]> {
    const rows = await db.sql<DomainPace>(
      `SELECT SUBSTRING_INDEX(cp.normal, '@', -1) AS domain, COUNT(*) AS mails,
          TIMESTAMPDIFF(SECOND, MIN(d.sent_at), MAX(d.sent_at)) AS seconds
        FROM (SELECT contact_point_id, sent_at
          FROM delivery
          WHERE organization_id = :org AND sent_at IS NOT NULL
            AND message_id = (SELECT MAX(m.id)
              FROM message m
              LEFT JOIN automation_step s ON s.message_id = m.id
              WHERE m.organization_id = :org AND m.channel = 'email' AND m.state = 'done'
                AND m.personal_to IS NULL AND s.message_id IS NULL
                AND m.own_time = 0 AND m.spread_hours IS NULL)
          LIMIT ${PACE_OF}) AS d
        JOIN contact_point cp ON cp.id = d.contact_point_id
        GROUP BY domain
        HAVING mails >= ${PACE_FROM} AND seconds > 0`,
    );
    return rows.map(({ domain, mails, seconds }) => ({
      ...{ domain, mails: Number(mails), seconds: Number(seconds) },
    }));
  }

  private async *slices<R extends object>(
    db: Scoped,
    sql: string,
    ids: readonly number[],
    more: Record<string, number> = {},
  ): AsyncGenerator<R> {
    for (let from = 0; from < ids.length; from += CHUNK)
      yield* await db.sql<R>(sql, { ...more, ids: ids.slice(from, from + CHUNK) });
  }
}
