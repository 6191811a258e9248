import { Inject, Injectable } from '@nestjs/common';
import type { Language } from '@goodword/core/forms';
import { cleanEmail, cleanMobile } from '@goodword/core/intake';
import {
  asksToConfirm,
  CHANNELS,
  type Channel,
  type Scope as PermissionScope,
} from '@goodword/core/permission';
import { standardTextAsk } from '@goodword/core/words';
import { ConfirmationsRepository } from '../forms/confirmations.repository';
import { DoNotContactService } from '../permission/do-not-contact.service';
import type { NewEntry } from '../permission/ledger/entries';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { phrase, PHRASES } from '../platform/pages/phrases';
import { type Phrases } from '../platform/pages/phrases-en';
import { programScope } from '../platform/scope';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { PreferencesRepository } from './preferences.repository';
import {
  PreferencesService,
  FRESH_DAYS,
  type PreferenceLine,
  type PreferencesView,
  type OpenedLink,
} from './preferences.service';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

const DAY_MS = 86_400_000;

/**
 * Keys of boxes: all that were on the page, those that were on when it was shown, those that are ticked now.
 */
export interface PostedPreferences {
  shown: ReadonlySet<string>;
  /** Null from a page that does not say. */
  was: ReadonlySet<string> | null;
  ticked: ReadonlySet<string>;
}

/**
 * What supporters do on their preference page: choose, pause, leave, correct, ask to be erased. Each act is
 * theirs, with its words.
 */
