import { Inject, Injectable } from '@nestjs/common';
import { writeCsv } from '@goodword/core/intake';
import type { Verdict } from '@goodword/core/permission';
import { letterFormOf } from '@goodword/core/print';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FactsRepository } from '../permission/ledger/facts.repository';
import { isLostConnection } from '../platform/database-errors';
import { Database } from '../platform/database';
import { HandlesJob, type Running } from '../platform/jobs';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { sentence } from '../platform/words';
import { MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { ByHandRepository } from '../sending/by-hand.repository';
import { eligibilityQueryOf } from '../sending/last-look.service';
import { toPdf } from '../print/pdf';
import { addressLines, fullName, PrintedPeople, type Here } from '../print/printed-people.service';
import { TeamRepository } from '../team/team.repository';
import { LetterComposer, type LetterOf } from './letter-composer.service';
import {
  LettersRepository,
  type LetterFileRow,
  type LettersRow,
  type SharingLetter,
} from './letters.repository';

/** Letters of one file: what a printer takes in one go. */
const IN_A_FILE = 500;
/** Letters that are decided and read at once. */
const SLICE = 2000;

/** Lays out the letters of a message: who may still be written to, by postcode, in files to print. */
@Injectable()
export class LettersJob {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(LettersRepository) private readonly letters: LettersRepository,
    @Inject(ByHandRepository) private readonly byHand: ByHandRepository,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(PrintedPeople) private readonly printed: PrintedPeople,
    @Inject(LetterComposer) private readonly composer: LetterComposer,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  @HandlesJob('message-letters')
  async run(job: Running): Promise<void> {
    const message = await this.messages.find(this.database.read(job.scope), job.refId);
    if (message?.state !== 'posting') return;
    const scope = { ...job.scope, chapterId: message.chapter_id };
    const row = await this.asked(scope, message.id);
    if (row.made === row.asked) return;
    try {
      await this.layOut(job, scope, message, row);
    } catch (error) {
      if (isLostConnection(error)) throw error;
      const problem = sentence('letters.failed', { detail: (error as Error).message }).slice(0, 300);
      await this.database.writeUnlogged(scope, (tx) => this.letters.change(tx, message.id, { problem }));
      throw error;
    }
  }

  /** What was asked for; the first time it is asked for in the form of the organization's country. */
  private async asked(scope: AccessScope, messageId: number): Promise<LettersRow> {
    const { country } = await this.team.organization(scope);
    return this.database.writeUnlogged(scope, async (tx) => {
      const known = await this.letters.find(tx, messageId);
      if (known) return known;
      await this.letters.ask(tx, messageId, letterFormOf(country));
      return (await this.letters.find(tx, messageId))!;
    });
  }

  private async layOut(
    job: Running,
    scope: AccessScope,
    message: MessageRow,
    row: LettersRow,
  ): Promise<void> {
    const piles = (await this.open(scope, message)).sort(byPost);
    const letters = piles.map((together, i): LetterOf & { deliveryId: number } => ({
      number: i + 1,
      together: together.people,
      deliveryId: together.deliveryId,
    }));
    await this.database.writeUnlogged(scope, (tx) =>
      this.letters.change(tx, message.id, { total: letters.length, done: 0 }),
    );
    const files: Omit<LetterFileRow, 'id'>[] = [];
    for (let from = 0; from < letters.length; from += IN_A_FILE) {
      if (await job.stopped()) return this.drop(files);
      const some = letters.slice(from, from + IN_A_FILE);
      const document = await this.composer.pages(scope, message, some, row.form);
      const [first, last] = [some[0]!.number, some.at(-1)!.number];
      const name = sentence('letters.file', { name: message.name.slice(0, 100), first, last });
      files.push(await this.file('pdf', `${name}.pdf`, await toPdf(document), first, last));
      await this.database.writeUnlogged(scope, (tx) =>
        this.letters.change(tx, message.id, { done: from + some.length }),
      );
      await job.progress(from + some.length, letters.length);
    }
    if (letters.length > 0)
      files.push(
        await this.file(
          'csv',
          `${sentence('letters.addresses', { name: message.name.slice(0, 100) })}.csv`,
          await this.addresses(scope, letters),
          1,
          letters.length,
        ),
      );
    const old = await this.database.writeUnlogged(scope, async (tx) => {
      // Stopped, posted or asked for once more meanwhile: then these are not the letters.
      const [current, now] = [
        await this.messages.lock(tx, message.id),
        await this.letters.find(tx, message.id),
      ];
      if (current?.state !== 'posting' || now?.asked !== row.asked)
        return files.map((one) => one.storage_key);
      const before = await this.letters.clear(tx, message.id);
      await this.letters.keep(tx, message.id, letters, files);
      await this.letters.change(tx, message.id, { made: row.asked, problem: null });
      return before;
    });
    for (const key of old) await this.storage.remove(key);
  }

  /**
   * Those who may be written to now, each household together. Who may not is held at the door; where the
   * letter was for somebody else of the household too, it is theirs from now on.
   */
  private async open(scope: AccessScope, message: MessageRow): Promise<OpenLetter[]> {
    const db = this.database.read(scope);
    const homes = new Map<number, SharingLetter[]>();
    if (message.recipients.apart !== true)
      for (const one of await this.letters.sharing(db, message.id))
        homes.set(one.householdId, [...(homes.get(one.householdId) ?? []), one]);
    const waiting = await this.letters.waiting(db, message.id);
    const out: OpenLetter[] = [];
    for (let from = 0; from < waiting.length; from += SLICE) {
      const candidates = waiting
        .slice(from, from + SLICE)
        .map((letter) => [letter, ...(homes.get(letter.householdId ?? 0) ?? [])]);
      const meant = await this.meant(scope, message, candidates.flat());
      const [refused, taken]: [Refused[], number[]] = [[], []];
      for (const home of candidates) {
        const letter = home[0]!;
        const allowed = home.filter(({ supporterId }) => meant.get(supporterId)?.here);
        const [first] = allowed;
        if (first !== letter) refused.push({ letter, ...meant.get(letter.supporterId)!.refused! });
        if (!first) continue;
        if (first !== letter) taken.push(first.id);
        const people = allowed.map(({ supporterId }) => meant.get(supporterId)!.here!);
        out.push({ deliveryId: first.id, people });
      }
      await this.hold(scope, refused, taken);
    }
    return out;
  }

  /** Of each who might be on a letter, what is printed of them, or why they are on none. */
  private async meant(
    scope: AccessScope,
    message: MessageRow,
    people: readonly SharingLetter[],
  ): Promise<Map<number, { here?: Here; refused?: Omit<Refused, 'letter'> }>> {
    const db = this.database.read(scope);
    const asking = eligibilityQueryOf(message, await this.houseRules.rules(db));
    const decided = await this.facts.decideAt(db, people, { ...asking, messageId: message.id });
    const decisions = new Map(people.map(({ supporterId }, i) => [supporterId, decided[i]!.decision]));
    const here = await this.printed.here(db, [...decisions.keys()], decisions);
    const known = new Map(here.map((one) => [one.person.id, one]));
    const meantOf = (id: number) => {
      const [verdict, own] = [decisions.get(id)!.verdict, known.get(id)];
      if (verdict !== 'send') return { refused: { verdict, detail: null } };
      // A town alone takes no letter.
      if (own?.post?.street) return { here: own };
      return { refused: { verdict: 'no-address' as const, detail: sentence('letters.no-street') } };
    };
    return new Map([...decisions.keys()].map((id) => [id, meantOf(id)]));
  }

  private async hold(
    scope: AccessScope,
    refused: readonly Refused[],
    taken: readonly number[],
  ): Promise<void> {
    if (refused.length === 0) return;
    await this.database.write(scope, async (tx) => {
      const people = refused.map(({ letter }) => letter.supporterId);
      tx.changed('messages', 0, people);
      for (const { letter, verdict, detail } of refused)
        await this.byHand.refuse(tx, letter.id, verdict, detail);
      for (const id of taken) await this.letters.take(tx, id);
    });
  }

  private async file(
    kind: LetterFileRow['kind'],
    name: string,
    bytes: Uint8Array,
    first: number,
    last: number,
  ): Promise<Omit<LetterFileRow, 'id'>> {
    const key = await this.storage.put(bytes);
    return { kind, name: name.slice(0, 160), storage_key: key, first_number: first, last_number: last };
  }

  private async drop(files: readonly Omit<LetterFileRow, 'id'>[]): Promise<void> {
    for (const { storage_key: key } of files) await this.storage.remove(key);
  }

  /** The addresses for a print house: what stands in the window line by line, and its parts. */
  private async addresses(scope: AccessScope, letters: readonly LetterOf[]): Promise<Uint8Array> {
    const organization = await this.team.organization(scope);
    const lines = letters.map(({ together }) => addressLines(together, organization));
    const most = Math.max(1, ...lines.map((one) => one.length));
    const parts = ['street', 'city', 'region', 'postcode', 'country'] as const;
    const header = [
      sentence('letters.csv.number'),
      ...Array.from({ length: most }, (_none, i) => sentence('letters.csv.line', { number: i + 1 })),
      ...parts.map((part) => sentence(`letters.csv.${part}`)),
    ];
    const rows = letters.map(({ number, together }, i) => [
      String(number),
      ...Array.from({ length: most }, (_none, at) => lines[i]![at] ?? ''),
      ...parts.map((part) => together[0]!.post?.[part] ?? ''),
    ]);
    return Buffer.from(`\ufeff${writeCsv(header, rows)}`);
  }
}

interface OpenLetter {
  deliveryId: number;
  people: Here[];
}

interface Refused {
  letter: SharingLetter;
  verdict: Verdict;
  detail: string | null;
}

/** The order in which the post sorts: by postcode, then by name. */
function byPost(a: { people: Here[] }, b: { people: Here[] }): number {
  const [one, other] = [a.people[0]!, b.people[0]!];
  return (
    (one.post?.postcode ?? '').localeCompare(other.post?.postcode ?? '') ||
    fullName(one).localeCompare(fullName(other)) ||
    one.person.id - other.person.id
  );
}
