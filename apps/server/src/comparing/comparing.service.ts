import { Inject, Injectable } from '@nestjs/common';
import type { ComparisonView, SaveComparisonBody } from '@goodword/core/contract';
import { COMPARISON_LIMITS, measuresOn, USUAL_COMPARISON } from '@goodword/core/wordings';
import { MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { MessagesService } from '../messages/messages.service';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Conflict, Invalid, Newer } from '../platform/errors';
import { enqueue } from '../platform/jobs';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { sentence } from '../platform/words';
import { ResultsRepository } from '../results/results.repository';
import { BesideService } from '../sending/beside.service';
import { movable } from '../sending/movable';
import { TeamRepository } from '../team/team.repository';
import { WordingsRepository, type ComparisonRow } from '../wordings/wordings.repository';
import { decidesAt, TriedService } from './tried.service';

/** The wordings of a message, as its writers have them. */
@Injectable()
export class ComparingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(MessagesService) private readonly drafts: MessagesService,
    @Inject(WordingsRepository) private readonly wordings: WordingsRepository,
    @Inject(BesideService) private readonly beside: BesideService,
    @Inject(TriedService) private readonly tried: TriedService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(ResultsRepository) private readonly results: ResultsRepository,
  ) {}

  /** Begins another wording with the words of the first. */
  async add(scope: AccessScope, id: number): Promise<{ id: number }> {
    return this.database.writeUnlogged(scope, async (tx) => {
      const first = await movable(this.messages, tx, scope, id, ['draft']);
      if (first.wording_of !== null) throw new Conflict(sentence('wording.of-wording'));
      if (!isComparable(first)) throw new Conflict(sentence('wording.not-here'));
      const others = await this.wordings.beside(tx, id);
      const most = COMPARISON_LIMITS.wordings;
      if (others.length + 1 >= most) throw new Conflict(sentence('wording.limit', { most }));
      const name = sentence('wording.named', { name: first.name.slice(0, 100), nth: others.length + 2 });
      const made = await this.drafts.wordsOf(tx, first, name);
      await this.wordings.add(tx, id, made);
      await this.wordings.share(tx, id);
      await this.messages.change(tx, id, { seconded_by: null });
      await audit(tx, 'make', { message: made }, `${name} begun`);
      return { id: made };
    });
  }

  async save(
    scope: AccessScope,
    id: number,
    { basedOn, ...said }: SaveComparisonBody,
  ): Promise<{ version: number }> {
    return this.database.writeUnlogged(scope, async (tx) => {
      const { channel } = await movable(this.messages, tx, scope, id, ['draft']);
      if (!measuresOn(channel).includes(said.measure))
        throw new Invalid([{ field: 'measure', code: 'opened', message: sentence('wording.text-opened') }]);
      const comparison = await this.needed(tx, id);
      if (comparison.version !== basedOn) throw new Newer('how the wordings are compared', null);
      await this.wordings.say(tx, id, said);
      await this.messages.change(tx, id, { seconded_by: null });
      return { version: basedOn + 1 };
    });
  }

  async show(scope: AccessScope, id: number): Promise<ComparisonView> {
    const db = this.database.read(scope);
    const asked = await this.messages.need(db, id);
    const first = asked.wording_of === null ? asked : await this.messages.need(db, asked.wording_of);
    const rows = [first, ...(await this.beside.of(db, first))];
    // Most messages have one wording: nothing is counted of them here.
    if (rows.length === 1) return aloneView(first.id);
    const comparison = await this.needed(db, first.id);
    // Before what is counted: where none is leaving any more, nothing that left is missing from the counts.
    const underway = await this.wordings.underway(db, first.id);
    const { tried, found } = await this.tried.of(
      db,
      rows.map((row) => row.id),
      comparison,
    );
    const gone = await Promise.all(rows.map(async ({ id }) => (await this.results.counts(db, id)).tried));
    const names = new Map((await this.team.teammates(db)).map((one) => [one.id, one.name]));
    const waits = comparison.chosen_id === null && underway.rest > 0;
    const at = waits ? decidesAt(underway, comparison.hours, Date.now()).toISOString() : null;
    return {
      messageId: first.id,
      version: comparison.version,
      share: comparison.share,
      measure: comparison.measure,
      hours: comparison.hours,
      wordings: rows.map((row, i) => ({
        ...{ id: row.id, name: row.name, subject: row.subject, state: row.state },
        sender: row.sender_id === first.sender_id ? null : (names.get(row.sender_id ?? 0) ?? null),
        ...{ came: tried[i]!.of, did: tried[i]!.count, gone: gone[i]! },
        beside: i === 0 ? null : besideOf(found.besideFirst[i - 1] ?? null),
      })),
      better: { id: rows[found.chosen]!.id, differs: found.differs },
      ...{ rest: underway.rest, leaving: underway.leaving, decidesAt: at },
      decided:
        comparison.chosen_id === null || comparison.decided_at === null
          ? null
          : {
              ...{ id: comparison.chosen_id, at: comparison.decided_at.toISOString() },
              by: comparison.decided_by === null ? null : (names.get(comparison.decided_by) ?? ''),
            },
    };
  }

  /** The rest gets a wording that a person chose, without waiting for more. */
  async choose(scope: AccessScope, id: number, wordingId: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const first = await movable(this.messages, tx, scope, id, ['sending', 'paused']);
      await this.needed(tx, id);
      const ids = [id, ...(await this.wordings.beside(tx, id))];
      if (!ids.includes(wordingId))
        throw new Invalid([{ field: 'wordingId', code: 'other', message: sentence('wording.other') }]);
      const { rest, leaving } = await this.wordings.underway(tx, id);
      if (rest === 0) throw new Conflict(sentence('wording.nobody-waits'));
      if (leaving > 0) throw new Conflict(sentence('wording.leaving', { count: leaving }));
      if (!(await this.wordings.decide(tx, id, wordingId, scope.actorId)))
        throw new Conflict(sentence('wording.decided'));
      await enqueue(tx.knex, { ...scope, chapterId: first.chapter_id }, 'message-decide', id);
      const { name, state } = await this.messages.need(tx, wordingId);
      if (state === 'stopped') throw new Conflict(sentence('wording.stopped'));
      await audit(tx, 'send', { message: id }, `${first.name}: the rest gets ${name}`);
    });
  }

  private async needed(tx: Scoped, id: number): Promise<ComparisonRow> {
    const comparison = await this.wordings.comparison(tx, id);
    if (!comparison) throw new Conflict(sentence('wording.none'));
    return comparison;
  }
}

/** Where nothing is compared. */
const aloneView = (messageId: number): ComparisonView => ({
  ...{ messageId, version: 0, ...USUAL_COMPARISON, wordings: [] },
  ...{ better: { id: messageId, differs: false }, rest: 0, leaving: 0, decidesAt: null, decided: null },
});

const isComparable = ({ channel, personal_to, campaign_id, automation_id }: MessageRow): boolean =>
  (channel === 'email' || channel === 'text') &&
  personal_to === null &&
  campaign_id === null &&
  automation_id === null;

const besideOf = (found: { more: number; low: number; high: number } | null) =>
  found && { more: found.more, low: found.low, high: found.high };
