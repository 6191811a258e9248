import { Injectable } from '@nestjs/common';
import { type Scoped, rowsOf } from '../platform/scoped';
import type { OrganizationRow } from '../team/team.repository';

/** What the organization says of itself, and its chapters. Owns `organization`, `chapter`. */
@Injectable()
export class OrganizationRepository {
  async lockForUpdate(tx: Scoped): Promise<OrganizationRow & { changed_by: number | null }> {
    const [row] = await tx.sql<OrganizationRow & { changed_by: number | null }>(
      `SELECT id, name, country, locale, currency, time_zone, postal_address, from_email, list_domain,
          text_from, fiscal_month, file_days, legal_name, languages, logo_id, version,
          house_style, text_price, giving_page, link_url, text_number, changed_by
        FROM organization
        WHERE id = :org FOR UPDATE`,
    );
    return row!;
  }

  async change(
    tx: Scoped,
    values: Partial<Record<keyof OrganizationRow | 'changed_by', string | number | null>>,
  ): Promise<void> {
    await rowsOf(tx.knex, 'organization').where('id', tx.scope.organizationId).update(values);
  }

  async hasGifts(db: Scoped): Promise<boolean> {
    return (await db.sql('SELECT 1 FROM gift WHERE organization_id = :org LIMIT 1')).length > 0;
  }

  /** Chapters with how many people are in each. */
  async chapters(
    db: Scoped,
  ): Promise<{ id: number; name: string; postal_address: string; places: string; people: number }[]> {
    return db.sql(
      `SELECT c.id, c.name, c.postal_address, c.places, COUNT(s.id) AS people FROM chapter c
        LEFT JOIN supporter s ON s.organization_id = :org AND s.chapter_id = c.id AND s.erased_at IS NULL
        WHERE c.organization_id = :org GROUP BY c.id, c.name, c.postal_address, c.places ORDER BY c.id`,
    );
  }

  async chapterNamed(db: Scoped, name: string): Promise<number | null> {
    const [row] = await db.sql<{ id: number }>(
      'SELECT id FROM chapter WHERE organization_id = :org AND name = :name',
      { name },
    );
    return row?.id ?? null;
  }

  async addChapter(
    tx: Scoped,
    chapter: { name: string; postalAddress: string; places: string },
  ): Promise<number> {
    return tx.insert('chapter', {
      name: chapter.name,
      postal_address: chapter.postalAddress,
      places: chapter.places,
    });
  }

  async holdChapter(
    tx: Scoped,
    id: number,
  ): Promise<{ name: string; postalAddress: string; places: string } | undefined> {
    const [row] = await tx.sql<{ name: string; postalAddress: string; places: string }>(
      `SELECT name, postal_address AS postalAddress, places
        FROM chapter
        WHERE organization_id = :org AND id = :id FOR UPDATE`,
      { id },
    );
    return row;
  }

  async changeChapter(
    tx: Scoped,
    id: number,
    chapter: { name: string; postalAddress: string; places: string },
  ): Promise<void> {
    const bound = { id, name: chapter.name, postal: chapter.postalAddress, places: chapter.places };
    await tx.execute(
      `UPDATE chapter
        SET name = :name, postal_address = :postal, places = :places
        WHERE organization_id = :org AND id = :id`,
      bound,
    );
  }
}
