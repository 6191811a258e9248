import { callHours, hoursNotes } from '../calls/call-hours';
import { Inject, Injectable } from '@nestjs/common';
import { format as formatAddress } from '@fragaria/address-formatter';
import { dayInZone } from '@goodword/core/common';
import type { PrintAct } from '@goodword/core/contract';
import { formatDay, formatMoney, formatValue } from '@goodword/core/fields';
import { addressee, greetingOf, oneEach } from '@goodword/core/household';
import type { LetterDoc } from '@goodword/core/letter';
import { type Decision, type Verdict } from '@goodword/core/permission';
import { verdictWords } from '@goodword/core/words';
import { CallsRepository } from '../calls/calls.repository';
import { CallsService, MOST_CALLS } from '../calls/calls.service';
import { MergeValuesRepository } from '../messages/merge-values.repository';
import { MessagesRepository } from '../messages/messages.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FactsRepository } from '../permission/ledger/facts.repository';
import { Database, type Scoped } from '../platform/database';
import { Conflict, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { HouseholdsRepository } from '../record/households.repository';
import { NotesRepository } from '../record/notes.repository';
import { FieldsRepository, valueOf } from '../supporters/fields.repository';
import { FieldsService } from '../supporters/fields.service';
import { GroupsRepository } from '../supporters/groups.repository';
import { SupportersRepository, type PersonRow, type PostalParts } from '../supporters/supporters.repository';
import { TeamRepository, type OrganizationRow } from '../team/team.repository';
import { toPdf } from './pdf';
import { callSheet, doorSheet, labelSheet, letterPages, type PrintSheet, type SheetPerson } from './sheets';
import { sentence } from '../platform/words';

const MOST: Record<PrintAct['form'], number> = {
  call: MOST_CALLS,
  door: 5000,
  labels: 20_000,
  letters: 3000,
};
const NAMES: Record<PrintAct['form'], string> = {
  call: 'Call sheet',
  door: 'Door-to-door sheet',
  labels: 'Labels',
  letters: 'Letters',
};
const COLUMN_WORDS: Record<string, string> = {
  phone: 'Phone',
  email: 'Email',
  address: 'Address',
  tags: 'Tags',
  'last-gift': 'Last gift',
  stage: 'Stage',
  notes: 'Last note',
};

/** What goes by post. */
const POSTED: ReadonlySet<PrintAct['form']> = new Set(['labels', 'letters']);

export interface PrintedDocument {
  name: string;
  bytes: Buffer;
  /** People who are on it; the others are held back. */
  on: number[];
  /** Why the others are not, as a sentence; empty where nobody is left out. */
  told: string;
}

interface Here {
  person: PersonRow;
  householdId: number | null;
  post: PostalParts | null;
  points: { kind: string; shown: string }[];
}

/**
 * People on paper: sheets to call from and to walk with, labels, letters. Paper is a word too: who may not be
 * called is on no call sheet, and who may not be written to by post gets no label, no letter and no knock.
 */
@Injectable()
export class PrintService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CallsRepository) private readonly calls: CallsRepository,
    @Inject(CallsService) private readonly callLists: CallsService,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(HouseholdsRepository) private readonly households: HouseholdsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(FieldsService) private readonly registry: FieldsService,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(NotesRepository) private readonly notes: NotesRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(MergeValuesRepository) private readonly mergeValues: MergeValuesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /**
   * What is printed, settled before the work begins: a call sheet is the sheet of a list of calls, so that
   * its answers can be entered.
   */
  async settled(scope: AccessScope, act: PrintAct, ids: readonly number[]): Promise<PrintAct> {
    if (ids.length > MOST[act.form])
      throw new Conflict(
        sentence('print.too-many', {
          count: ids.length,
          what: NAMES[act.form].toLowerCase(),
          most: MOST[act.form],
        }),
      );
    if (act.form === 'letters') await this.letter(this.database.read(scope), act);
    if (act.form !== 'call' || act.callListId !== null) return act;
    const name = act.title || NAMES.call;
    const { id } = await this.callLists.make(scope, {
      name,
      group: { ids: [...ids] },
      campaignId: null,
      script: '',
      purpose: act.purpose,
    });
    return { ...act, callListId: id };
  }

  async make(scope: AccessScope, act: PrintAct, ids: readonly number[]): Promise<PrintedDocument> {
    const db = this.database.read(scope);
    const organization = await this.team.organization(scope);
    const channel = act.form === 'call' ? 'call' : 'post';
    const asking = {
      channel,
      scope: act.purpose,
      rules: await this.houseRules.rules(db),
      now: new Date(),
    } as const;
    const decided = await this.facts.decide(db, ids, asking);
    const here = await this.here(db, ids, decided);
    const verdictOf = ({ person }: Here): Verdict => decided.get(person.id)?.verdict ?? 'no-address';
    const allowed = here.filter((one) => verdictOf(one) === 'send');
    // A town alone takes no letter.
    const may = POSTED.has(act.form) ? allowed.filter(({ post }) => post?.street) : allowed;
    const held = heldWords([
      ...here
        .filter((one) => verdictOf(one) !== 'send')
        .map((one) => verdictWords(verdictOf(one), channel).toLowerCase()),
      ...Array.from({ length: allowed.length - may.length }, () => 'no street on file'),
    ]);
    const document = await this.document(scope, act, may, held, organization);
    return {
      name: `${act.title || NAMES[act.form]}.pdf`,
      bytes: await toPdf(document),
      on: may.map(({ person }) => person.id),
      told: held.join(' '),
    };
  }

  private async document(
    scope: AccessScope,
    act: PrintAct,
    may: Here[],
    held: string[],
    organization: OrganizationRow,
  ) {
    switch (act.form) {
      case 'call':
        return this.callDocument(scope, act, may, held, organization);
      case 'door': {
        const people = await this.sheetPeople(scope, act, may, organization, []);
        return doorSheet(await this.sheet(scope, act, held, organization), people);
      }
      case 'labels': {
        const each = (act.together ? oneEach(may) : may.map((one) => [one])).sort((a, b) =>
          byPost(a[0]!, b[0]!),
        );
        return labelSheet(
          act.labels,
          each.map((together) => addressLines(together, organization)),
          act.used,
        );
      }
      case 'letters':
        return this.letterDocument(scope, act, may, organization);
    }
  }

  private async callDocument(
    scope: AccessScope,
    act: PrintAct,
    may: Here[],
    held: string[],
    organization: OrganizationRow,
  ) {
    const db = this.database.read(scope);
    const list = act.callListId === null ? undefined : await this.calls.find(db, act.callListId);
    if (!list) throw new NotFound('call list');
    const members = await this.calls.members(db, list.id, 0, MOST_CALLS);
    const known = new Map(may.map((one) => [one.person.id, one]));
    const on = members.flatMap((member) => known.get(member.supporter_id) ?? []);
    const view = await this.callLists.show(scope, list.id);
    const people = await this.sheetPeople(scope, act, on, organization, view.options);
    const numbers = new Map(members.map((member) => [member.supporter_id, member.position]));
    const sheet = await this.sheet(scope, { ...act, title: act.title || list.name }, held, organization);
    const rules = await this.houseRules.rules(db);
    const now = new Date();
    const hours = on.map(({ person }) => ({
      number: numbers.get(person.id)!,
      words: callHours(person, rules, organization, now).words,
    }));
    sheet.notes.unshift(...hoursNotes(hours));
    sheet.notes.unshift(`Answers are entered under Sort, Calls: “${list.name}”, by the numbers at the left.`);
    return callSheet(
      sheet,
      people.map((person, i) => ({ ...person, number: numbers.get(on[i]!.person.id)! })),
    );
  }

  private async letterDocument(
    scope: AccessScope,
    act: PrintAct,
    may: Here[],
    organization: OrganizationRow,
  ) {
    const db = this.database.read(scope);
    const letter = await this.letter(db, act);
    const sender = scope.actorId ? await this.team.teammate(scope, scope.actorId) : undefined;
    const values = await this.mergeValues.of(
      db,
      may.map(({ person }) => person.id),
      { channel: 'post', scope: act.purpose },
      organization,
      sender,
    );
    const letters = (act.together ? oneEach(may) : may.map((one) => [one])).map((together) => {
      const own = values.get(together[0]!.person.id) ?? {};
      // Only those who are written to are greeted: whoever of the household objected is not.
      const greeting = greetingOf(inOrder(together).map(nameOf), null, organization.locale);
      return { address: addressLines(together, organization), values: { ...own, greeting } };
    });
    const around = {
      registry: await this.registry.registry(scope),
      organization: organization.name,
      postalAddress: organization.postal_address,
      day: this.day(organization),
      paper: act.paper,
    };
    return letterPages(letter, letters, around);
  }

  private async letter(db: Scoped, act: PrintAct): Promise<LetterDoc> {
    const message = act.messageId === null ? undefined : await this.messages.find(db, act.messageId);
    if (!message?.letter) throw new Conflict(sentence('print.letter'));
    return message.letter;
  }

  private day(organization: OrganizationRow): string {
    return formatDay(dayInZone(Date.now(), organization.time_zone), organization.locale);
  }

  private async sheet(
    scope: AccessScope,
    act: PrintAct,
    held: string[],
    organization: OrganizationRow,
  ): Promise<PrintSheet> {
    const fields = await this.fields.all(this.database.read(scope));
    return {
      title: act.title || NAMES[act.form],
      notes: held,
      columns: act.columns.map((column) =>
        typeof column === 'number'
          ? (fields.find((field) => field.id === column)?.name ?? '')
          : COLUMN_WORDS[column]!,
      ),
      noteLines: act.noteLines,
      paper: act.paper,
      day: this.day(organization),
    };
  }

  private async sheetPeople(
    scope: AccessScope,
    act: PrintAct,
    people: Here[],
    organization: OrganizationRow,
    boxes: string[],
  ): Promise<SheetPerson[]> {
    const db = this.database.read(scope);
    const ids = people.map(({ person }) => person.id);
    const [fields, values, gifts, tags, notes, stages] = await Promise.all([
      this.fields.all(db),
      this.fields.valuesOf(db, ids),
      act.columns.includes('last-gift') ? this.supporters.gifts(db, ids) : [],
      act.columns.includes('tags') ? this.groups.namesOf(db, 'tag', ids) : new Map<number, string[]>(),
      act.columns.includes('notes') ? this.notes.lastOf(db, ids) : new Map<number, string>(),
      act.columns.includes('stage') && act.callListId !== null
        ? this.calls.stages(db, act.callListId)
        : new Map<number, string>(),
    ]);
    const valueAt = new Map(values.map((row) => [`${row.supporter_id}:${row.field_id}`, row]));
    // Newest first: the first of each is the last that they gave.
    const lastGift = new Map(
      [...gifts]
        .reverse()
        .flatMap((gift) => (Number(gift.amount) > 0 ? [[gift.supporter_id, gift] as const] : [])),
    );
    const cell = (column: PrintAct['columns'][number], { person, points, post }: Here): string => {
      if (typeof column === 'number') {
        const field = fields.find((one) => one.id === column);
        const row = valueAt.get(`${person.id}:${column}`);
        return field && row ? formatValue(field.type, valueOf(row), organization) : '';
      }
      const gift = lastGift.get(person.id);
      switch (column) {
        case 'phone':
          return points.find(({ kind }) => kind === 'mobile')?.shown ?? '';
        case 'email':
          return points.find(({ kind }) => kind === 'email')?.shown ?? '';
        case 'address':
          return post ? [post.street, post.city].filter(Boolean).join(', ') : '';
        case 'tags':
          return (tags.get(person.id) ?? []).join(', ');
        case 'last-gift':
          return gift
            ? `${formatMoney(Number(gift.amount), organization)}, ${formatDay(gift.given_on, organization.locale)}`
            : '';
        case 'stage':
          return stages.get(person.id) ?? '';
        default:
          return (notes.get(person.id) ?? '').slice(0, 160);
      }
    };
    return people.map((one, i) => ({
      number: i + 1,
      name: fullName(one),
      cells: act.columns.map((column) => cell(column, one)),
      boxes,
      street: one.post?.street ?? '',
      city: one.post?.city ?? '',
    }));
  }

  /**
   * People with what is printed of them. Of several numbers or streets it is the one that permission chose.
   */
  private async here(
    db: Scoped,
    ids: readonly number[],
    decided: ReadonlyMap<number, Decision>,
  ): Promise<Here[]> {
    const [people, points, homes] = await Promise.all([
      this.supporters.byIds(db, ids),
      this.supporters.pointsWithParts(db, ids),
      this.households.idsOf(db, ids),
    ]);
    const pointsOf = new Map<number, typeof points>();
    for (const point of points)
      pointsOf.set(point.supporter_id, [...(pointsOf.get(point.supporter_id) ?? []), point]);
    return people
      .map((person): Here => {
        const chosen = decided.get(person.id)?.contactPointId;
        const own = [...(pointsOf.get(person.id) ?? [])].sort(
          (a, b) => Number(b.id === chosen) - Number(a.id === chosen),
        );
        const post = own.find(({ kind }) => kind === 'post');
        return {
          person,
          householdId: homes.get(person.id) ?? null,
          points: own,
          post: post ? (post.parts ?? { street: post.shown }) : null,
        };
      })
      .sort(
        (a, b) =>
          a.person.last_name.localeCompare(b.person.last_name) ||
          a.person.first_name.localeCompare(b.person.first_name),
      );
  }
}

