import { Inject, Injectable } from '@nestjs/common';
import type { Cause } from '@goodword/core/automations';
import { lineKindOf, segmentLines, type Line } from '@goodword/core/segment';
import { FormsRepository } from '../forms/forms.repository';
import { readableLines } from '@goodword/core/letter';
import { groupsNamed, nameKey } from '@goodword/core/merge';
import { MessagesRepository, usesGroup, type MessageRow } from '../messages/messages.repository';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { AutomationsRepository } from '../automations/automations.repository';
import { StepsRepository } from '../campaigns/steps.repository';
import { SegmentsService } from '../segments/segments.service';
import { sentence } from '../platform/words';

export type UsedKind = 'tag' | 'list' | 'segment' | 'campaign';

/**
 * Something that would lose its ground if a group went; what belongs to another chapter has no name for
 * whoever asks.
 */
export interface UsedBy {
  what: 'message' | 'segment' | 'form' | 'campaign' | 'automatic message';
  id: number;
  name: string | null;
}

const WAYS_OUT: Record<UsedBy['what'], string> = {
  message: sentence('uses.message'),
  segment: 'Take the line out of that segment',
  form: 'Take it off that form',
  'automatic message': sentence('uses.automation'),
  campaign: 'Choose another segment for its roster, or none',
};

/** Who still needs a tag, a list, a segment or a campaign's roster. */
@Injectable()
export class UsesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
    @Inject(StepsRepository) private readonly steps: StepsRepository,
    @Inject(AutomationsRepository) private readonly automations: AutomationsRepository,
  ) {}

  async of(scope: AccessScope, kind: UsedKind, id: number): Promise<UsedBy[]> {
    return (await this.known(scope))(kind, id);
  }

  /** Messages that have not left and name the segment in a passage: another name would be none to them. */
  async namingSegment(scope: AccessScope, id: number): Promise<string[]> {
    const everywhere = this.database.read(scope).ofAll();
    const name = (await this.segments.everywhere(scope)).find((one) => one.id === id)?.name;
    const messages = await this.messages.needing(everywhere);
    return messages.filter((message) => namesSegment(message, name)).map((message) => message.name);
  }

  /** Reads once what may need anything, for many questions. */
  async known(scope: AccessScope): Promise<(kind: UsedKind, id: number) => UsedBy[]> {
    const everywhere = this.database.read(scope).ofAll();
    const [messages, segments, forms, steps, joining, automations] = await Promise.all([
      this.messages.needing(everywhere),
      this.segments.everywhere(scope),
      this.forms.all(everywhere),
      this.steps.waiting(everywhere),
      this.steps.joining(everywhere),
      this.automations.excepting(everywhere),
    ]);
    const named = ({ id, name, chapter_id }: { id: number; name: string; chapter_id: number | null }) => ({
      id,
      name: scope.chapterId === null || chapter_id === null || chapter_id === scope.chapterId ? name : null,
    });
    const onForm = (form: (typeof forms)[number], kind: UsedKind, id: number) =>
      (kind === 'tag' ? form.definition.tagIds : kind === 'list' ? form.definition.listIds : []).includes(id);
    return (kind, id) => [
      ...messages
        .filter(
          (message) =>
            usesGroup(message, kind, id) ||
            steps.some(
              (step) =>
                step.id === message.id && segmentLines(step.rule).some((line) => asksFor(line, kind, id)),
            ) ||
            (kind === 'segment' &&
              namesSegment(message, segments.find((segment) => segment.id === id)?.name)),
        )
        .map((message): UsedBy => ({ what: 'message', ...named(message) })),
      ...segments
        .filter((segment) => segmentLines(segment.tree).some((line) => asksFor(line, kind, id)))
        .map((segment): UsedBy => ({ what: 'segment', ...named(segment) })),
      ...forms
        .filter((form) => onForm(form, kind, id))
        .map((form): UsedBy => ({ what: 'form', ...named(form) })),
      ...joining
        .filter((campaign) => kind === 'segment' && campaign.joins_from === id)
        .map((campaign): UsedBy => ({ what: 'campaign', ...named(campaign) })),
      ...automations
        .filter(
          ({ cause, excepted }) =>
            causeAsksFor(cause, kind, id) ||
            (excepted !== null && segmentLines(excepted).some((line) => asksFor(line, kind, id))),
        )
        .map((one): UsedBy => ({ what: 'automatic message', ...named(one) })),
    ];
  }
}

/** Whether a passage of its words is for a segment by its name. */
function namesSegment(message: MessageRow, name: string | undefined): boolean {
  if (name === undefined) return false;
  const named = readableLines({ ...message, text: message.body }).flatMap(groupsNamed);
  return named.some((one) => nameKey(one) === nameKey(name));
}

/** Whether it is what sets an automatic message going. */
function causeAsksFor(cause: Cause, kind: UsedKind, id: number): boolean {
  if (kind === 'list')
    return cause.kind === 'list'
      ? cause.listId === id
      : cause.kind === 'lapses' && cause.scope === `list:${id}`;
  if (kind === 'tag') return cause.kind === 'tag' && cause.tagId === id;
  return kind === 'campaign' && cause.kind === 'stage' && cause.campaignId === id;
}

function asksFor(line: Line, kind: UsedKind, id: number): boolean {
  return lineKindOf(line)
    .named(line)
    .some((thing) => thing.kind === kind && thing.id === id);
}

/** Why something can't go, with each that needs it and the way out; null where nothing does. */
export function stillNeeded(uses: readonly UsedBy[]): string | null {
  if (uses.length === 0) return null;
  const named = [
    ...new Set(
      uses.map(({ what, name }) =>
        name === null ? `a ${what} of another chapter` : `the ${what} “${name}”`,
      ),
    ),
  ].join(', ');
  const ways = [...new Set(uses.map(({ what }) => WAYS_OUT[what]))].join('; ');
  return sentence('uses.still', {
    uses: `${named.charAt(0).toUpperCase()}${named.slice(1)}`,
    count: uses.length,
    ways,
  });
}
