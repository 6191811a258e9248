import { Injectable } from '@nestjs/common';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export interface ExportedPerson {
  id: number;
  externalId: string | null;
  firstName: string;
  lastName: string;
  country: string | null;
  region: string | null;
  points: {
    kind: 'email' | 'mobile' | 'post';
    shown: string;
    parts: Partial<Record<'street' | 'city' | 'postcode' | 'region' | 'country', string>> | null;
  }[];
  tags: string[];
  lists: string[];
}

/** What a file of people holds, some thousand at a time. */
@Injectable()
export class ExportRepository {
  async of(db: Scoped, ids: readonly number[]): Promise<ExportedPerson[]> {
    if (ids.length === 0) return [];
    const [people, points, tags, lists] = await Promise.all([
      db.sql<
        Pick<Tables['supporter'], 'id' | 'first_name' | 'last_name' | 'external_id' | 'country' | 'region'>
      >(
        `SELECT id, first_name, last_name, external_id, country, region FROM supporter
          WHERE organization_id = :org AND erased_at IS NULL AND (:chapter IS NULL OR chapter_id = :chapter)
            AND id IN (:ids)
          ORDER BY last_name, first_name, id`,
        { ids },
      ),
      db.sql<{
        supporter_id: number;
        kind: 'email' | 'mobile' | 'post';
        shown: string;
        parts: ExportedPerson['points'][number]['parts'];
      }>(
        `SELECT sc.supporter_id, cp.kind, cp.shown, cp.parts
          FROM supporter_contact sc
          JOIN contact_point cp ON cp.id = sc.contact_point_id
          WHERE sc.organization_id = :org AND sc.supporter_id IN (:ids) ORDER BY sc.position, cp.id`,
        { ids },
      ),
      this.groups(db, 'tag', ids),
      this.groups(db, 'list', ids),
    ]);
    const pointsOf = new Map<number, typeof points>();
    for (const point of points)
      pointsOf.set(point.supporter_id, [...(pointsOf.get(point.supporter_id) ?? []), point]);
    return people.map((person) => ({
      id: person.id,
      externalId: person.external_id,
      firstName: person.first_name,
      lastName: person.last_name,
      country: person.country,
      region: person.region,
      points: (pointsOf.get(person.id) ?? []).map(({ kind, shown, parts }) => ({ kind, shown, parts })),
      tags: tags.get(person.id) ?? [],
      lists: lists.get(person.id) ?? [],
    }));
  }

  private async groups(
    db: Scoped,
    kind: 'tag' | 'list',
    ids: readonly number[],
  ): Promise<Map<number, string[]>> {
    const rows = await db.sql<{ supporter_id: number; name: string }>(
      `SELECT m.supporter_id, g.name
        FROM supporter_${kind} m
        JOIN ${kind} g ON g.id = m.${kind}_id
        WHERE m.organization_id = :org AND m.supporter_id IN (:ids)
        ORDER BY g.name`,
      { ids },
    );
    const out = new Map<number, string[]>();
    for (const { supporter_id, name } of rows)
      out.set(supporter_id, [...(out.get(supporter_id) ?? []), name]);
    return out;
  }
}
