import { readHomes } from '@goodword/core/intake';
import { Inject, Injectable } from '@nestjs/common';
import { isAligned } from '@goodword/core/delivery';
import { countryCodes, countryName } from '@goodword/core/fields';
import type { OrganizationView } from '@goodword/core/contract';
import { LANGUAGES } from '@goodword/core/forms';
import { audit } from '../platform/audit';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { Conflict, Invalid, Newer, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { stillAs } from '../platform/versions';
import { ImagesService } from '../messages/images.service';
import { logoOf, TeamRepository, type OrganizationRow } from '../team/team.repository';
import { OrganizationRepository } from './organization.repository';
import { organizationalDomain } from '../sender/sender.service';
import { sentence } from '../platform/words';

export type SaveOrganization = Omit<OrganizationView, 'logo' | 'version' | 'chapters' | 'missing'> & {
  basedOn: number;
};

export interface ChapterWords {
  name: string;
  postalAddress: string;
  places: string;
}

/**
 * The organization as its owners describe it: who it is, where it lives, how days, amounts and languages are
 * read.
 */
@Injectable()
export class OrganizationService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(OrganizationRepository) private readonly organizations: OrganizationRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(ImagesService) private readonly images: ImagesService,
  ) {}

  async view(scope: AccessScope): Promise<OrganizationView> {
    const db = this.database.read(scope);
    const [own, chapters] = await Promise.all([
      this.team.organization(scope),
      this.organizations.chapters(db),
    ]);
    const visible = scope.boundTo === null ? chapters : chapters.filter(({ id }) => id === scope.boundTo);
    return {
      name: own.name,
      legalName: own.legal_name,
      postalAddress: own.postal_address,
      country: own.country,
      timeZone: own.time_zone,
      fiscalMonth: own.fiscal_month,
      currency: own.currency,
      locale: own.locale,
      languages: own.languages ?? [...LANGUAGES],
      fromEmail: own.from_email,
      bounceDomain: own.list_domain,
      textFrom: own.text_from,
      textPrice: own.text_price === null ? null : Number(own.text_price),
      givingPage: own.giving_page,
      linkUrl: own.link_url,
      logo: logoOf(own)?.src ?? null,
      version: own.version,
      chapters: visible.map(({ postal_address, people, ...chapter }) => ({
        ...chapter,
        postalAddress: postal_address,
        people: Number(people),
      })),
      missing: this.missing(own),
    };
  }

  /** What stands in the way of the first message. */
  private missing(own: OrganizationRow): string[] {
    const { DKIM_DOMAIN: dkim, TEXT_URL: texts, INBOUND_SMTP_PORT: inbound } = this.config;
    const domain = own.from_email.split('@')[1] ?? '';
    const says: [boolean, string][] = [
      [own.postal_address === '', 'No postal address: it has to stand under every mail and form.'],
      [own.from_email === '', 'No address that mail comes from: no mail can leave.'],
      [own.list_domain === '', 'No domain that bounces come back to: no mail can leave.'],
      [
        inbound === 0,
        'This server hears no mail (INBOUND_SMTP_PORT): bounces and answers to mails are not noticed.',
      ],
      [
        dkim === '',
        'Mail is not signed (DKIM_KEY_FILE): large mailbox providers refuse unsigned mail to many.',
      ],
      [
        dkim !== '' && domain !== '' && !isAligned(domain, dkim, false, organizationalDomain),
        `Mail comes from ${domain} and is signed for ${dkim}: the two should be of one domain.`,
      ],
      [texts === '', 'No text gateway (TEXT_URL): texts are not sent.'],
      [texts !== '' && own.text_from === '', 'No number that texts come from: no text can leave.'],
    ];
    return says.flatMap(([is, words]) => (is ? [words] : []));
  }

  async save(scope: AccessScope, wanted: SaveOrganization): Promise<{ version: number }> {
    if (!countryCodes().includes(wanted.country))
      throw new Invalid([{ field: 'country', code: 'country', message: sentence('organization.country') }]);
    // Days, amounts and places are read anew by whoever keeps columns: this tells everybody.
    return this.database.write(scope, async (tx) => {
      const own = await this.organizations.lockForUpdate(tx);
      if (own.version !== wanted.basedOn)
        throw new Newer('what the organization says of itself', await this.team.nameOf(tx, own.changed_by));
      if (own.currency !== wanted.currency && (await this.organizations.hasGifts(tx)))
        throw new Conflict(
          sentence('organization.currency', { currency: own.currency, currency2: wanted.currency }),
        );
      await this.organizations.change(tx, {
        name: wanted.name,
        legal_name: wanted.legalName,
        postal_address: wanted.postalAddress,
        country: wanted.country,
        time_zone: wanted.timeZone,
        fiscal_month: wanted.fiscalMonth,
        currency: wanted.currency,
        locale: wanted.locale,
        languages: JSON.stringify(wanted.languages),
        from_email: wanted.fromEmail,
        list_domain: wanted.bounceDomain,
        text_from: wanted.textFrom,
        text_price: wanted.textPrice,
        giving_page: wanted.givingPage,
        link_url: wanted.linkUrl,
        version: own.version + 1,
        changed_by: scope.actorId,
      });
      await audit(
        tx,
        'organization',
        { organization: own.id },
        `Changed ${changesOf(own, wanted).join('; ') || 'nothing'}`,
      );
      return { version: own.version + 1 };
    });
  }

  async setLogo(scope: AccessScope, file: { name: string; bytes: Buffer } | null): Promise<void> {
    const own = await this.team.organization(scope);
    const logo = file && (await this.images.add(scope, file, own.name));
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.organizations.change(tx, { logo_id: logo?.id ?? null });
      await audit(
        tx,
        'organization',
        { organization: own.id },
        logo ? 'Changed the logo' : 'Took the logo away',
      );
    });
  }

  /** Places that nobody can read would send people nowhere, silently. */
  private async readPlaces(scope: AccessScope, { places }: ChapterWords): Promise<void> {
    const { unread } = readHomes(places, (await this.team.organization(scope)).country);
    if (unread.length === 0) return;
    const message = `“${unread.join('”, “')}” is no place that can be read. Write regions (US-WA, Oregon), countries (Canada) or how postcodes begin (981).`;
    throw new Invalid([{ field: 'places', code: 'places', message }]);
  }

  async addChapter(scope: AccessScope, chapter: ChapterWords): Promise<{ id: number }> {
    await this.readPlaces(scope, chapter);
    return this.database.write(scope, async (tx) => {
      await this.organizations.lockForUpdate(tx);
      if ((await this.organizations.chapterNamed(tx, chapter.name)) !== null) throw taken(chapter.name);
      const id = await this.organizations.addChapter(tx, chapter);
      await audit(tx, 'chapter', { chapter: id }, `Opened the chapter ${chapter.name}`);
      return { id };
    });
  }

  async changeChapter(
    scope: AccessScope,
    id: number,
    chapter: ChapterWords,
    was: ChapterWords,
  ): Promise<void> {
    await this.readPlaces(scope, chapter);
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.organizations.lockForUpdate(tx);
      const named = await this.organizations.chapterNamed(tx, chapter.name);
      if (named !== null && named !== id) throw taken(chapter.name);
      const now = await this.organizations.holdChapter(tx, id);
      if (!now) throw new NotFound('chapter');
      stillAs(was, now, 'this chapter');
      await this.organizations.changeChapter(tx, id, chapter);
      await audit(tx, 'chapter', { chapter: id }, `Changed the chapter ${chapter.name}`);
    });
  }
}

