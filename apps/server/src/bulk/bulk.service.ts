import { Inject, Injectable } from '@nestjs/common';
import type { BulkAct, BulkView, PeopleGroup } from '@goodword/core/contract';
import { coerce } from '@goodword/core/fields';
import { isBirth } from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { CampaignsRepository } from '../campaigns/campaigns.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Forbidden, Invalid, NotFound } from '../platform/errors';
import { cancel, enqueue } from '../platform/jobs';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { PrintService } from '../print/print.service';
import { SegmentsService } from '../segments/segments.service';
import { FieldsRepository } from '../supporters/fields.repository';
import { TeamRepository, typedIn } from '../team/team.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { setActOf } from './acts';
import { BulkRepository, type BulkRow } from './bulk.repository';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { sentence } from '../platform/words';

const PRINT_WORDS = {
  call: 'a call sheet',
  door: 'a door-to-door sheet',
  labels: 'labels',
  letters: 'letters',
} as const;
const FORM_WORDS = { csv: 'CSV', xlsx: 'a workbook', vcard: 'vCards', json: 'JSON' } as const;

/** One act on many people: asked for, followed, stopped, undone. */
@Injectable()
export class BulkService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(BulkRepository) private readonly bulks: BulkRepository,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(CampaignsRepository) private readonly campaigns: CampaignsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(PrintService) private readonly prints: PrintService,
  ) {}

  /** Freezes who is meant, and leaves the doing to the worker. */
  async begin(scope: AccessScope, group: PeopleGroup, act: BulkAct): Promise<{ id: number; people: number }> {
    if (act.do === 'erase' && scope.role !== 'owner') throw new Forbidden(sentence('erase.owner'));
    const ids = await this.segments.peopleIn(scope, group);
    if (ids.length === 0) throw new Conflict(sentence('group.nobody-to-do'));
    const words = sentence('bulk.act', { act: await this.wordsOf(scope, act), people: ids.length });
    const settled = act.do === 'print' ? await this.prints.settled(scope, act, ids) : act;
    return this.database.writeUnlogged(scope, async (tx) => {
      const id = await this.bulks.make(tx, { act: settled, words, ids });
      await audit(tx, `bulk-${act.do}`, { bulk: id }, words);
      await enqueue(tx.knex, scope, 'bulk-act', id);
      return { id, people: ids.length };
    });
  }

  async recent(scope: AccessScope): Promise<BulkView[]> {
    return (await this.bulks.recent(this.database.read(scope))).map((row) => this.view(row));
  }

  async show(scope: AccessScope, id: number): Promise<BulkView> {
    return this.view(await this.bulk(this.database.read(scope), id));
  }

  async stop(scope: AccessScope, id: number): Promise<void> {
    const bulk = await this.bulk(this.database.read(scope), id);
    if (!['waiting', 'running'].includes(bulk.state)) throw new Conflict(sentence('work.not-running'));
    await cancel(this.database.read(scope).knex, 'bulk-act', id);
  }

  async undo(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const bulk = await this.bulk(tx, id, true);
      if (!this.canUndo(bulk)) throw new Conflict(sentence('undo.gone'));
      await this.bulks.change(tx, id, { state: 'undoing', next_id: 0, done: 0, ended_at: null });
      await audit(tx, 'bulk-undo', { bulk: id }, `Undone: ${bulk.words}`);
      await enqueue(tx.knex, scope, 'bulk-undo', id);
    });
  }

  async file(scope: AccessScope, id: number): Promise<{ name: string; bytes: Buffer }> {
    const bulk = await this.bulk(this.database.read(scope), id);
    if (!bulk.file_key || !bulk.file_name) throw new NotFound('file');
    return { name: bulk.file_name, bytes: await this.storage.get(bulk.file_key) };
  }

  /** What it does, in words that the number of people follows; faults of the act are told here. */
  private async wordsOf(scope: AccessScope, act: BulkAct): Promise<string> {
    const db = this.database.read(scope);
    const name = (found: { name: string } | undefined, what: string) => {
      if (!found) throw new NotFound(what);
      return found.name;
    };
    switch (act.do) {
      case 'tag': {
        const tag = name(await this.groups.find(db, 'tag', act.tagId), 'tag');
        return act.on ? `Put the tag ${tag} on` : `Take the tag ${tag} off`;
      }
      case 'list': {
        const list = name(await this.groups.find(db, 'list', act.listId), 'list');
        return act.on ? `Put on the list ${list}:` : `Take off the list ${list}:`;
      }
      case 'roster': {
        const campaign = await this.campaigns.find(db, act.campaignId);
        const called = name(campaign, 'campaign');
        if (act.stage === null) return `Take off the roster of ${called}:`;
        if (!campaign!.stages.includes(act.stage))
          throw new Invalid([
            {
              field: 'stage',
              code: 'stage',
              message: sentence('stage.expected', { stages: campaign!.stages.join(', '), stage: act.stage }),
            },
          ]);
        return `Put on the roster of ${called} as ${act.stage}:`;
      }
      case 'field': {
        const field = (await this.fields.all(db)).find((one) => one.id === act.fieldId);
        const called = name(field, 'field');
        if (act.text.trim() === '') return `Empty ${called} of`;
        const coerced = coerce(field!.type, act.text, {
          ...typedIn(await this.team.organization(db)),
          born: isBirth(field!),
        });
        if (!coerced.ok)
          throw new Invalid([
            { field: 'text', code: 'type', message: `${called}: ${speak(coerced.reason)}.` },
          ]);
        return `Set ${called} to “${act.text.slice(0, 80)}” for`;
      }
      case 'permission': {
        if (Date.parse(act.on) > Date.now() + 86_400_000)
          throw new Invalid([{ field: 'on', code: 'day', message: sentence('permission.day-expected') }]);
        return `Record that they agreed to ${act.channel} (${act.scopes.join(', ')}):`;
      }
      case 'export':
        return `Write as ${FORM_WORDS[act.form]}:`;
      case 'print':
        return `Print ${PRINT_WORDS[act.form]}:`;
      case 'erase':
        return 'Erase';
    }
  }

  private canUndo(bulk: BulkRow): boolean {
    return (
      ['done', 'stopped'].includes(bulk.state) &&
      (setActOf(bulk.act, null, this.ledger)?.undo ?? null) !== null
    );
  }

  private view(row: BulkRow): BulkView {
    return {
      id: row.id,
      words: row.words,
      state: row.state,
      people: row.people,
      done: row.done,
      changed: row.changed,
      by: row.made_by_name ?? '',
      madeAt: row.made_at.toISOString(),
      endedAt: row.ended_at?.toISOString() ?? null,
      canUndo: this.canUndo(row),
      file: row.file_name,
      problem: row.problem,
      told: row.told,
    };
  }

  private async bulk(db: Scoped, id: number, hold = false): Promise<BulkRow> {
    const bulk = await this.bulks.find(db, id, hold);
    if (!bulk) throw new NotFound('bulk act');
    return bulk;
  }
}
