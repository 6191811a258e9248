import { Inject, Injectable } from '@nestjs/common';
import {
  CALL_AGAIN,
  CALL_OUTCOMES,
  type AnswerCallBody,
  type CallListView,
  type CallRow,
  type CallWho,
  type MakeCallListBody,
  type Page,
} from '@goodword/core/contract';
import { compile } from '@goodword/core/merge';
import { type Verdict } from '@goodword/core/permission';
import { speak } from '@goodword/core/words';
import { CampaignsRepository } from '../campaigns/campaigns.repository';
import { MergeRegistryService } from '../messages/merge-registry.service';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { stillAs } from '../platform/versions';
import { NotesRepository } from '../record/notes.repository';
import { SegmentsService } from '../segments/segments.service';
import { CallPermission } from './call-permission.service';
import { CallRowsService } from './call-rows.service';
import { MOST_CALLS, StepCallsService } from './step-calls.service';
import { CallsRepository, type CallListRow, type CallMemberRow } from './calls.repository';
import { sentence } from '../platform/words';

/**
 * Calling through a list, on the screen or from paper: who may be called, what to say, and what came of it.
 */
@Injectable()
export class CallsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CallsRepository) private readonly calls: CallsRepository,
    @Inject(CallRowsService) private readonly rows: CallRowsService,
    @Inject(CallPermission) private readonly permission: CallPermission,
    @Inject(StepCallsService) private readonly steps: StepCallsService,
    @Inject(CampaignsRepository) private readonly campaigns: CampaignsRepository,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(MergeRegistryService) private readonly registry: MergeRegistryService,
    @Inject(NotesRepository) private readonly notes: NotesRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
  ) {}

  async make(scope: AccessScope, list: MakeCallListBody): Promise<{ id: number }> {
    const ids = await this.segments.peopleIn(scope, list.group);
    if (ids.length === 0) throw new Conflict(sentence('group.nobody-to-call'));
    if (ids.length > MOST_CALLS)
      throw new Conflict(sentence('calls.too-many', { count: ids.length, most: MOST_CALLS }));
    const faults = compile(list.script, await this.registry.of(scope)).faults;
    if (faults.length > 0)
      throw new Invalid(
        faults.map((fault) => ({ field: 'script', code: 'merge', message: speak(fault.said) })),
      );
    return this.database.writeUnlogged(scope, async (tx) => {
      if (list.campaignId !== null && !(await this.campaigns.find(tx, list.campaignId)))
        throw new NotFound('campaign');
      const suppressed = await this.permission.suppressedOf(tx, ids, { ...list, message_id: null });
      const id = await this.calls.make(
        tx,
        { ...list, messageId: null },
        ids.map((one) => ({ id: one, suppressed: suppressed.get(one) ?? null })),
      );
      await audit(tx, 'make', { 'call-list': id }, `${list.name}: ${ids.length} people to call`);
      return { id };
    });
  }

  async all(scope: AccessScope): Promise<CallListView[]> {
    const db = this.database.read(scope);
    return this.views(db, await this.calls.all(db));
  }

  async show(scope: AccessScope, id: number): Promise<CallListView> {
    const db = this.database.read(scope);
    return (await this.views(db, [await this.list(db, id)]))[0]!;
  }

  async people(
    scope: AccessScope,
    id: number,
    query: { after: number; limit: number; who: CallWho },
  ): Promise<Page<CallRow>> {
    const db = this.database.read(scope);
    const list = await this.list(db, id);
    const members = await this.membersNow(db, list, query);
    return {
      rows: await this.rows.of(scope, list, members),
      total: {
        all: list.people,
        may: list.people - list.suppressed,
        open: list.people - list.suppressed - list.called,
        again: list.again,
      }[query.who],
      next: members.length === query.limit ? String(members.at(-1)!.position) : null,
    };
  }

  /**
   * People after a position, as they may be called at this moment: whoever said no since the list was made is
   * passed over as well. Who was passed over then stays so: the list was made of the others.
   */
  private async membersNow(
    db: Scoped,
    list: CallListRow,
    { after, limit, who }: { after: number; limit: number; who: CallWho },
  ): Promise<CallMemberRow[]> {
    const out: CallMemberRow[] = [];
    for (let at = after; out.length < limit;) {
      const some = await this.calls.members(db, list.id, at, Math.max(limit, 20), who);
      if (some.length === 0) break;
      const ids = some.map((member) => member.supporter_id);
      const suppressed = await this.permission.suppressedOf(db, ids, list);
      const now = some.map((member) => ({
        ...member,
        suppressed: member.suppressed ?? passedOver(member, suppressed.get(member.supporter_id)),
      }));
      out.push(...now.filter((member) => who === 'all' || member.suppressed === null));
      at = some.at(-1)!.position;
    }
    return out.slice(0, limit);
  }

  /**
   * What came of one call. The stage goes on the campaign's roster, the note on the record, a no into the
   * ledger.
   */
  async answer(scope: AccessScope, id: number, position: number, answer: AnswerCallBody): Promise<CallRow> {
    const { message_id: messageId } = await this.list(this.database.read(scope), id);
    await this.database.write(scope, async (tx) => {
      const step = messageId === null ? null : await this.steps.lock(tx, messageId);
      const answered = await this.calls.holdAnswer(tx, id, position);
      const list = await this.list(tx, id);
      const member = await this.calls.member(tx, id, position);
      if (!answered || !member || member.gone) throw new NotFound('person on this list');
      if (answer.outcome !== null && !optionsOf(list).includes(answer.outcome))
        throw new Invalid([
          {
            field: 'outcome',
            code: 'outcome',
            message: sentence('answer.expected', {
              answers: optionsOf(list).join(', '),
              outcome: answer.outcome,
            }),
          },
        ]);
      stillAs(answer.was, answered, 'what came of this call', answered.outcome ?? undefined);
      tx.unchanged();
      if (list.campaign_id !== null && answer.outcome !== null && list.stages?.includes(answer.outcome))
        await this.campaigns.put(tx, list.campaign_id, [member.supporter_id], answer.outcome);
      const noteId = await this.keepNote(tx, member, answer.note);
      await this.calls.answer(tx, id, position, answer.outcome, noteId);
      if (answer.noMoreCalls) await this.refuse(tx, member, list);
      if (step) await this.steps.answered(tx, step, member.supporter_id, answer.outcome);
    });
    const db = this.database.read(scope);
    const list = await this.list(db, id);
    return (await this.rows.of(scope, list, [(await this.calls.member(db, id, position))!]))[0]!;
  }

  async remove(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const list = await this.list(tx, id);
      if (list.step_state === 'calling') throw new Conflict(sentence('calls.step-goes', { name: list.name }));
      await this.calls.remove(tx, id);
      await audit(
        tx,
        'delete',
        { 'call-list': id },
        `${list.name} deleted; what was answered stays on the records`,
      );
    });
  }

  private async keepNote(tx: Scoped, member: CallMemberRow, body: string): Promise<number | null> {
    if (member.note_id === null)
      return body === '' ? null : this.notes.add(tx, member.supporter_id, 'call', body);
    if (body === '') await this.notes.remove(tx, member.note_id);
    else if (body !== member.note) await this.notes.change(tx, member.note_id, body);
    return body === '' ? null : member.note_id;
  }

  /** Said on the telephone: no more calls, at any number of theirs. */
  private async refuse(tx: Scoped, member: CallMemberRow, list: CallListRow): Promise<void> {
    await this.ledger.record(tx, {
      contactPointId: null,
      supporterId: member.supporter_id,
      channel: 'call',
      scope: 'marketing',
      state: 'no',
      saidAt: new Date(),
      byPerson: true,
      how: 'phone',
      words: 'No more calls',
      source: `Said when called: ${list.name}`,
    });
  }

  private async views(db: Scoped, lists: readonly CallListRow[]): Promise<CallListView[]> {
    const outcomes = await this.calls.outcomes(
      db,
      lists.map(({ id }) => id),
    );
    return lists.map((row) => ({
      id: row.id,
      name: row.name,
      campaign:
        row.campaign_id === null
          ? null
          : { id: row.campaign_id, name: row.campaign ?? 'a campaign since removed' },
      script: row.script,
      purpose: row.purpose,
      people: row.people,
      called: row.called,
      again: row.again,
      suppressed: row.suppressed,
      outcomes: outcomes
        .filter((one) => one.listId === row.id)
        .map(({ outcome, people }) => ({ outcome, people })),
      options: optionsOf(row),
      madeBy: row.made_by_name ?? '',
      madeAt: row.made_at.toISOString(),
      step:
        row.message_id === null || row.step_state === null
          ? null
          : { messageId: row.message_id, state: row.step_state },
    }));
  }

  private async list(db: Scoped, id: number): Promise<CallListRow> {
    const list = await this.calls.find(db, id);
    if (!list) throw new NotFound('call list');
    return list;
  }
}

/** Why somebody is passed over now; what they answered may put them out of the campaign that called. */
function passedOver({ outcome }: CallMemberRow, verdict: Verdict | undefined): Verdict | null {
  if (verdict === 'fell-out' && outcome !== null && !CALL_AGAIN.includes(outcome)) return null;
  return verdict ?? null;
}

/** The stages of the campaign first: they are what the keys 1 to 9 are for. */
function optionsOf(list: Pick<CallListRow, 'stages'>): string[] {
  const own = list.stages ?? [];
  return [
    ...own,
    ...CALL_OUTCOMES.filter(
      (outcome) => !own.includes(outcome) && (own.length === 0 || outcome !== 'talked'),
    ),
  ];
}