const nameOf = ({ person }: Here) => ({ firstName: person.first_name, lastName: person.last_name });
const fullName = ({ person }: Here) => `${person.first_name} ${person.last_name}`.trim() || 'No name on file';
/** The order that the post sorts by. */
const byPost = (a: Here, b: Here) =>
  (a.post?.postcode ?? '').localeCompare(b.post?.postcode ?? '') || fullName(a).localeCompare(fullName(b));

/** As it stands on an envelope of the country that it goes to; one's own country is left out. */
export function addressLines(
  together: Here[],
  organization: Pick<OrganizationRow, 'locale' | 'country'>,
): string[] {
  const { street = '', city = '', region = '', postcode = '', country = '' } = together[0]!.post ?? {};
  const lines = formatAddress(
    { road: street, city, state: region, postcode, countryCode: country || organization.country },
    { output: 'array', appendCountry: country !== '' && country !== organization.country },
  );
  return [
    addressee(inOrder(together).map(nameOf), organization.locale) || 'To whom it concerns',
    ...lines,
  ].filter((line) => line.trim() !== '');
}

/** Members of a household in the order in which they are greeted. */
function inOrder(together: readonly Here[]): Here[] {
  return [...together].sort((a, b) => a.person.id - b.person.id);
}

/** "12 people are not on it: opted out (10), no postal address (2)." */
function heldWords(reasons: readonly string[]): string[] {
  if (reasons.length === 0) return [];
  const counts = new Map<string, number>();
  for (const reason of reasons) counts.set(reason, (counts.get(reason) ?? 0) + 1);
  const each = [...counts].map(([reason, n]) => `${reason} (${n})`);
  return [sentence('print.not-on-it', { people: reasons.length, why: each })];
}
