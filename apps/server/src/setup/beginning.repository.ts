import { Injectable } from '@nestjs/common';
import { type Database } from '../platform/database';
import { rowsOf } from '../platform/scoped';

export interface Beginning {
  word: string;
  organization: {
    name: string;
    legalName: string;
    postalAddress: string;
    country: string;
    timeZone: string;
    locale: string;
    currency: string;
  };
  /** The first chapter; people always belong to one. */
  chapter: string;
  name: string;
  email: string;
  password: string;
}

/** What there is before there is any organization; none of it has a scope. */
@Injectable()
export class BeginningRepository {
  async isEmpty(database: Database): Promise<boolean> {
    return (await rowsOf(database.unscoped(), 'organization').first('id')) === undefined;
  }

  /** The hash of the word that the first owner must say. */
  async word(database: Database): Promise<string | null> {
    const row = await rowsOf(database.unscoped(), 'house_key').where('name', 'first-owner').first('wrapped');
    return row?.wrapped ?? null;
  }

  async keepWord(database: Database, hash: string): Promise<void> {
    await rowsOf(database.unscoped(), 'house_key')
      .insert({ name: 'first-owner', wrapped: hash })
      .onConflict('name')
      .merge();
  }

  /**
   * Makes everything at once, or nothing where somebody else was quicker: the word is spent in the same
   * transaction.
   */
  async make(
    database: Database,
    wanted: Beginning & { passwordHash: string; fromEmail: string; bounceDomain: string },
  ): Promise<{ organizationId: number; ownerId: number } | null> {
    return database.unscoped().transaction(async (trx) => {
      if ((await rowsOf(trx, 'house_key').where('name', 'first-owner').delete()) === 0) return null;
      const { organization } = wanted;
      const [organizationId] = (await rowsOf(trx, 'organization').insert({
        name: organization.name,
        legal_name: organization.legalName,
        postal_address: organization.postalAddress,
        country: organization.country,
        time_zone: organization.timeZone,
        locale: organization.locale,
        currency: organization.currency,
        from_email: wanted.fromEmail,
        list_domain: wanted.bounceDomain,
        text_from: '',
      })) as [number];
      await rowsOf(trx, 'chapter').insert({ organization_id: organizationId, name: wanted.chapter });
      const [ownerId] = (await rowsOf(trx, 'teammate').insert({
        organization_id: organizationId,
        name: wanted.name,
        email: wanted.email,
        role: 'owner',
        password_hash: wanted.passwordHash,
      })) as [number];
      return { organizationId, ownerId };
    });
  }
}
