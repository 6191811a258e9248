import { Inject, Injectable } from '@nestjs/common';
import { matchRow, placeOfRow, postalKey, shownAddress } from '@goodword/core/intake';
import type { FormAnswer, FormAsk, Language } from '@goodword/core/forms';
import { mustConfirm } from '@goodword/core/permission';
import { DoNotContactService } from '../permission/do-not-contact.service';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { PersonCellsRepository } from '../permission/ledger/facts.repository';
import type { NewEntry } from '../permission/ledger/entries';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { programScope } from '../platform/scope';
import { FieldsRepository } from '../supporters/fields.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { type NewPoint } from '../supporters/contact-points.repository';
import { ConfirmationsRepository, type PendingConfirmation } from './confirmations.repository';
import { FormsRepository, type FormRow } from './forms.repository';
import { FormPostsRepository } from './form-posts.repository';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

/**
 * Somebody joins by a form or a keyword: matched as any row is, and recorded as their own act, with the words
 * they saw.
 */
@Injectable()
export class JoinService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
    @Inject(FormPostsRepository) private readonly joining: FormPostsRepository,
    @Inject(ConfirmationsRepository) private readonly confirmations: ConfirmationsRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(PersonCellsRepository) private readonly cells: PersonCellsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  /** From the form to the ledger in one transaction. */
  async join(
    form: FormRow,
    answer: FormAnswer,
    around: { origin: string; language: Language; page: string },
  ): Promise<void> {
    await this.database.write(programScope(form.organization_id), async (tx) => {
      await this.record(tx, form, answer, { ...around, how: 'form' });
      await this.forms.count(tx, form.id, 'joined');
    });
  }

  /**
   * As `join`, inside a transaction; a keyword comes from the phone itself, so there is nothing to confirm.
   */
  async record(tx: Scoped, form: FormRow, answer: FormAnswer, around: Around): Promise<void> {
    await this.lockAddresses(tx, answer);
    const found = await this.person(tx, form, answer, around);
    const points = await this.points(tx, answer);
    // Somebody new is what the form says. Somebody known stays as they are until they have shown that it was
    // them.
    const isProven = !found.known || around.how === 'keyword';
    if (isProven) await this.apply(tx, form, answer, around, found);
    const pending = isProven ? undefined : await this.pendingOf(tx, form, answer, around, found.supporterId);
    await this.recordAsks(tx, form, answer, around, { ...found, points, pending });
  }

  private async recordAsks(
    tx: Scoped,
    form: FormRow,
    answer: FormAnswer,
    around: Around,
    about: { supporterId: number; points: Points; pending: PendingConfirmation | undefined },
  ): Promise<void> {
    const { supporterId, points } = about;
    const person = await this.cells.one(tx, supporterId, await this.houseRules.rules(tx));
    const rules = person.rules.now;
    const toConfirm: (FormAsk & { at: Point })[] = [];
    const entries: NewEntry[] = [];
    for (const channel of ['email', 'text', 'call'] as const) {
      const asks = answer.agreed.filter((ask) => ask.channel === channel);
      const at = channel === 'email' ? points.email : points.mobile;
      if (asks.length === 0 || !at) continue;
      const stand = (ask: FormAsk) =>
        person.standingAt({ contactPointId: at.id, channel, scope: ask.scope }, Date.now()).state;
      const states = asks.map(stand);
      const formAsks = channel === 'email' && form.definition.confirm.email === 'always';
      const confirm = mustConfirm({ how: around.how, channel, states, proven: false, formAsks, rules });
      asks.forEach((ask, i) => {
        const open = confirm && states[i] !== 'yes';
        // Anybody can have typed what is agreed already: it is no new word of theirs, and there is nothing to
        // confirm.
        const unproven = states[i] === 'yes' && around.how !== 'keyword';
        if (open) toConfirm.push({ ...ask, at });
        entries.push({
          contactPointId: at.id,
          supporterId,
          channel,
          scope: ask.scope,
          state: open || unproven ? 'asked' : 'yes',
          saidAt: new Date(),
          byPerson: true,
          how: around.how,
          words: ask.words,
          source: `Form “${form.name}”, version ${form.version}`,
          form: { id: form.id, version: form.version },
          page: around.page ?? null,
          origin: around.origin,
        });
      });
    }
    await this.ledger.recordAll(tx, entries);
    await this.ask(tx, form, supporterId, toConfirm, {
      pending: about.pending,
      withinDays: rules.confirm.withinDays,
    });
  }

  /** One request to the mailbox and one to the phone, whatever they were asked. */
  private async ask(
    tx: Scoped,
    form: FormRow,
    supporterId: number,
    asks: readonly (FormAsk & { at: Point })[],
    about: { pending: PendingConfirmation | undefined; withinDays: number },
  ): Promise<void> {
    const byPoint = new Map<number, (FormAsk & { at: Point })[]>();
    for (const ask of asks) byPoint.set(ask.at.id, [...(byPoint.get(ask.at.id) ?? []), ask]);
    for (const some of byPoint.values()) {
      const { at } = some[0]!;
      await this.confirmations.add(tx, {
        kind: 'join',
        formId: form.id,
        version: form.version,
        supporterId,
        contactPointId: at.id,
        normal: at.normal,
        channel: some.some(({ channel }) => channel === 'text') ? 'text' : some[0]!.channel,
        asks: some.map(({ scope, words, channel }) => ({ scope, words, channel })),
        // Only the address that was theirs before shows who they are.
        ...(about.pending && (await this.joining.hasPoint(tx, supporterId, at.id))
          ? { pending: about.pending }
          : {}),
        expiresAt: new Date(Date.now() + about.withinDays * 86_400_000),
      });
    }
  }

  /**
   * The same address and an agreeing name is the same person; another name is somebody who shares the
   * address. Only an address that something is agreed to for tells who they are: another one may be
   * anybody's.
   */
  private async person(
    tx: Scoped,
    form: FormRow,
    answer: FormAnswer,
    around: Around,
  ): Promise<{ supporterId: number; known: boolean }> {
    const tells = (kind: 'email' | 'mobile') =>
      answer.agreed.some(({ channel }) => (kind === 'email') === (channel === 'email'));
    const [email, mobile] = [tells('email') ? answer.email : null, tells('mobile') ? answer.mobile : null];
    const candidates = [
      ...(email ? await this.joining.candidates(tx, { kind: 'email', normal: email.normal }) : []),
      ...(mobile ? await this.joining.candidates(tx, { kind: 'mobile', normal: mobile.normal }) : []),
    ];
    const match = matchRow(answer, candidates);
    // The email of one person with the mobile of another: the email decides, and the number is shared from
    // now on.
    const id =
      match.kind === 'same'
        ? match.id
        : match.kind === 'look' && match.why === 'two-people'
          ? match.candidates[0]!.id
          : null;
    if (id !== null) return { supporterId: id, known: true };
    const made = { ...ownOf(answer, around.language), chapterId: form.definition.chapterId };
    return { supporterId: await this.joining.make(tx, made), known: false };
  }

  private async apply(
    tx: Scoped,
    form: FormRow,
    answer: FormAnswer,
    around: Around,
    found: { supporterId: number; known: boolean },
  ): Promise<void> {
    const id = found.supporterId;
    if (found.known) await this.joining.fillBlanks(tx, id, ownOf(answer, around.language));
    for (const address of [...addressesOf(answer), ...postOf(answer, id)])
      await this.contacts.addPoint(tx, id, { ...address, doNotContact: false });
    if (answer.post) await this.contacts.keepPostcode(tx, id);
    const there = new Set(
      found.known ? (await this.fields.valuesOf(tx, [id])).map((row) => row.field_id) : [],
    );
    for (const { fieldId, value } of answer.values)
      if (!there.has(fieldId)) await this.fields.set(tx, id, fieldId, value);
    for (const tagId of form.definition.tagIds) await this.groups.put(tx, 'tag', id, tagId);
    for (const listId of form.definition.listIds) await this.groups.put(tx, 'list', id, listId);
  }

  /**
   * What is kept with the question until it is answered; names that differ are told in the history and change
   * nothing.
   */
  private async pendingOf(
    tx: Scoped,
    form: FormRow,
    answer: FormAnswer,
    around: Around,
    id: number,
  ): Promise<PendingConfirmation> {
    const before = await this.joining.person(tx, id);
    const differing = [
      ['First name', before?.first_name, answer.firstName],
      ['Last name', before?.last_name, answer.lastName],
    ].filter(([, old, now]) => old && now && old !== now);
    for (const [what, old, now] of differing)
      await audit(
        tx,
        'form',
        { supporter: id },
        `The form “${form.name}” says ${what} ${now}; ${old} is kept`,
        { before: old, after: now },
      );
    const own = ownOf(answer, around.language);
    const theirs = new Set(
      (await this.contacts.points(tx, [id])).map((point) => `${point.kind}:${point.normal}`),
    );
    return {
      ...own,
      // Only blanks are filled.
      firstName: before?.first_name ? '' : own.firstName,
      lastName: before?.last_name ? '' : own.lastName,
      values: answer.values,
      tagIds: form.definition.tagIds,
      listIds: form.definition.listIds,
      addresses: [...addressesOf(answer), ...postOf(answer, id)].filter(
        ({ kind, normal }) => !theirs.has(`${kind}:${normal}`),
      ),
    };
  }

  /**
   * Holds the addresses until the transaction ends, made where they are new: whoever posts the same ones at
   * the same moment (a button pressed twice) waits here, and then finds the person that the first has made.
   */
  private async lockAddresses(tx: Scoped, answer: FormAnswer): Promise<void> {
    for (const { kind, normal, shown } of addressesOf(answer)) {
      const doNotContact = await this.doNotContact.isClosed(tx, kind, normal);
      await this.contacts.ensurePoint(tx, { kind, normal, shown, doNotContact });
    }
  }

  private async points(tx: Scoped, answer: FormAnswer): Promise<Points> {
    const out: Points = {};
    for (const { kind, normal, shown } of addressesOf(answer))
      out[kind] = {
        id: await this.contacts.ensurePoint(tx, { kind, normal, shown, doNotContact: false }),
        normal,
      };
    return out;
  }
}

