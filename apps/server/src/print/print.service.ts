import { callHours, hoursNotes } from '../calls/call-hours';
import { Inject, Injectable } from '@nestjs/common';
import type { PrintAct } from '@goodword/core/contract';
import { dayInZone } from '@goodword/core/common';
import { formatDay } from '@goodword/core/fields';
import { oneEach } from '@goodword/core/household';
import type { Decision, Verdict } from '@goodword/core/permission';
import { verdictWords } from '@goodword/core/words';
import { CallsRepository } from '../calls/calls.repository';
import { CallPermission } from '../calls/call-permission.service';
import { CallsService } from '../calls/calls.service';
import { MOST_CALLS } from '../calls/step-calls.service';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FactsRepository } from '../permission/ledger/facts.repository';
import { Database } from '../platform/database';
import { Conflict, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { FieldsRepository } from '../supporters/fields.repository';
import { TeamRepository, type OrganizationRow } from '../team/team.repository';
import { toPdf } from './pdf';
import { callSheet, doorSheet, labelSheet, type PrintSheet } from './sheets';
import { sentence } from '../platform/words';
import { PrintedPeople, type Here, fullName, addressLines } from './printed-people.service';

export interface PrintedDocument {
  name: string;
  bytes: Buffer;
  /** People who are on it; the others are held back. */
  on: number[];
  /** Why the others are not, as a sentence; empty where nobody is left out. */
  told: string;
}

const MOST: Record<PrintAct['form'], number> = {
  call: MOST_CALLS,
  door: 5000,
  labels: 20_000,
};

const NAMES: Record<PrintAct['form'], string> = {
  call: 'Call sheet',
  door: 'Door-to-door sheet',
  labels: 'Labels',
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
const POSTED: ReadonlySet<PrintAct['form']> = new Set(['labels']);

/** The order that the post sorts by. */
const byPost = (a: Here, b: Here) =>
  (a.post?.postcode ?? '').localeCompare(b.post?.postcode ?? '') || fullName(a).localeCompare(fullName(b));

/**
 * People on paper: sheets to call from and to walk with, labels. Paper is a word too: who may not be
 * called is on no call sheet, and who may not be written to by post gets no label and no knock.
 */
@Injectable()
export class PrintService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CallsRepository) private readonly calls: CallsRepository,
    @Inject(CallPermission) private readonly callPermission: CallPermission,
    @Inject(CallsService) private readonly callLists: CallsService,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(PrintedPeople) private readonly printed: PrintedPeople,
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
    const decided = await this.decided(db, act, ids);
    const here = await this.printed.here(db, ids, decided);
    const verdictOf = ({ person }: Here): Verdict => decided.get(person.id)?.verdict ?? 'no-address';
    const allowed = here.filter((one) => verdictOf(one) === 'send');
    // A town alone takes no letter.
    const may = POSTED.has(act.form) ? allowed.filter(({ post }) => post?.street) : allowed;
    const suppressed = heldWords([
      ...here
        .filter((one) => verdictOf(one) !== 'send')
        .map((one) => verdictWords(verdictOf(one), channel).toLowerCase()),
      ...Array.from({ length: allowed.length - may.length }, () => 'no street on file'),
    ]);
    const document = await this.document(scope, act, may, suppressed, organization);
    return {
      name: `${act.title || NAMES[act.form]}.pdf`,
      bytes: await toPdf(document),
      on: may.map(({ person }) => person.id),
      told: suppressed.join(' '),
    };
  }

  /** Who may be written to, or called: on a list by what the list is for. */
  private async decided(db: Scoped, act: PrintAct, ids: readonly number[]): Promise<Map<number, Decision>> {
    const list = act.callListId === null ? undefined : await this.calls.find(db, act.callListId);
    if (list) return this.callPermission.decide(db, ids, list);
    const channel = act.form === 'call' ? 'call' : 'post';
    const rules = await this.houseRules.rules(db);
    return this.facts.decide(db, ids, { channel, scope: act.purpose, rules, now: new Date() });
  }

  private async document(
    scope: AccessScope,
    act: PrintAct,
    may: Here[],
    suppressed: string[],
    organization: OrganizationRow,
  ) {
    switch (act.form) {
      case 'call':
        return this.callDocument(scope, act, may, suppressed, organization);
      case 'door': {
        const people = await this.printed.sheetPeople(scope, act, may, organization, []);
        return doorSheet(await this.sheet(scope, act, suppressed, organization), people);
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
    }
  }

  private async callDocument(
    scope: AccessScope,
    act: PrintAct,
    may: Here[],
    suppressed: string[],
    organization: OrganizationRow,
  ) {
    const db = this.database.read(scope);
    const list = act.callListId === null ? undefined : await this.calls.find(db, act.callListId);
    if (!list) throw new NotFound('call list');
    const members = await this.calls.members(db, list.id, 0, MOST_CALLS);
    const known = new Map(may.map((one) => [one.person.id, one]));
    const on = members.flatMap((member) => known.get(member.supporter_id) ?? []);
    const view = await this.callLists.show(scope, list.id);
    const people = await this.printed.sheetPeople(scope, act, on, organization, view.options);
    const numbers = new Map(members.map((member) => [member.supporter_id, member.position]));
    const sheet = await this.sheet(
      scope,
      { ...act, title: act.title || list.name },
      suppressed,
      organization,
    );
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

  private async sheet(
    scope: AccessScope,
    act: PrintAct,
    suppressed: string[],
    organization: OrganizationRow,
  ): Promise<PrintSheet> {
    const fields = await this.fields.all(this.database.read(scope));
    return {
      title: act.title || NAMES[act.form],
      notes: suppressed,
      columns: act.columns.map((column) =>
        typeof column === 'number'
          ? (fields.find((field) => field.id === column)?.name ?? '')
          : COLUMN_WORDS[column]!,
      ),
      noteLines: act.noteLines,
      paper: act.paper,
      day: dayOnPaper(organization),
    };
  }
}

/** Today, where the organization is, as it stands on paper. */
function dayOnPaper(organization: OrganizationRow): string {
  return formatDay(dayInZone(Date.now(), organization.time_zone), organization.locale);
}

/** "12 people are not on it: opted out (10), no postal address (2)." */
function heldWords(reasons: readonly string[]): string[] {
  if (reasons.length === 0) return [];
  const counts = new Map<string, number>();
  for (const reason of reasons) counts.set(reason, (counts.get(reason) ?? 0) + 1);
  const each = [...counts].map(([reason, n]) => `${reason} (${n})`);
  return [sentence('print.not-on-it', { people: reasons.length, why: each })];
}
