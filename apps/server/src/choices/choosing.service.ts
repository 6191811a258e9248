import { Inject, Injectable } from '@nestjs/common';
import type { Language } from '@goodword/core/forms';
import { cleanEmail, cleanMobile } from '@goodword/core/intake';
import type { Channel, Scope as PermissionScope } from '@goodword/core/permission';
import { standardTextAsk } from '@goodword/core/text';
import { ConfirmationsRepository } from '../forms/confirmations.repository';
import { DoNotContactService } from '../permission/do-not-contact.service';
import { LedgerRepository } from '../permission/ledger.repository';
import { audit } from '../platform/audit';
import { Database, type Scoped } from '../platform/database';
import { phrase, PHRASES, type Phrases } from '../platform/pages/phrases';
import { programScope } from '../platform/scope';
import { CHANNELS_OF } from '../supporters/person-ledger.service';
import { SupportersRepository, type PointRow } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { ChoicesRepository } from './choices.repository';
import { ChoicesService, FRESH_DAYS, type Held } from './choices.service';

const DAY_MS = 86_400_000;

/** What supporters do on their preference page: choose, pause, leave, correct, ask to be erased. Each act is theirs, with its words. */
@Injectable()
export class ChoosingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ChoicesService) private readonly choices: ChoicesService,
    @Inject(ChoicesRepository) private readonly repository: ChoicesRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(ConfirmationsRepository) private readonly confirmations: ConfirmationsRepository,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /** What was ticked of what was shown: only differences are recorded, each with the words that stood beside its box. */
  async choose(held: Held, shown: ReadonlySet<string>, ticked: ReadonlySet<string>, language: Language, origin: string): Promise<void> {
    await this.write(held, async (tx) => {
      const view = await this.choices.read(tx, held, language);
      const points = await this.supporters.points(tx, [held.supporterId]);
      for (const choice of view.choices) {
        const key = `${choice.channel}.${choice.scope}`;
        if (!shown.has(key) || ticked.has(key) === choice.on) continue;
        const on = ticked.has(key);
        const words = on && choice.channel === 'text' ? `${choice.name}. ${standardTextAsk(view.organization.name, 2)}` : choice.name;
        // A no closes every address of the channel; a yes is said at the first.
        const at = points.filter((point) => CHANNELS_OF[point.kind].includes(choice.channel));
        for (const point of on ? at.slice(0, 1) : at)
          await this.record(tx, held, point, choice.channel, choice.scope, on ? 'yes' : 'no', words, origin);
        if (on && choice.scope.startsWith('list:')) await this.putOnList(tx, held, Number(choice.scope.slice(5)));
      }
    });
  }

  async nothing(held: Held, origin: string, words: string): Promise<void> {
    await this.everyChannel(held, (tx, point, channel) => this.record(tx, held, point, channel, 'all', 'no', words, origin));
  }

  /** A pause of so many days on everything, or its end (0). */
  async pause(held: Held, days: number, origin: string, words: string): Promise<void> {
    const until = new Date(days === 0 ? Date.now() : Math.floor(Date.now() / DAY_MS + days) * DAY_MS + DAY_MS - 1);
    await this.everyChannel(held, (tx, point, channel) => this.record(tx, held, point, channel, 'all', 'pause', words, origin, until));
  }

  private async everyChannel(held: Held, act: (tx: Scoped, point: PointRow, channel: Channel) => Promise<void>): Promise<void> {
    await this.write(held, async (tx) => {
      for (const point of await this.supporters.points(tx, [held.supporterId]))
        for (const channel of CHANNELS_OF[point.kind]) await act(tx, point, channel);
    });
  }

  private async record(
    tx: Scoped,
    held: Held,
    point: PointRow,
    channel: Channel,
    scope: PermissionScope,
    state: 'yes' | 'no' | 'pause',
    words: string,
    origin: string,
    until?: Date,
  ): Promise<void> {
    await this.ledger.record(tx, {
      contactPointId: point.id,
      supporterId: held.supporterId,
      channel,
      scope,
      state,
      saidAt: new Date(),
      untilAt: until ?? null,
      byPerson: true,
      how: 'preferences',
      words,
      source: 'On their preference page',
      origin,
    });
  }

  private async putOnList(tx: Scoped, held: Held, listId: number): Promise<void> {
    tx.changed('list', listId, [held.supporterId]);
    await tx.execute('INSERT IGNORE INTO supporter_list (organization_id, supporter_id, list_id) VALUES (:org, :supporterId, :listId)', {
      supporterId: held.supporterId,
      listId,
    });
  }

  /** Corrects name and addresses. A new address is asked to confirm, and takes the place of the old one when it has. */
  async correct(
    held: Held,
    yours: { firstName: string; lastName: string; email: string; mobile: string },
    language: Language,
  ): Promise<{ fault: { input: string; phrase: keyof Phrases; value: string } | null }> {
    const p = PHRASES[language];
    const organization = await this.team.organization(programScope(held.organizationId));
    const email = yours.email.trim() === '' ? null : cleanEmail(yours.email);
    const mobile = yours.mobile.trim() === '' ? null : cleanMobile(yours.mobile, organization.country);
    if (email && !email.ok) return { fault: { input: 'email', phrase: 'badEmail', value: yours.email.slice(0, 60) } };
    if (mobile && !mobile.ok) return { fault: { input: 'mobile', phrase: 'badMobile', value: yours.mobile.slice(0, 60) } };
    await this.write(held, async (tx) => {
      const person = await this.supporters.hold(tx, held.supporterId);
      const [first, last] = [yours.firstName.trim().slice(0, 100), yours.lastName.trim().slice(0, 100)];
      if (first !== person.first_name || last !== person.last_name) {
        await this.supporters.rename(tx, held.supporterId, first, last);
        const [before, after] = [`${person.first_name} ${person.last_name}`.trim(), `${first} ${last}`.trim()];
        await audit(tx, {
          act: 'rename',
          subject: 'supporter',
          subjectId: held.supporterId,
          words: `They changed their name to ${after || 'none'} themselves`,
          before,
          after,
        });
      }
      const view = await this.choices.read(tx, held, language);
      const points = await this.supporters.points(tx, [held.supporterId]);
      for (const [kind, cleaned] of [
        ['email', email],
        ['mobile', mobile],
      ] as const) {
        if (!cleaned?.ok || points.some((point) => point.kind === kind && point.normal === cleaned.normal)) continue;
        const closed = await this.doNotContact.isClosed(tx, kind, cleaned.normal);
        const contactPointId = await this.supporters.ensurePoint(tx, { kind, normal: cleaned.normal, shown: cleaned.shown, doNotContact: closed });
        const channel = kind === 'email' ? ('email' as const) : ('text' as const);
        // What they agreed to at the old address goes with them, said anew at the new one.
        const asks = view.choices
          .filter((choice) => choice.channel === channel && choice.state === 'yes')
          .map((choice) => ({
            scope: choice.scope,
            words: `${choice.name}: ${phrase(p.addressBody, { organization: organization.name, address: cleaned.shown })}`,
          }));
        await this.confirmations.add(tx, {
          kind: 'address',
          formId: null,
          version: null,
          supporterId: held.supporterId,
          contactPointId,
          channel,
          asks,
          expiresAt: new Date(Date.now() + FRESH_DAYS * DAY_MS),
          saidNo: false,
        });
      }
    });
    return { fault: null };
  }

  async askErasure(held: Held): Promise<void> {
    await this.write(held, async (tx) => {
      if (!(await this.repository.erasureAsked(tx, held.supporterId))) await this.repository.askErasure(tx, held.supporterId);
    });
  }

  private async write(held: Held, work: (tx: Scoped) => Promise<void>): Promise<void> {
    await this.database.write(programScope(held.organizationId), work);
  }
}
