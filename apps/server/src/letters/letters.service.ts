import { Inject, Injectable } from '@nestjs/common';
import { dayInZone, isoDay, noonOf, type Day } from '@goodword/core/common';
import type { LettersView } from '@goodword/core/contract';
import { SUPPRESSION_REASONS, type SuppressionReason } from '@goodword/core/permission';
import { letterFormOf, type LetterForm } from '@goodword/core/print';
import { audit } from '../platform/audit';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FallingOutRepository } from '../campaigns/falling-out.repository';
import { FactsRepository } from '../permission/ledger/facts.repository';
import { Database } from '../platform/database';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import { enqueue } from '../platform/jobs';
import type { Scoped } from '../platform/scoped';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { sentence } from '../platform/words';
import { MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { toPdf } from '../print/pdf';
import { PrintedPeople } from '../print/printed-people.service';
import { ByHandRepository } from '../sending/by-hand.repository';
import { eligibilityQueryOf } from '../sending/last-look.service';
import { movable } from '../sending/movable';
import { SupportersRepository } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { LetterComposer } from './letter-composer.service';
import { LettersRepository, type LettersRow, type NumberedLetter } from './letters.repository';

/** Letters of a message: looked at, laid out anew, downloaded, and posted. */
@Injectable()
export class LettersService {
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
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(FallingOutRepository) private readonly fallingOut: FallingOutRepository,
  ) {}

  async view(scope: AccessScope, id: number): Promise<LettersView> {
    const db = this.database.read(scope);
    const message = await this.messages.need(db, id);
    const { country } = await this.team.organization(scope);
    const row = (await this.letters.find(db, id)) ?? begunWith(message, letterFormOf(country));
    if (!row) throw new NotFound('letters');
    const files = await this.letters.files(db, id);
    const refused = message.state === 'posting' ? await this.refused(db, message) : [];
    return {
      form: row.form,
      made: row.made === row.asked && (files.length > 0 || row.total === 0),
      done: row.done,
      total: row.total,
      problem: row.problem,
      files: files.map((file) => ({
        id: file.id,
        kind: file.kind,
        name: file.name,
        from: file.first_number,
        to: file.last_number,
        letters: file.last_number - file.first_number + 1,
      })),
      refused: refused.map(({ letter: { number, supporterId, name }, reason }) => ({
        ...{ number, supporterId, name, reason },
      })),
      postedOn: row.posted_on,
    };
  }

  /** Whose letter may not leave any more since it was laid out. */
  private async refused(
    db: Scoped,
    message: MessageRow,
  ): Promise<{ letter: NumberedLetter; reason: SuppressionReason }[]> {
    const letters = await this.letters.numbered(db, message.id);
    const asking = eligibilityQueryOf(message, await this.houseRules.rules(db));
    const decided = await this.facts.decideAt(db, letters, { ...asking, messageId: message.id });
    const fell = await this.fallingOut.ofMessage(
      db,
      message.id,
      letters.map(({ supporterId }) => supporterId),
    );
    return letters.flatMap((letter, i) => {
      if (fell.has(letter.supporterId)) return [{ letter, reason: 'fell-out' }];
      const reason = SUPPRESSION_REASONS.find((one) => one === decided[i]!.decision.verdict);
      return reason ? [{ letter, reason }] : [];
    });
  }

  /** Lays them out anew: for those who may be written to now, in the form that was chosen. */
  async make(scope: AccessScope, id: number, form: LetterForm): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const message = await movable(this.messages, tx, scope, id, ['posting']);
      await this.letters.ask(tx, id, form);
      await enqueue(tx.knex, { ...scope, chapterId: message.chapter_id }, 'message-letters', id);
    });
  }

  async file(scope: AccessScope, id: number, fileId: number): Promise<{ name: string; bytes: Buffer }> {
    const db = this.database.read(scope);
    await this.messages.need(db, id);
    const file = (await this.letters.files(db, id)).find((one) => one.id === fileId);
    if (!file) throw new NotFound('file');
    return { name: file.name, bytes: await this.storage.get(file.storage_key) };
  }

  /** One person's letter as it would be printed; that of the first supporter where nobody is named. */
  async page(
    scope: AccessScope,
    id: number,
    { supporterId, form }: { supporterId?: number; form?: LetterForm },
  ): Promise<Buffer> {
    const db = this.database.read(scope);
    const message = await this.messages.need(db, id);
    if (message.channel !== 'post') throw new Conflict(sentence('letters.none'));
    const person = supporterId
      ? await this.supporters.find(db, supporterId)
      : (await this.supporters.page(db, {}, null, 1)).rows[0];
    if (!person) throw new NotFound('supporter');
    const asking = eligibilityQueryOf(message, await this.houseRules.rules(db));
    const decided = await this.facts.decide(db, [person.id], asking);
    const together = await this.printed.here(db, [person.id], decided);
    const { country } = await this.team.organization(scope);
    return toPdf(
      await this.composer.pages(scope, message, [{ number: 1, together }], form ?? letterFormOf(country)),
    );
  }

  /**
   * They have been posted. Decided once more for each: a letter whose person said no since it was laid out is
   * not counted as posted, and has to be taken out by hand; the page says which those are.
   */
  async posted(scope: AccessScope, id: number, on: Day): Promise<void> {
    const { time_zone: zone } = await this.team.organization(scope);
    if (on > dayInZone(Date.now(), zone))
      throw new Invalid([{ field: 'on', code: 'future', message: sentence('letters.not-yet') }]);
    await this.database.write(scope, async (tx) => {
      const message = await movable(this.messages, tx, scope, id, ['posting']);
      const row = await this.letters.find(tx, id);
      if (!row || row.made !== row.asked) throw new Conflict(sentence('letters.not-made'));
      const refused = await this.refused(tx, message);
      const held = new Set(refused.map(({ letter }) => letter.id));
      const letters = await this.letters.numbered(tx, id);
      const people = letters.map(({ supporterId }) => supporterId);
      tx.changed('reach', 0, people);
      tx.changed('messages', 0, people);
      for (const { letter, reason } of refused) await this.byHand.refuse(tx, letter.id, reason);
      const gone = letters.filter((letter) => !held.has(letter.id)).map((letter) => letter.id);
      await this.byHand.came(tx, gone, new Date(Math.min(Date.now(), noonOf(on, zone))));
      await this.letters.change(tx, id, { posted_on: isoDay(on) });
      await this.messages.change(tx, id, { state: 'done' });
      await audit(
        tx,
        'posted',
        { message: id },
        sentence('letters.posted', { name: message.name, letters: gone.length, day: isoDay(on) }),
      );
    });
  }
}

/** Letters that are about to be laid out, before the work has begun; null of a message that has none. */
function begunWith({ channel, state }: MessageRow, form: LetterForm): Omit<LettersRow, 'message_id'> | null {
  if (channel !== 'post' || (state !== 'preparing' && state !== 'posting')) return null;
  return { form, asked: 1, made: 0, done: 0, total: 0, problem: null, posted_on: null };
}
