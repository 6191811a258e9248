import { Inject, Injectable } from '@nestjs/common';
import { dayInZone } from '@goodword/core/common';
import type { Role } from '@goodword/core/contract';
import { usualOrder, type WrittenAs } from '@goodword/core/fields';
import type { Language } from '@goodword/core/forms';
import { imprintOf } from '@goodword/core/team';
import { Database, type ReadAt, type Scoped } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { calledBy } from '../platform/versions';

export interface TeammateRow {
  id: number;
  organization_id: number;
  /** Those they are bound to; null for all. */
  chapter_ids: number[] | null;
  name: string;
  email: string;
  role: Role;
  /** Null for who was invited and has not come yet. */
  password_hash: string | null;
  mobile: string;
  signature: string;
  title: string;
  /** Where answers to this person go, where that is not their own address; may be empty. */
  answers_to: string;
  left_at: Date | null;
  signed_in_at: Date | null;
}

export interface OrganizationRow {
  id: number;
  name: string;
  country: string;
  locale: string;
  currency: string;
  time_zone: string;
  postal_address: string;
  from_email: string;
  list_domain: string;
  text_from: string;
  /** The month that fiscal years begin with, 1 to 12. */
  fiscal_month: number;
  /** Days that the files of batches are kept. */
  file_days: number;
  legal_name: string;
  /** Of supporters' pages; null for all that there are. */
  languages: Language[] | null;
  logo_id: number | null;
  version: number;
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

/**
 * The From of mail that the program writes by itself: the name in quotes, with nothing that could end them.
 */
export function mailFrom(name: string, address: string): string {
  return `"${name.replace(/["\\\r\n]/g, '')}" <${address}>`;
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
    return (await this.database.unscoped()('teammate').where('email', email).whereNull('left_at').first()) as
      TeammateRow | undefined;
  }

  async teammate(scope: AccessScope, id: number): Promise<TeammateRow | undefined> {
    const [row] = await this.database
      .read(scope)
      .sql<TeammateRow>('SELECT * FROM teammate WHERE organization_id = :org AND id = :id', { id });
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

  async teammates(scope: AccessScope): Promise<{ id: number; name: string; email: string }[]> {
    return this.database.read(scope).sql(
      `SELECT id, name, email
          FROM teammate
          WHERE organization_id = :org AND left_at IS NULL
            AND (:chapter IS NULL OR chapter_ids IS NULL OR JSON_CONTAINS(chapter_ids, :chapter))
          ORDER BY name`,
    );
  }

  async organization(at: ReadAt): Promise<OrganizationRow> {
    const db = this.database.read(at);
    const [row] = await db.sql<OrganizationRow>('SELECT * FROM organization WHERE id = :org');
    if (!row) throw new Error(`expected the organization ${db.scope.organizationId}, got none`);
    return row;
  }

  async chapters(at: ReadAt): Promise<ChapterRow[]> {
    return this.database
      .read(at)
      .sql('SELECT id, name, postal_address, places FROM chapter WHERE organization_id = :org ORDER BY id');
  }
}
