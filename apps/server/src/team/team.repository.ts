import { Inject, Injectable } from '@nestjs/common';
import { dayInZone } from '@goodword/core/common';
import type { Role } from '@goodword/core/contract';
import { usualOrder, type WrittenAs } from '@goodword/core/fields';
import type { Language } from '@goodword/core/forms';
import { imprintOf } from '@goodword/core/team';
import { Database, type ReadAt } from '../platform/database';
import { type Scoped, rowsOf } from '../platform/scoped';
import type { AccessScope } from '../platform/scope';
import { calledBy } from '../platform/versions';
import type { Tables } from '../platform/tables/generated';

export interface TeammateRow extends Pick<
  Tables['teammate'],
  | 'id'
  | 'organization_id'
  | 'name'
  | 'email'
  | 'mobile'
  | 'signature'
  | 'title'
  | 'left_at'
  | 'signed_in_at'
  | 'picture_id'
> {
  /** Those they are bound to; null for all. */
  chapter_ids: number[] | null;
  role: Role;
  /** Null for who was invited and has not come yet. */
  password_hash: string | null;
  /** Where answers to this person go, where that is not their own address; may be empty. */
  answers_to: string;
}

export interface OrganizationRow extends Pick<
  Tables['organization'],
  | 'id'
  | 'name'
  | 'country'
  | 'locale'
  | 'currency'
  | 'time_zone'
  | 'postal_address'
  | 'from_email'
  | 'list_domain'
  | 'text_from'
  | 'legal_name'
  | 'logo_id'
  | 'version'
  | 'house_style'
  | 'text_price'
  | 'giving_page'
  | 'link_url'
  | 'text_number'
> {
  /** The month that fiscal years begin with, 1 to 12. */
  fiscal_month: number;
  /** Days that the files of batches are kept. */
  file_days: number;
  /** Of supporters' pages; null for all that there are. */
  languages: Language[] | null;
}

export interface ChapterRow {
  id: number;
  name: string;
  postal_address: string;
  /** Where its people live, as somebody wrote it. */
  places: string;
}

/** How somebody here writes a day or an amount by hand. */
export function typedIn({
  country,
  currency,
  time_zone,
}: Pick<OrganizationRow, 'country' | 'currency' | 'time_zone'>): WrittenAs {
  return { order: usualOrder(country), currency, today: dayInZone(Date.now(), time_zone) };
}

/** The picture at the head of supporters' pages; null where the organization has none. */
export function logoOf(
  organization: Pick<OrganizationRow, 'name' | 'logo_id'>,
): { src: string; of: string } | null {
  return organization.logo_id === null
    ? null
    : { src: `/media/${organization.logo_id}`, of: organization.name };
}

/** Who sends and where they live, in one line; the address of a chapter where one is given. */
export function imprint(
  organization: Pick<OrganizationRow, 'name' | 'legal_name' | 'postal_address'>,
  address = organization.postal_address,
): string {
  return imprintOf({ name: organization.name, legalName: organization.legal_name }, address);
}

/** Who works here and in which chapters, as signing in and sending need it. */
@Injectable()
export class TeamRepository {
  constructor(@Inject(Database) private readonly database: Database) {}

  /** Sign-in finds the organization by the address, so it has no scope yet. */
  async byEmail(email: string): Promise<TeammateRow | undefined> {
    return await rowsOf(this.database.unscoped(), 'teammate')
      .where('email', email)
      .whereNull('left_at')
      .first();
  }

  async teammate(scope: AccessScope, id: number): Promise<TeammateRow | undefined> {
    const [row] = await this.database.read(scope).sql<TeammateRow>(
      `SELECT id, organization_id, chapter_ids, name, email, role, password_hash, mobile, signature, title,
          answers_to, left_at, signed_in_at, picture_id
        FROM teammate
        WHERE organization_id = :org AND id = :id`,
      { id },
    );
    return row;
  }

  /** What a teammate is called by whoever asks; null where there is none. */
  async nameOf(db: Scoped, id: number | null): Promise<string | null> {
    const [row] = await db.sql<{ name: string }>(
      'SELECT name FROM teammate WHERE organization_id = :org AND id = :id',
      { id },
    );
    return calledBy(db.scope, id, row?.name ?? null);
  }

  async teammates(at: ReadAt): Promise<{ id: number; name: string; email: string }[]> {
    return this.database.read(at).sql(
      `SELECT id, name, email
          FROM teammate
          WHERE organization_id = :org AND left_at IS NULL
            AND (:chapter IS NULL OR chapter_ids IS NULL OR JSON_CONTAINS(chapter_ids, :chapter))
          ORDER BY name`,
    );
  }

  async organization(at: ReadAt): Promise<OrganizationRow> {
    const db = this.database.read(at);
    const [row] =
      await db.sql<OrganizationRow>(`SELECT id, name, country, locale, currency, time_zone, postal_address, from_email, list_domain,
          text_from, fiscal_month, file_days, legal_name, languages, logo_id, version, house_style,
          text_price, giving_page, link_url, text_number
        FROM organization
        WHERE id = :org`);
    if (!row) throw new Error(`expected the organization ${db.scope.organizationId}, got none`);
    return row;
  }

  async chapters(at: ReadAt): Promise<ChapterRow[]> {
    return this.database
      .read(at)
      .sql('SELECT id, name, postal_address, places FROM chapter WHERE organization_id = :org ORDER BY id');
  }
}
