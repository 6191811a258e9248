import { Inject, Injectable } from '@nestjs/common';
import type { DeletionNotice, UndoStep } from '@goodword/core/contract';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { isDuplicate } from '../platform/database-errors';
import { Conflict, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { nextVersion, stillAs } from '../platform/versions';
import { GroupsRepository } from './groups.repository';
import { SupportersRepository } from './supporters.repository';
import { sentence } from '../platform/words';

/** What a tag (its name alone) or a list is given. */
export interface GroupValues {
  name: string;
  /** Of a list that is changed: the version that this was begun from. */
  basedOn?: number;
  /** Of a tag that is changed: as it was when this was begun. */
  was?: { name: string; handedDown: boolean };
  isPublic?: boolean;
  description?: string;
  why?: string;
  onPreferences?: boolean;
  byForm?: boolean;
  folder?: string;
  /** Of a tag of the whole organization: chapters see it and put it on. */
  handedDown?: boolean;
}

/** Tags and lists: made, changed, taken away, and people put into them one by one. */
@Injectable()
export class GroupsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
  ) {}

  async putInGroup(
    scope: AccessScope,
    kind: 'tag' | 'list',
    id: number,
    groupId: number,
    on: boolean,
  ): Promise<void> {
    await this.database.write(scope, async (tx) => {
      await this.groups.lockForUpdate(tx, kind, [groupId], 'too');
      await this.supporters.lockForUpdate(tx, id);
      const group = await this.groups.find(tx, kind, groupId);
      if (!group) throw new NotFound(kind);
      const changed = on
        ? await this.groups.put(tx, kind, id, groupId)
        : await this.groups.takeOff(tx, kind, id, groupId);
      const words =
        kind === 'tag'
          ? `Tag ${group.name} ${on ? 'put on' : 'taken off'}`
          : `${on ? 'Put on' : 'Taken off'} the list ${group.name}`;
      const undo: UndoStep = { kind: 'group', group: kind, id: groupId, on };
      if (changed) await audit(tx, kind, { supporter: id }, words, { undo });
    });
  }

  async makeGroup(scope: AccessScope, kind: 'tag' | 'list', group: GroupValues): Promise<{ id: number }> {
    try {
      return await this.database.write(scope, async (tx) => {
        tx.unchanged();
        const id =
          kind === 'tag'
            ? await this.groups.makeTag(tx, group.name, null, group.handedDown ?? true)
            : await this.groups.makeList(tx, listValues(group));
        await audit(tx, 'make', { [kind]: id }, `${group.name} made`);
        return { id };
      });
    } catch (error) {
      throw isDuplicate(error)
        ? new Conflict(sentence('group.name-taken', { kind, name: group.name }))
        : error;
    }
  }

  async changeGroup(scope: AccessScope, kind: 'tag' | 'list', id: number, group: GroupValues): Promise<void> {
    await this.database
      .write(scope, async (tx) => {
        tx.unchanged();
        const known = await this.groups.find(tx, kind, id);
        if (!known) throw new NotFound(kind);
        if (kind === 'list') await nextVersion(tx, 'list', id, group.basedOn ?? 0, 'list');
        else stillAs(group.was, await this.groups.holdTag(tx, id), 'the tag');
        const values =
          kind === 'tag'
            ? {
                name: group.name,
                ...(group.handedDown === undefined ? {} : { handed_down: group.handedDown }),
              }
            : listValues(group);
        await this.groups.change(tx, kind, id, values);
        await audit(tx, 'change', { [kind]: id }, `${known.name} changed`, {
          before: known.name,
          after: group.name,
        });
      })
      .catch((error: unknown) => {
        throw isDuplicate(error)
          ? new Conflict(sentence('group.name-taken-other', { kind, name: group.name }))
          : error;
      });
  }

  /** What deleting takes with it. `blocked` says why it can't go, where something still needs the group. */
  async groupDeletion(
    scope: AccessScope,
    kind: 'tag' | 'list',
    id: number,
    blocked: string | null,
  ): Promise<DeletionNotice> {
    const db = this.database.read(scope);
    const group = await this.groups.find(db, kind, id);
    if (!group) throw new NotFound(kind);
    const people = await this.groups.countPeople(db, kind, id);
    const many = people === 1 ? '1 person' : `${people} people`;
    const takes = kind === 'tag' ? `The tag comes off ${many}.` : `${many} will no longer be on it.`;
    return { blocked, takes: `${takes} Nobody is deleted, and what they agreed to stays.` };
  }

  async removeGroup(
    scope: AccessScope,
    kind: 'tag' | 'list',
    id: number,
    blocked: string | null,
  ): Promise<void> {
    const notice = await this.groupDeletion(scope, kind, id, blocked);
    if (notice.blocked) throw new Conflict(notice.blocked);
    await this.database.write(scope, async (tx) => {
      await this.groups.lockForUpdate(tx, kind, [id]);
      const group = await this.groups.find(tx, kind, id);
      await this.groups.remove(tx, kind, id);
      await audit(tx, 'delete', { [kind]: id }, `${group?.name ?? kind} deleted`);
    });
  }
}

/**
 * Only what is public can be shown to supporters; a public list is shown everywhere unless somebody says
 * otherwise.
 */
function listValues(list: GroupValues): Record<string, string | boolean> & { name: string } {
  const isPublic = list.isPublic ?? false;
  return {
    name: list.name,
    is_public: isPublic,
    description: list.description ?? '',
    why: list.why ?? '',
    on_preferences: isPublic && (list.onPreferences ?? true),
    by_form: isPublic && (list.byForm ?? true),
    ...(list.folder === undefined ? {} : { folder: list.folder }),
  };
}
