import { Injectable } from '@nestjs/common';
import type { Candidate } from '@goodword/core/intake';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

/** Finding and making the person who joins, over all chapters: a form knows no chapter's walls. */
@Injectable()
export class FormPostsRepository {
  async candidates(tx: Scoped, address: { kind: 'email' | 'mobile'; normal: string }): Promise<Candidate[]> {
    const rows = await tx.sql<{ id: number; first_name: string; last_name: string }>(
      `SELECT s.id, s.first_name, s.last_name
        FROM contact_point cp
        JOIN supporter_contact sc ON sc.contact_point_id = cp.id
        JOIN supporter s ON s.id = sc.supporter_id AND s.erased_at IS NULL
        WHERE cp.organization_id = :org AND cp.kind = :kind AND cp.normal = :normal
        ORDER BY s.id FOR UPDATE`,
      address,
    );
    return rows.map((row) => ({
      id: row.id,
      firstName: row.first_name,
      lastName: row.last_name,
      by: address.kind,
    }));
  }

  async make(
    tx: Scoped,
    person: {
      chapterId: number;
      firstName: string;
      lastName: string;
      country: string | null;
      region: string | null;
      language: string | null;
    },
  ): Promise<number> {
    const id = await tx.insert('supporter', {
      chapter_id: person.chapterId,
      first_name: person.firstName,
      last_name: person.lastName,
      country: person.country,
      region: person.region,
      language: person.language,
    });
    tx.changed('people', 0, [id]);
    return id;
  }

  async hasPoint(tx: Scoped, supporterId: number, contactPointId: number): Promise<boolean> {
    const rows = await tx.sql(
      `SELECT 1
        FROM supporter_contact
        WHERE organization_id = :org AND supporter_id = :supporterId AND contact_point_id = :contactPointId`,
      { supporterId, contactPointId },
    );
    return rows.length > 0;
  }

  async person(
    tx: Scoped,
    id: number,
  ): Promise<
    { first_name: string; last_name: string; country: string | null; region: string | null } | undefined
  > {
    const [row] = await tx.sql<Pick<Tables['supporter'], 'first_name' | 'last_name' | 'country' | 'region'>>(
      `SELECT first_name, last_name, country, region
        FROM supporter
        WHERE organization_id = :org AND id = :id AND erased_at IS NULL FOR UPDATE`,
      { id },
    );
    return row;
  }

  /**
   * Fills what is blank and leaves what is there: whoever typed it has not shown yet that the address is
   * theirs.
   */
  async fillBlanks(
    tx: Scoped,
    id: number,
    person: { firstName: string; lastName: string; country: string | null; language: string | null },
  ): Promise<void> {
    tx.changed('people', 0, [id]);
    // A place that was not known is learned; it is no move.
    await tx.execute(
      `UPDATE supporter
        SET first_name = IF(first_name = '', :firstName, first_name),
          last_name = IF(last_name = '', :lastName, last_name),
        country = COALESCE(country, :country), language = COALESCE(language, :language)
        WHERE organization_id = :org AND id = :id`,
      { id, ...person },
    );
  }
}