@Injectable()
export class PreferenceCommands {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PreferencesService) private readonly preferences: PreferencesService,
    @Inject(PreferencesRepository) private readonly repository: PreferencesRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(ConfirmationsRepository) private readonly confirmations: ConfirmationsRepository,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  /**
   * What was ticked of what was shown: each box that was changed is an act, with the words that stood beside
   * it. A no is written down whatever stands now. A yes wants a link in its time, and for texts and calls an
   * answer from the phone where the rule of the place says so.
   */
  async choose(
    opened: OpenedLink,
    posted: PostedPreferences,
    language: Language,
    origin: string,
  ): Promise<'saved' | 'phoneAsked' | 'wantsFresh'> {
    return this.write(opened, async (tx) => {
      const view = await this.preferences.read(tx, opened, language);
      const entries: NewEntry[] = [];
      const toConfirm = new Map<Channel, PreferenceLine[]>();
      let refused = false;
      for (const choice of view.choices) {
        const key = `${choice.channel}.${choice.scope}`;
        if (!posted.shown.has(key)) continue;
        const [was, on] = [posted.was ? posted.was.has(key) : choice.on, posted.ticked.has(key)];
        if (was === on) continue;
        if (!on) entries.push(this.entry(opened, choice.channel, choice.scope, 'no', choice.name, origin));
        else if (!opens(opened, view, choice.channel)) refused ||= choice.state !== 'yes';
        else if (mustAskPhone(choice.channel, view) && choice.state === 'yes') continue;
        else if (mustAskPhone(choice.channel, view))
          toConfirm.set(choice.channel, [...(toConfirm.get(choice.channel) ?? []), choice]);
        else entries.push(this.yes(opened, view, choice, 'yes', origin));
      }
      for (const [channel, asks] of toConfirm)
        entries.push(...(await this.askPhone(tx, opened, view, channel, asks, origin)));
      await this.ledger.recordAll(tx, entries);
      for (const { scope, state } of entries)
        if (state === 'yes' && scope.startsWith('list:'))
          await this.putOnList(tx, opened, Number(scope.slice(5)));
      return refused ? 'wantsFresh' : toConfirm.size > 0 ? 'phoneAsked' : 'saved';
    });
  }

  private yes(
    opened: OpenedLink,
    view: PreferencesView,
    choice: PreferenceLine,
    state: 'yes' | 'asked',
    origin: string,
  ): NewEntry {
    const texted = choice.channel === 'text' ? `. ${standardTextAsk(view.organization.name, 2)}` : '';
    const entry = this.entry(opened, choice.channel, choice.scope, state, `${choice.name}${texted}`, origin);
    return { ...entry, contactPointId: view.points[choice.channel] ?? null };
  }

  /**
   * A link in a mail says nothing of whose telephone it is: the phone is asked, and they stand as Asked until
   * it answers.
   */
  private async askPhone(
    tx: Scoped,
    opened: OpenedLink,
    view: PreferencesView,
    channel: Channel,
    asks: readonly PreferenceLine[],
    origin: string,
  ): Promise<NewEntry[]> {
    const point = (await this.contacts.points(tx, [opened.supporterId])).find(
      ({ id }) => id === view.points[channel],
    );
    if (!point) return [];
    const entries = asks.map((choice) => this.yes(opened, view, choice, 'asked', origin));
    await this.confirmations.add(tx, {
      kind: 'join',
      formId: null,
      version: null,
      supporterId: opened.supporterId,
      contactPointId: point.id,
      normal: point.normal,
      channel,
      asks: entries.map(({ scope, words = '' }) => ({ scope, words })),
      expiresAt: new Date(Date.now() + view.rules.confirm.withinDays * DAY_MS),
    });
    return entries;
  }

  async nothing(opened: OpenedLink, origin: string, words: string): Promise<void> {
    await this.write(opened, (tx) =>
      this.ledger.recordAll(
        tx,
        CHANNELS.map((channel) => this.entry(opened, channel, 'all', 'no', words, origin)),
      ),
    );
  }

  /** A pause of so many days on everything, or its end (0), which opens and so wants a link in its time. */
  async pause(opened: OpenedLink, days: number, origin: string, words: string): Promise<void> {
    if (days === 0 && !opened.inTime) return;
    const untilAt = new Date(
      days === 0 ? Date.now() : Math.floor(Date.now() / DAY_MS + days) * DAY_MS + DAY_MS - 1,
    );
    await this.write(opened, (tx) =>
      this.ledger.recordAll(
        tx,
        CHANNELS.map((channel) => ({
          ...this.entry(opened, channel, 'all', 'pause', words, origin),
          untilAt,
        })),
      ),
    );
  }

  /** What was said on the page that a mail opened, through its address; of other channels without one. */
  private entry(
    opened: OpenedLink,
    channel: Channel,
    scope: PermissionScope,
    state: 'yes' | 'no' | 'asked' | 'pause',
    words: string,
    origin: string,
  ): NewEntry {
    return {
      contactPointId: channel === 'email' ? opened.contactPointId : null,
      supporterId: opened.supporterId,
      channel,
      scope,
      state,
      saidAt: new Date(),
      byPerson: true,
      how: 'preferences',
      words,
      source: 'On their preference page',
      origin,
    };
  }

  private async putOnList(tx: Scoped, opened: OpenedLink, listId: number): Promise<void> {
    tx.changed('list', listId, [opened.supporterId]);
    await tx.execute(
      `INSERT IGNORE INTO supporter_list (organization_id, supporter_id, list_id)
        VALUES (:org, :supporterId, :listId)`,
      {
        supporterId: opened.supporterId,
        listId,
      },
    );
  }

  /**
   * Corrects name and addresses. A new address is asked to confirm, and takes the place of the old one when
   * it has.
   */
  async correct(
    opened: OpenedLink,
    yours: { firstName: string; lastName: string; email: string; mobile: string },
    language: Language,
  ): Promise<{ fault: { input: string; phrase: keyof Phrases; value: string } | null }> {
    const p = PHRASES[language];
    const organization = await this.team.organization(programScope(opened.organizationId));
    const email = yours.email.trim() === '' ? null : cleanEmail(yours.email);
    const mobile = yours.mobile.trim() === '' ? null : cleanMobile(yours.mobile, organization.country);
    if (email && !email.ok)
      return { fault: { input: 'email', phrase: 'badEmail', value: yours.email.slice(0, 60) } };
    if (mobile && !mobile.ok)
      return { fault: { input: 'mobile', phrase: 'badMobile', value: yours.mobile.slice(0, 60) } };
    await this.write(opened, async (tx) => {
      const person = await this.supporters.lockForUpdate(tx, opened.supporterId);
      const [first, last] = [yours.firstName.trim().slice(0, 100), yours.lastName.trim().slice(0, 100)];
      if (first !== person.first_name || last !== person.last_name) {
        await this.supporters.rename(tx, opened.supporterId, first, last);
        const [before, after] = [
          `${person.first_name} ${person.last_name}`.trim(),
          `${first} ${last}`.trim(),
        ];
        await audit(
          tx,
          'rename',
          { supporter: opened.supporterId },
          `They changed their name to ${after || 'none'} themselves`,
          { before, after },
        );
      }
      const view = await this.preferences.read(tx, opened, language);
      const points = await this.contacts.points(tx, [opened.supporterId]);
      for (const [kind, cleaned] of [
        ['email', email],
        ['mobile', mobile],
      ] as const) {
        if (!cleaned?.ok || points.some((point) => point.kind === kind && point.normal === cleaned.normal))
          continue;
        const closed = await this.doNotContact.isClosed(tx, kind, cleaned.normal);
        const contactPointId = await this.contacts.ensurePoint(tx, {
          kind,
          normal: cleaned.normal,
          shown: cleaned.shown,
          doNotContact: closed,
        });
        const channel = kind === 'email' ? ('email' as const) : ('text' as const);
        await this.confirmations.add(tx, {
          kind: 'address',
          formId: null,
          version: null,
          supporterId: opened.supporterId,
          contactPointId,
          normal: cleaned.normal,
          channel,
          asks: [
            {
              scope: 'all',
              words: phrase(p.addressBody, { organization: organization.name, address: cleaned.shown }),
            },
          ],
          pending: { replaces: points.find((point) => point.id === view.points[channel])?.id ?? null },
          expiresAt: new Date(Date.now() + FRESH_DAYS * DAY_MS),
        });
      }
    });
    return { fault: null };
  }

  async askErasure(opened: OpenedLink): Promise<void> {
    await this.write(opened, async (tx) => {
      if (!(await this.repository.erasureAsked(tx, opened.supporterId)))
        await this.repository.askErasure(tx, opened.supporterId);
    });
  }

  private write<T>(opened: OpenedLink, work: (tx: Scoped) => Promise<T>): Promise<T> {
    return this.database.write(programScope(opened.organizationId), work);
  }
}

/** A yes wants a link in its time, and by email one that came to the very address that the yes is about. */
function opens(opened: OpenedLink, view: PreferencesView, channel: Channel): boolean {
  return opened.inTime && (channel !== 'email' || view.points.email === opened.contactPointId);
}

function mustAskPhone(channel: Channel, view: PreferencesView): boolean {
  return (channel === 'text' || channel === 'call') && asksToConfirm(view.rules, channel);
}
