import { Inject, Injectable } from '@nestjs/common';
import {
  TIMELINE_KINDS,
  type RecordView,
  type TimelineItem,
  type TimelineKind,
  type UndoStep,
} from '@goodword/core/contract';
import { CampaignsRepository } from '../campaigns/campaigns.repository';
import { stillAs } from '../platform/versions';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Forbidden, Invalid, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { SupportersRepository, type PersonRow } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { HouseholdsRepository } from './households.repository';
import { MergingRepository } from './merging.repository';
import { NotesRepository } from './notes.repository';
import { TimelineRepository } from './timeline.repository';
import { sentence } from '../platform/words';

/**
 * What stands on a record beside what is known of the person: whom they live with, notes, and what happened
 * when.
 */
@Injectable()
export class RecordService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(HouseholdsRepository) private readonly households: HouseholdsRepository,
    @Inject(NotesRepository) private readonly notes: NotesRepository,
    @Inject(MergingRepository) private readonly mergings: MergingRepository,
    @Inject(TimelineRepository) private readonly timelines: TimelineRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(CampaignsRepository) private readonly campaigns: CampaignsRepository,
  ) {}

  async around(
    scope: AccessScope,
    id: number,
  ): Promise<Pick<RecordView, 'rosters' | 'household' | 'greeting' | 'mergedFrom'>> {
    const db = this.database.read(scope);
    const person = await this.supporters.need(db, id);
    const { locale } = await this.team.organization(scope);
    const [household, mergings, rosters] = await Promise.all([
      this.households.of(db, id, locale),
      this.mergings.into(db, id),
      this.campaigns.of(db, id),
    ]);
    return {
      rosters,
      household,
      greeting: household?.greeting || person.first_name,
      mergedFrom: mergings.map((one) => ({
        mergingId: one.id,
        name: one.name,
        at: one.made_at.toISOString(),
      })),
    };
  }

  async timeline(scope: AccessScope, id: number, asked: string | undefined): Promise<TimelineItem[]> {
    const kinds = asked === undefined ? TIMELINE_KINDS : asked.split(',').map(kindOf);
    const db = this.database.read(scope);
    await this.supporters.need(db, id);
    const ids = await this.mergings.idsIn(db, id);
    return this.timelines.of(
      db,
      [id, ...ids.filter((one) => one !== id)],
      await this.team.organization(scope),
      kinds,
    );
  }

  async addNote(scope: AccessScope, id: number, body: string): Promise<{ id: number }> {
    return this.database.write(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      return { id: await this.notes.add(tx, id, 'note', body) };
    });
  }

  /** Notes are changed by who wrote them; owners may as well. */
  async changeNote(
    scope: AccessScope,
    id: number,
    noteId: number,
    change: { body: string; was: string } | null,
  ): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      const note = await this.notes.find(tx, id, noteId);
      if (!note) throw new NotFound('note');
      if (note.made_by !== scope.actorId && scope.role !== 'owner')
        throw new Forbidden(sentence('note.not-yours'));
      if (change !== null) {
        stillAs(change.was, note.body, 'the note');
        return this.notes.change(tx, noteId, change.body);
      }
      await this.notes.remove(tx, noteId);
      await audit(tx, 'note', { supporter: id }, 'Note deleted');
    });
  }

  /** Both live together from now on; whoever was in another household moves. */
  async join(scope: AccessScope, id: number, withId: number): Promise<void> {
    if (id === withId) throw new Conflict(sentence('household.two'));
    await this.database.write(scope, async (tx) => {
      const [person, other] = await this.supporters.holdBoth(tx, id, withId);
      const before = await this.households.idOf(tx, id);
      const home = (await this.households.idOf(tx, withId)) ?? before;
      if (home !== null && home === before && home === (await this.households.idOf(tx, withId)))
        throw new Conflict(sentence('household.same', { person: nameOf(person), other: nameOf(other) }));
      const to = home ?? (await this.households.make(tx));
      tx.unchanged();
      for (const one of [withId, id]) {
        const was = await this.households.idOf(tx, one);
        if (was === to) continue;
        await this.households.move(tx, one, to);
        await this.tell(tx, one, `Lives with ${nameOf(one === id ? other : person)}`, was, to);
      }
    });
  }

  async leave(scope: AccessScope, id: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      const before = await this.households.idOf(tx, id);
      if (before === null) throw new Conflict(sentence('household.none'));
      await this.households.move(tx, id, null);
      await this.tell(tx, id, 'Left the household', before, null);
    });
  }

  async greet(scope: AccessScope, id: number, greeting: string, was: string): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      const home = await this.households.idOf(tx, id);
      if (home === null) throw new Conflict(sentence('household.none-yet'));
      stillAs(was, await this.households.holdGreeting(tx, home), 'the greeting');
      await this.households.greet(tx, home, greeting.trim() || null);
      await audit(
        tx,
        'greeting',
        { supporter: id },
        greeting ? `Household greeted as “${greeting}”` : 'Household greeted by first names',
      );
    });
  }

  private async tell(
    tx: Scoped,
    id: number,
    words: string,
    before: number | null,
    after: number | null,
  ): Promise<void> {
    const undo: UndoStep = { kind: 'household', before, after };
    await audit(tx, 'household', { supporter: id }, words, { undo });
  }
}

const nameOf = (person: PersonRow) => `${person.first_name} ${person.last_name}`.trim() || 'No name';

function kindOf(word: string): TimelineKind {
  const kind = TIMELINE_KINDS.find((one) => one === word);
  if (!kind)
    throw new Invalid([
      {
        field: 'kinds',
        code: 'kind',
        message: sentence('timeline.kinds', { kinds: TIMELINE_KINDS.join(', '), word }),
      },
    ]);
  return kind;
}
