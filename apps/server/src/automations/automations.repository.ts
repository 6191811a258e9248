import { Injectable } from '@nestjs/common';
import type { Cause, Wait } from '@goodword/core/automations';
import type { FallCause } from '@goodword/core/campaigns';
import type { MessageState } from '@goodword/core/contract';
import type { Channel } from '@goodword/core/permission';
import { mapLines, type Line, type Rule } from '@goodword/core/segment';
import { rowsOf, type Bound, type Scoped } from '../platform/scoped';
import type { Knex } from 'knex';

/** An automatic message as it is kept. */
export interface Automation {
  id: number;
  organizationId: number;
  /** Whose people it is for; null for those of all. */
  chapterId: number | null;
  version: number;
  name: string;
  cause: Cause;
  again: boolean;
  stops: FallCause[];
  excepted: Rule | null;
  on: boolean;
  onSince: Date | null;
  /** What happened before is not taken up. */
  since: Date | null;
  /** Up to when what was written down is known. */
  lookedAt: Date | null;
}

/** One of its messages. */
export interface AutomationStepRow {
  messageId: number;
  position: number;
  wait: Wait;
  name: string;
  channel: Channel;
  state: MessageState;
  groupVersion: number;
}

interface Row {
  id: number;
  organization_id: number;
  chapter_id: number | null;
  version: number;
  name: string;
  cause: Cause;
  again: number;
  stops: FallCause[];
  excepted: Rule | null;
  is_on: number;
  on_since: Date | null;
  since: Date | null;
  looked_at: Date | null;
}

const COLUMNS = `id, organization_id, chapter_id, version, name, cause, again, stops, excepted, is_on, on_since,
  since, looked_at`;
const MINE = '(:chapter IS NULL OR chapter_id IS NULL OR chapter_id = :chapter)';

const automationOf = (row: Row): Automation => ({
  ...{ id: row.id, organizationId: row.organization_id, chapterId: row.chapter_id, version: row.version },
  ...{ name: row.name, cause: row.cause, again: row.again === 1, stops: row.stops, excepted: row.excepted },
  ...{ on: row.is_on === 1, onSince: row.on_since, since: row.since, lookedAt: row.looked_at },
});

/** Automatic messages and their messages in a row. Owns `automation`, `automation_step`. */
@Injectable()
export class AutomationsRepository {
  /** Those that are on, in any organization. */
  async on(knex: Knex): Promise<{ id: number; organization_id: number; chapter_id: number | null }[]> {
    return await rowsOf(knex, 'automation')
      .where('is_on', 1)
      .orderBy('id')
      .select('id', 'organization_id', 'chapter_id');
  }

  async all(db: Scoped): Promise<Automation[]> {
    const rows = await db.sql<Row>(
      `SELECT ${COLUMNS} FROM automation WHERE organization_id = :org AND ${MINE} ORDER BY name LIMIT 500`,
    );
    return rows.map(automationOf);
  }

  async find(db: Scoped, id: number, lock: '' | 'FOR UPDATE' = ''): Promise<Automation | undefined> {
    const [row] = await db.sql<Row>(
      `SELECT ${COLUMNS} FROM automation WHERE organization_id = :org AND ${MINE} AND id = :id ${lock}`,
      { id },
    );
    return row && automationOf(row);
  }

  /** That of a message, whatever became of it. */
  async ofMessage(db: Scoped, messageId: number): Promise<Automation | undefined> {
    const [row] = await db.sql<{ id: number }>(
      `SELECT automation_id AS id
        FROM automation_step
        WHERE organization_id = :org AND message_id = :messageId`,
      { messageId },
    );
    return row && this.find(db.ofAll(), row.id);
  }

  async make(tx: Scoped, name: string, cause: Cause, again: boolean): Promise<number> {
    return tx.insert('automation', {
      ...{ name, cause: JSON.stringify(cause), again: Number(again), stops: JSON.stringify(['left']) },
      ...{ chapter_id: tx.scope.chapterId, made_by: tx.scope.actorId },
    });
  }