/** How somebody came to join, and from where. */
interface Around {
  origin: string | null;
  language: Language | null;
  how: 'form' | 'keyword';
  /** The address of the page. */
  page?: string;
}

interface Point {
  id: number;
  normal: string;
}

type Points = Partial<Record<'email' | 'mobile', Point>>;

function addressesOf(answer: FormAnswer): { kind: 'email' | 'mobile'; normal: string; shown: string }[] {
  return (['email', 'mobile'] as const).flatMap((kind) => {
    const address = answer[kind];
    return address ? [{ kind, normal: address.normal, shown: address.shown }] : [];
  });
}

/** The postal address, which nothing is agreed to at. */
function postOf({ post }: FormAnswer, supporterId: number): NewPoint[] {
  return post
    ? [{ kind: 'post', normal: postalKey(post, supporterId), shown: shownAddress(post), parts: post }]
    : [];
}

function ownOf({ firstName, lastName, country, mobile, post }: FormAnswer, language: Language | null) {
  const home = country ?? (post?.country || null) ?? mobile?.country?.slice(0, 2) ?? null;
  const place = home
    ? placeOfRow({ post: { country: home, region: post?.region ?? '' }, mobile: null }, home)
    : { country: null, region: null };
  return { firstName, lastName, country: place.country, region: place.region, language };
}