const taken = (name: string) =>
  new Invalid([{ field: 'name', code: 'taken', message: sentence('chapter.name-taken', { name }) }]);

/**
 * Whether mail from one domain is covered by a signature of the other (relaxed alignment, RFC 7489 §3.1.1,
 * without a list of suffixes).
 */
function changesOf(own: OrganizationRow, wanted: SaveOrganization): string[] {
  const pairs: [string, string, string][] = [
    ['name', own.name, wanted.name],
    ['legal name', own.legal_name, wanted.legalName],
    ['postal address', own.postal_address, wanted.postalAddress],
    ['country', countryName(own.country, 'en'), countryName(wanted.country, 'en')],
    ['time zone', own.time_zone, wanted.timeZone],
    ['first month of the fiscal year', String(own.fiscal_month), String(wanted.fiscalMonth)],
    ['currency', own.currency, wanted.currency],
    ['way of writing dates and amounts', own.locale, wanted.locale],
    ['languages', (own.languages ?? LANGUAGES).join(', '), wanted.languages.join(', ')],
    ['address of mails', own.from_email, wanted.fromEmail],
    ['domain of bounces', own.list_domain, wanted.bounceDomain],
    ['number of texts', own.text_from, wanted.textFrom],
  ];
  return pairs.flatMap(([what, before, after]) =>
    before === after ? [] : [`${what}: ${before || 'none'} → ${after || 'none'}`],
  );
}