  async change(tx: Scoped, id: number, values: Record<string, Bound>): Promise<void> {
    await tx.table('automation').where('automation.id', id).update(values);
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    await tx.table('automation_step').where('automation_step.automation_id', id).delete();
    await tx.table('automation').where('automation.id', id).delete();
  }

  async steps(db: Scoped, id: number): Promise<AutomationStepRow[]> {
    return db.sql(
      `SELECT s.message_id AS messageId, s.position, s.wait, m.name, m.channel, m.state,
          m.group_version AS groupVersion
        FROM automation_step s
        JOIN message m ON m.id = s.message_id
        WHERE s.organization_id = :org AND s.automation_id = :id
        ORDER BY s.position`,
      { id },
    );
  }

  /** The names of the messages of each, in their order. */
  async messageNames(db: Scoped): Promise<Map<number, string[]>> {
    const rows = await db.sql<{ id: number; name: string }>(
      `SELECT s.automation_id AS id, m.name
        FROM automation_step s
        JOIN message m ON m.id = s.message_id
        WHERE s.organization_id = :org
        ORDER BY s.automation_id, s.position`,
    );
    const names = new Map<number, string[]>();
    for (const { id, name } of rows) names.set(id, [...(names.get(id) ?? []), name]);
    return names;
  }

  async addStep(tx: Scoped, automation: Automation, messageId: number, position: number, wait: Wait) {
    await tx.insert('automation_step', {
      ...{ message_id: messageId, automation_id: automation.id, position, wait: JSON.stringify(wait) },
    });
    await tx.table('message').where('message.id', messageId).update({ chapter_id: automation.chapterId });
  }

  async changeStep(tx: Scoped, messageId: number, values: Record<string, Bound>): Promise<void> {
    await tx.table('automation_step').where('automation_step.message_id', messageId).update(values);
  }

  /** Takes one out; those behind it move up. */
  async removeStep(tx: Scoped, { messageId, position }: AutomationStepRow, id: number): Promise<void> {
    await tx.table('automation_step').where('automation_step.message_id', messageId).delete();
    await tx.execute(
      `UPDATE automation_step
        SET position = position - 1
        WHERE organization_id = :org AND automation_id = :id AND position > :position`,
      { id, position },
    );
  }

  /** What each excepts, with whose it is: for what names a thing that is to go. */
  async excepting(
    db: Scoped,
  ): Promise<{ id: number; name: string; chapter_id: number | null; cause: Cause; excepted: Rule | null }[]> {
    return db.sql(
      'SELECT id, name, chapter_id, cause, excepted FROM automation WHERE organization_id = :org',
    );
  }

  /** Writes the lines of exceptions anew, where what they name is another now. */
  async rewrite(tx: Scoped, anew: (line: Line) => Line): Promise<void> {
    for (const { id, excepted } of await this.excepting(tx.ofAll())) {
      if (excepted === null) continue;
      const changed = JSON.stringify(mapLines(excepted, anew));
      if (changed !== JSON.stringify(excepted)) await this.change(tx, id, { excepted: changed });
    }
  }

  /** Puts one tag in the place of another in what sets it going. */
  async replaceTag(tx: Scoped, from: number, into: number): Promise<void> {
    for (const { id, cause } of await this.excepting(tx.ofAll()))
      if (cause.kind === 'tag' && cause.tagId === from)
        await this.change(tx, id, { cause: JSON.stringify({ ...cause, tagId: into }) });
  }

  /** A stage of a campaign has another name. */
  async renameStage(tx: Scoped, campaignId: number, from: string, to: string): Promise<void> {
    for (const { id, cause } of await this.excepting(tx.ofAll()))
      if (cause.kind === 'stage' && cause.campaignId === campaignId && cause.stage === from)
        await this.change(tx, id, { cause: JSON.stringify({ ...cause, stage: to }) });
  }
}
