import { NotFound } from '../platform/errors';
import { isDeepStrictEqual } from 'node:util';
import { Injectable } from '@nestjs/common';
import type { Go } from '@goodword/core/team';
import type {
  GoView,
  GroupKind,
  MessageState,
  MessageView,
  Recipients,
  TagTrigger,
} from '@goodword/core/contract';
import { letterRules } from '@goodword/core/letter';
import { lineKindOf, segmentLines } from '@goodword/core/segment';
import type { Channel, Purpose, Scope as PermissionScope } from '@goodword/core/permission';
import type { Bound, Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export interface MessageRow extends Pick<
  Tables['message'],
  | 'id'
  | 'organization_id'
  | 'chapter_id'
  | 'name'
  | 'list_id'
  | 'subject'
  | 'preheader'
  | 'letter'
  | 'body'
  | 'recipients'
  | 'scheduled_at'
  | 'started_at'
  | 'sender_id'
  | 'tested_at'
  | 'prepared_to'
  | 'updated_at'
  | 'template_id'
  | 'template_version'
  | 'in_reply_to'
  | 'locale'
  | 'ask'
  | 'plainly'
  | 'go_state'
  | 'go_version'
  | 'go_asked_by'
  | 'go_by'
  | 'go_at'
  | 'go_note'
  | 'paused_why'
  | 'wording_of'
> {
  channel: Channel;
  purpose: Purpose | null;
  state: MessageState;
  /** Another teammate who has read a service message that asks. */
  seconded_by: number | null;
  seconded_group: number | null;
  seconded_reached: number;
  /** The one person that it was written to from their record. */
  personal_to: number | null;
  tag_triggers: TagTrigger[] | null;
  /** Goes up with every change of what people read. */
  version: number;
  /** Who changed the words or the group last. */
  changed_by: number | null;
  /** Goes up with every change of who is in the group. */
  group_version: number;
  /** Sent "now": until when it is taken back without a trace. */
  leaves_at: Date | null;
  own_time: number;
  spread_hours: number | null;
  /** Of a hundred so many are kept without it, drawn with this seed. */
  kept_share: number | null;
  kept_seed: number | null;
  /** The campaign that it is a step of. */
  campaign_id: number | null;
  /** The automatic message that it is one of. */
  automation_id: number | null;
}

/** The part of a message, or of a template, that people read. */
export type Composable = Pick<
  MessageRow,
  'purpose' | 'list_id' | 'subject' | 'preheader' | 'letter' | 'body' | 'locale' | 'ask' | 'plainly'
> & { channel: Channel };

/** The scope of permission that a message asks for. */
export function scopeOfMessage(message: Pick<MessageRow, 'purpose' | 'list_id'>): PermissionScope {
  return message.list_id === null ? (message.purpose ?? 'appeals') : `list:${message.list_id}`;
}

/** Whether one copy is for a whole household: by post, where nobody asked for one each. */
export const isForHouseholds = ({ channel, recipients }: Pick<MessageRow, 'channel' | 'recipients'>) =>
  channel === 'post' && recipients.apart !== true;

/** `templates`: the names of templates that are still there. */
export function messageView(row: MessageRow, templates: ReadonlyMap<number, string>): MessageView {
  return {
    id: row.id,
    name: row.name,
    channel: row.channel,
    purpose: row.purpose,
    listId: row.list_id,
    state: row.state,
    subject: row.subject,
    preheader: row.preheader,
    letter: row.letter,
    text: row.body,
    template:
      row.template_id === null
        ? null
        : {
            id: row.template_id,
            version: row.template_version ?? 1,
            name: templates.get(row.template_id) ?? null,
          },
    locale: row.locale,
    ask: row.ask,
    plainly: row.plainly === 1,
    senderId: row.sender_id,
    go: goViewOf(row),
    recipients: row.recipients,
    scheduledAt: row.scheduled_at?.toISOString() ?? null,
    ownTime: row.own_time === 1,
    spreadHours: row.spread_hours,
    keptShare: row.kept_share,
    leavesAt: row.leaves_at?.toISOString() ?? null,
    updatedAt: row.updated_at.toISOString(),
    version: row.version,
    groupVersion: row.group_version,
    testedAt: row.tested_at?.toISOString() ?? null,
    tagTriggers: row.tag_triggers ?? [],
    campaignId: row.campaign_id,
    automationId: row.automation_id,
    wordingOf: row.wording_of,
  };
}

/** What was said of a draft that was handed over, as the core knows it; null where nobody asked. */
export function goOf(row: GoColumns): Go | null {
  if (row.go_state === null) return null;
  return { state: row.go_state, version: row.go_version ?? 0, askedBy: row.go_asked_by };
}

type GoColumns = Pick<MessageRow, 'go_state' | 'go_version' | 'go_asked_by'>;

function goViewOf(row: MessageRow): GoView | null {
  const go = goOf(row);
  return go && { ...go, by: row.go_by, at: row.go_at?.toISOString() ?? '', note: row.go_note };
}

const NEEDING = ['draft', 'scheduled', 'preparing', 'standing'];

/** Whether a passage of its words is for people whom a group says. */
function passagesAsk({ letter }: MessageRow, kind: GroupKind, id: number): boolean {
  return letterRules(letter)
    .flatMap(segmentLines)
    .some((line) =>
      lineKindOf(line)
        .named(line)
        .some((thing) => thing.kind === kind && thing.id === id),
    );
}

/** Whether a message would lose its ground if a group went. */
export function usesGroup(message: MessageRow, kind: GroupKind, id: number): boolean {
  return (
    [...message.recipients.from, ...message.recipients.minus].some(
      (ref) => ref.kind === kind && ref.id === id,
    ) ||
    passagesAsk(message, kind, id) ||
    (kind === 'list' && message.list_id === id) ||
    (kind === 'tag' && (message.tag_triggers ?? []).some((trigger) => trigger.tagId === id))
  );
}

/** A message as `MessageRow` has it. */
const COLUMNS = `id, organization_id, chapter_id, name, channel, purpose, list_id, state, subject, preheader,
          letter, body, recipients, scheduled_at, started_at, sender_id, tested_at, seconded_by,
          seconded_group, seconded_reached, prepared_to, personal_to, tag_triggers, updated_at,
          version, changed_by, group_version, leaves_at, own_time, spread_hours,
          kept_share, kept_seed,
          template_id, template_version, locale, ask, plainly, in_reply_to,
          go_state, go_version, go_asked_by, go_by, go_at, go_note, paused_why, wording_of,
          (SELECT s.campaign_id FROM campaign_step s WHERE s.message_id = message.id) AS campaign_id,
          (SELECT a.automation_id FROM automation_step a WHERE a.message_id = message.id) AS automation_id`;

/**
 * The messages that were written to one person alone, or to somebody whose record has come into theirs: their
 * deliveries came along. Binds `supporterId`.
 */
export const WRITTEN_TO_THEM_ALONE = `SELECT id FROM message
    WHERE organization_id = :org AND personal_to = :supporterId
  UNION
  SELECT own.message_id FROM delivery own
    JOIN message w ON w.id = own.message_id AND w.personal_to IS NOT NULL
    WHERE own.organization_id = :org AND own.supporter_id = :supporterId`;

const NOT_OVER = "state NOT IN ('stopped','done')";

/** Messages: their words, recipients and state. Owns `message`, `message_group`, `message_link`. */
@Injectable()
export class MessagesRepository {
  /** Messages to groups; what was written to one person alone is on their record. */
  async all(db: Scoped): Promise<MessageRow[]> {
    return db.sql<MessageRow>(
      `SELECT ${COLUMNS}
        FROM message
        WHERE organization_id = :org AND personal_to IS NULL
          AND (:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter)
        ORDER BY updated_at DESC, id DESC
        LIMIT 500`,
    );
  }

  /** The message; throws for one that is not there. */
  async need(db: Scoped, id: number): Promise<MessageRow> {
    const message = await this.find(db, id);
    if (!message) throw new NotFound('message');
    return message;
  }

  async find(db: Scoped, id: number): Promise<MessageRow | undefined> {
    const [row] = await db.sql<MessageRow>(
      `SELECT ${COLUMNS}
        FROM message
        WHERE organization_id = :org AND (:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter)
          AND id = :id`,
      { id },
    );
    return row;
  }

  /** Locks the row, so that two people can't move the message at once. */
  async lock(tx: Scoped, id: number): Promise<MessageRow | undefined> {
    const [row] = await tx.sql<MessageRow>(
      `SELECT ${COLUMNS}
        FROM message
        WHERE organization_id = :org AND id = :id FOR UPDATE`,
      { id },
    );
    return row;
  }

  async make(tx: Scoped, message: { name: string; channel: Channel; purpose: Purpose }): Promise<number> {
    return tx.insert('message', {
      ...message,
      chapter_id: tx.scope.chapterId,
      recipients: JSON.stringify({ from: [], minus: [], without: [] }),
      sender_id: tx.scope.actorId,
    });
  }

  /** The newest message that was written to somebody alone, and who wrote it. */
  async lastTo(db: Scoped, supporterId: number): Promise<{ id: number; by: string | null } | undefined> {
    const [last] = await db.sql<{ id: number; by: string | null }>(
      `SELECT m.id, t.name AS \`by\`
        FROM message m
        LEFT JOIN teammate t ON t.id = m.sender_id
        WHERE m.organization_id = :org AND m.id IN (${WRITTEN_TO_THEM_ALONE})
        ORDER BY m.id DESC
        LIMIT 1`,
      { supporterId },
    );
    return last;
  }

  async change(tx: Scoped, id: number, values: Record<string, Bound>): Promise<void> {
    await tx
      .table('message')
      .where('message.id', id)
      .update({ ...values, updated_at: new Date() });
  }

  /** Changes what people read, or who they are: a save of what came before is told of it. */
  async revise(
    tx: Scoped,
    message: MessageRow,
    which: 'version' | 'group_version',
    values: Record<string, Bound>,
  ): Promise<number> {
    const next = message[which] + 1;
    await this.change(tx, message.id, { ...values, [which]: next, changed_by: tx.scope.actorId });
    return next;
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    for (const table of [
      ...([
        'campaign_step',
        'look_group',
        'message_group',
        'message_link',
        'message_note',
        'message_proof',
      ] as const),
    ])
      await tx.table(table).where('message_id', id).delete();
    await tx.table('message').where('message.id', id).delete();
  }

  /**
   * Messages that have not gone, and need what they name: as recipients, as their list, or as a tag that they
   * put on.
   */
  async needing(db: Scoped): Promise<MessageRow[]> {
    return (await this.all(db)).filter((message) => NEEDING.includes(message.state));
  }

  /** Puts one group in the place of another, in messages that have not gone yet. */
  async replaceGroup(tx: Scoped, kind: GroupKind, from: number, into: number): Promise<void> {
    const replaced = (refs: Recipients['from']) => {
      const changed = refs.map((ref) => (ref.kind === kind && ref.id === from ? { kind, id: into } : ref));
      return changed.filter((ref, i) => changed.findIndex((one) => isDeepStrictEqual(one, ref)) === i);
    };
    // Of every chapter: a group that is none any more must stand in no message.
    const everywhere = tx.ofAll();
    for (const { id } of (await this.needing(everywhere)).filter((one) => usesGroup(one, kind, from))) {
      const message = (await this.lock(everywhere, id))!;
      const { recipients } = message;
      await this.revise(tx, message, 'group_version', {
        recipients: JSON.stringify({
          ...recipients,
          from: replaced(recipients.from),
          minus: replaced(recipients.minus),
        }),
      });
    }
    if (kind === 'tag') await this.replaceTagTriggers(tx, from, into);
  }

  /** A stage of a campaign has another name: messages that have not gone name it so. */
  async renameStage(tx: Scoped, campaignId: number, from: string, to: string): Promise<void> {
    const renamed = (refs: Recipients['from']) =>
      refs.map((ref) =>
        ref.kind === 'campaign' && ref.id === campaignId && ref.stage === from ? { ...ref, stage: to } : ref,
      );
    const everywhere = tx.ofAll();
    for (const { id } of (await this.needing(everywhere)).filter((one) =>
      usesGroup(one, 'campaign', campaignId),
    )) {
      const message = (await this.lock(everywhere, id))!;
      const { recipients } = message;
      await this.revise(tx, message, 'group_version', {
        recipients: JSON.stringify({
          ...recipients,
          from: renamed(recipients.from),
          minus: renamed(recipients.minus),
        }),
      });
    }
  }

  /** Also of messages that have gone: links in them are followed for months. */
  private async replaceTagTriggers(tx: Scoped, from: number, into: number): Promise<void> {
    const rows = await tx.sql<{ id: number; tag_triggers: TagTrigger[] }>(
      'SELECT id, tag_triggers FROM message WHERE organization_id = :org AND tag_triggers IS NOT NULL',
    );
    for (const { id, tag_triggers: triggers } of rows) {
      if (!triggers.some((trigger) => trigger.tagId === from)) continue;
      const changed = triggers.map((trigger) =>
        trigger.tagId === from ? { ...trigger, tagId: into } : trigger,
      );
      const once = changed.filter(
        (trigger, i) =>
          changed.findIndex((one) => one.on === trigger.on && one.tagId === trigger.tagId) === i,
      );
      await tx
        .table('message')
        .where('message.id', id)
        .update({ tag_triggers: JSON.stringify(once) });
    }
  }

  /** How many messages that have not left are a teammate's. */
  async waitingFor(db: Scoped, id: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n FROM message WHERE organization_id = :org AND sender_id = :id AND ${NOT_OVER}`,
      {
        id,
      },
    );
    return row?.n ?? 0;
  }

  async handOn(tx: Scoped, from: number, to: number): Promise<void> {
    await tx.execute(
      `UPDATE message SET sender_id = :to WHERE organization_id = :org AND sender_id = :from AND ${NOT_OVER}`,
      { from, to },
    );
  }

  async links(db: Scoped, messageId: number): Promise<{ position: number; url: string }[]> {
    return db.sql(
      `SELECT position, url
        FROM message_link
        WHERE organization_id = :org AND message_id = :messageId
        ORDER BY position`,
      { messageId },
    );
  }

  async keepLinks(tx: Scoped, messageId: number, urls: readonly string[]): Promise<void> {
    await tx.insertAll(
      'message_link',
      ['message_id', 'position', 'url'],
      urls.map((url, position) => [messageId, position, url]),
      true,
    );
  }
}
