import { Inject, Injectable } from '@nestjs/common';
import { getDomain } from 'tldts';
import {
  alignmentOf,
  checkRecord,
  isAligned,
  metDemands,
  wantedRecords,
  type CheckedRecord,
  type SenderFacts,
  type MailLimits,
  type TextNumber,
} from '@goodword/core/delivery';
import type { SenderView } from '@goodword/core/contract';
import { audit } from '../platform/audit';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { dkimKeysOf, dkimRecord } from '../platform/dkim';
import { Conflict } from '../platform/errors';
import { NAMES, type NameRecords } from '../platform/lookups';
import { MAIL_OUT, type MailOut } from '../platform/mail-out';
import { programScope, type AccessScope } from '../platform/scope';
import { Tokens } from '../platform/tokens';
import { sentence } from '../platform/words';
import { MailLimitsRepository } from '../limits/mail-limits.repository';
import { houseMail } from '../team/house-mail';
import { TeamRepository, type OrganizationRow } from '../team/team.repository';
import { SenderRepository, type SenderCheckRow } from './sender.repository';

/** The domain that belongs to an organization, by the public suffix list (RFC 7489 §3.2). */
export const organizationalDomain = (domain: string): string => getDomain(domain) ?? domain;

/** As whom the organization writes: the records it has set, held against what they are to be. */
@Injectable()
export class SenderService {
  private readonly tokens: Tokens;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SenderRepository) private readonly checks: SenderRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(NAMES) private readonly names: NameRecords,
    @Inject(MAIL_OUT) private readonly mailOut: MailOut,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(MailLimitsRepository) private readonly mailLimits: MailLimitsRepository,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  async show(scope: AccessScope): Promise<SenderView> {
    const db = this.database.read(scope);
    const [organization, row, complaints] = await Promise.all([
      this.team.organization(scope),
      this.checks.find(db),
      this.checks.complaints(db),
    ]);
    const { records, aligned } = this.known(organization, row);
    const tls = row ? flagOf(row.back_tls) : null;
    return {
      from: organization.from_email,
      lists: organization.list_domain,
      checkedAt: row?.checked_at?.toISOString() ?? null,
      records,
      aligned,
      demands: metDemands({ records, aligned: aligned.signature || aligned.returnPath, tls, complaints }),
      complaints,
      through: throughOf(row),
      ...(await this.limitsNow(scope)),
      number: organization.text_from
        ? { number: organization.text_from, ...(organization.text_number ?? UNSAID) }
        : null,
    };
  }

  /** Looks for every record anew. */
  async check(scope: AccessScope): Promise<SenderView> {
    const facts = this.factsOf(await this.team.organization(scope));
    const deskAddresses = (await this.names.find(facts.desk, 'A')) ?? [];
    const records = await Promise.all(
      wantedRecords(facts).map(async (wanted) =>
        checkRecord(wanted, await this.names.find(wanted.name, wanted.kind), deskAddresses),
      ),
    );
    await this.database.writeUnlogged(scope, (tx) => this.checks.keepRecords(tx, records));
    return this.show(scope);
  }

  /** A mail to ourselves by way of the provider: what comes back says whether its signatures hold. */
  async sendThrough(scope: AccessScope): Promise<SenderView> {
    const organization = await this.team.organization(scope);
    if (
      organization.from_email === '' ||
      organization.list_domain === '' ||
      this.config.INBOUND_SMTP_PORT === 0
    )
      throw new Conflict(sentence('sender.nothing-comes-back'));
    const key = crypto.randomUUID();
    const token = this.tokens.make('check', scope.organizationId);
    // Kept first: it may be back before the provider has answered.
    await this.database.writeUnlogged(scope, (tx) => this.checks.keepThrough(tx, key, null));
    const result = await this.mailOut.send({
      ...houseMail(organization, this.tokens, {
        to: `check-${token}@${organization.list_domain}`,
        ...{ key, subject: sentence('sender.through-subject'), text: sentence('sender.through-words') },
        about: { teammateId: scope.actorId ?? 0 },
      }),
    });
    if (result.kind !== 'accepted')
      await this.database.writeUnlogged(scope, (tx) => this.checks.keepThrough(tx, key, result.detail));
    return this.show(scope);
  }

  private async limitsNow(scope: AccessScope): Promise<Pick<SenderView, 'limits' | 'mailsLeft'>> {
    const db = this.database.read(scope);
    const known = await this.mailLimits.limits(db);
    if (!known) return { limits: null, mailsLeft: null };
    const { left } = await this.mailLimits.left(db, known);
    return { limits: known.limits, mailsLeft: Number.isFinite(left) ? left : null };
  }

  async saveLimits(scope: AccessScope, limits: MailLimits): Promise<void> {
    const { perHour, perDay, warmUp } = limits;
    const isLimited = perHour !== null || perDay !== null || warmUp !== null;
    await this.database.write(scope, async (tx) => {
      await this.checks.keepLimits(tx, isLimited ? limits : null);
      const values = { hour: perHour ?? '–', day: perDay ?? '–', from: warmUp?.from ?? '–' };
      await audit(
        tx,
        'organization-changed',
        { organization: scope.organizationId },
        sentence('sender.limits-changed', values),
      );
    });
  }

  async saveNumber(scope: AccessScope, number: TextNumber): Promise<void> {
    await this.database.write(scope, async (tx) => {
      await this.checks.keepNumber(tx, number);
      await audit(
        tx,
        'organization-changed',
        { organization: scope.organizationId },
        sentence('sender.number-changed', {
          kind: number.kind ?? '–',
          registration: number.registration ?? '–',
          perSecond: number.perSecond ?? '–',
        }),
      );
    });
  }

  /** What is known to be wrong, for Today and the last look: how many records. */
  async faults(scope: AccessScope): Promise<number> {
    const [organization, row] = await Promise.all([
      this.team.organization(scope),
      this.checks.find(this.database.read(scope)),
    ]);
    // Before the first look nothing is known to be wrong.
    if (!row?.checked_at || organization.from_email === '') return 0;
    const { records, aligned } = this.known(organization, row);
    const wrong = records.filter(({ what, fault }) => fault !== null && what !== 'dkim-next').length;
    return wrong + (aligned.signature || aligned.returnPath ? 0 : 1);
  }

  /** Looks once a day for everybody; what changed at a provider is nobody's doing here. */
  async sweep(): Promise<void> {
    for (const id of await this.checks.due(this.database)) await this.check(programScope(id));
  }

  /** What was found counts for what is wanted now: a key or a domain may have changed since. */
  private known(organization: OrganizationRow, row: SenderCheckRow | undefined) {
    const facts = this.factsOf(organization);
    const of = (one: { what: string; name: string }) => `${one.what} ${one.name}`;
    const before = new Map(row?.records?.map((one) => [of(one), one]));
    const records = wantedRecords(facts).map((wanted): CheckedRecord => {
      const known = before.get(of(wanted));
      return known?.value === wanted.value ? known : { ...wanted, found: null, fault: null };
    });
    return { records, aligned: this.aligned(facts, records) };
  }

  private factsOf({ from_email, list_domain, link_url }: OrganizationRow): SenderFacts {
    const { inUse, next } = dkimKeysOf(this.config);
    const desk = new URL(this.config.PUBLIC_URL).hostname;
    return {
      from: from_email.split('@')[1] ?? '',
      lists: list_domain,
      signing: this.config.DKIM_DOMAIN,
      keys: [
        ...inUse.map((key) => ({ selector: key.selector, record: dkimRecord(key), use: 'now' as const })),
        ...next.map((key) => ({ selector: key.selector, record: dkimRecord(key), use: 'next' as const })),
      ],
      desk,
      links: link_url ? new URL(link_url).hostname : desk,
    };
  }

  private aligned(
    { from, signing, lists }: SenderFacts,
    records: readonly CheckedRecord[],
  ): { signature: boolean; returnPath: boolean } {
    const { dkim, spf } = alignmentOf(records);
    return {
      signature: isAligned(from, signing, dkim === 'strict', organizationalDomain),
      returnPath: isAligned(from, lists, spf === 'strict', organizationalDomain),
    };
  }
}

const UNSAID: TextNumber = { kind: null, registration: null, perSecond: null };

const flagOf = (value: number | null): boolean | null => (value === null ? null : value === 1);

function throughOf(row: SenderCheckRow | undefined): SenderView['through'] {
  if (!row?.through_at) return null;
  return {
    at: row.through_at.toISOString(),
    fault: row.through_fault,
    backAt: row.back_at?.toISOString() ?? null,
    signatures: row.back_signatures ?? [],
    tls: flagOf(row.back_tls),
  };
}
