import { Inject, Injectable } from '@nestjs/common';
import type { TagUse } from '@goodword/core/contract';
import { AutomationsRepository } from '../automations/automations.repository';
import { StepsRepository } from '../campaigns/steps.repository';
import { segmentLines, mapLines, type Line } from '@goodword/core/segment';
import { FormsRepository } from '../forms/forms.repository';
import { MessagesRepository } from '../messages/messages.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Conflict, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { SegmentsRepository } from '../segments/segments.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { sentence } from '../platform/words';

/**
 * What is done with tags beyond putting them on: two made one, and how chapters use those handed down to
 * them.
 */
@Injectable()
export class TagsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(SegmentsRepository) private readonly segments: SegmentsRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
    @Inject(StepsRepository) private readonly steps: StepsRepository,
    @Inject(AutomationsRepository) private readonly automations: AutomationsRepository,
  ) {}

  async use(scope: AccessScope, id: number): Promise<TagUse[]> {
    const db = this.database.read(scope);
    if (!(await this.groups.find(db, 'tag', id))) throw new NotFound('tag');
    return this.groups.tagUse(db, id);
  }

  /**
   * Makes two tags one: people, segments and messages that had the one have the other. A form that puts it on
   * has to be changed first.
   */
  async merge(scope: AccessScope, fromId: number, intoId: number): Promise<{ people: number }> {
    if (fromId === intoId) throw new Conflict(sentence('tag.itself'));
    return this.database.write(scope, async (tx) => {
      await this.groups.lockForUpdate(tx, 'tag', [fromId, intoId]);
      const [from, into] = [
        await this.groups.find(tx, 'tag', fromId),
        await this.groups.find(tx, 'tag', intoId),
      ];
      if (!from || !into) throw new NotFound('tag');
      const forms = (await this.forms.all(tx.ofAll())).filter((form) =>
        form.definition.tagIds.includes(fromId),
      );
      if (forms.length > 0)
        throw new Conflict(
          sentence('tag.form-puts-on', { form: forms[0]!.name, from: from.name, into: into.name }),
        );
      const anew = (line: Line) =>
        line.kind === 'tag' && line.tagId === fromId ? { ...line, tagId: intoId } : line;
      await this.steps.rewrite(tx, anew);
      await this.automations.rewrite(tx, anew);
      await this.automations.replaceTag(tx, fromId, intoId);
      for (const segment of await this.segments.all(tx.ofAll())) {
        if (!segmentLines(segment.tree).some((line) => line.kind === 'tag' && line.tagId === fromId))
          continue;
        const tree = mapLines(segment.tree, anew);
        await this.segments.change(tx, segment.id, { name: segment.name, tree });
        await this.segments.keepVersion(tx, segment.id, { name: segment.name, tree }, null);
      }
      await this.messages.replaceGroup(tx, 'tag', fromId, intoId);
      const people = await this.groups.joinTags(tx, fromId, intoId);
      await audit(
        tx,
        'merge',
        { tag: intoId },
        `${from.name} is ${into.name} now, for ${people} more people`,
        { before: from.name },
      );
      return { people };
    });
  }
}
