import { Injectable } from '@nestjs/common';
import type { StopTask } from '@goodword/core/contract';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export interface TaskRow extends Pick<
  Tables['task'],
  'id' | 'supporter_id' | 'contact_point_id' | 'reply_id' | 'words' | 'asked_at' | 'done_at'
> {
  kind: 'erasure' | 'stop';
  point_kind: 'email' | 'mobile' | 'post' | null;
}

const NAME = "TRIM(CONCAT(COALESCE(s.first_name, ''), ' ', COALESCE(s.last_name, '')))";

/** What only a person can settle. Owns `task`. */
@Injectable()
export class TasksRepository {
  async add(
    tx: Scoped,
    task: {
      kind: 'stop';
      contactPointId: number;
      supporterId: number | null;
      replyKey: string;
      words: string;
    },
  ): Promise<void> {
    const [reply] = await tx.sql<{ id: number }>(
      'SELECT id FROM reply WHERE organization_id = :org AND provider_key = :key',
      { key: task.replyKey },
    );
    await tx.insert('task', {
      kind: task.kind,
      supporter_id: task.supporterId,
      contact_point_id: task.contactPointId,
      reply_id: reply?.id ?? null,
      words: task.words.slice(0, 600),
    });
  }

  async find(tx: Scoped, id: number): Promise<TaskRow | undefined> {
    const [row] = await tx.sql<TaskRow>(
      `SELECT t.id, t.kind, t.supporter_id, t.contact_point_id, t.reply_id, t.words, t.asked_at,
          t.done_at, cp.kind AS point_kind
        FROM task t
        LEFT JOIN contact_point cp ON cp.id = t.contact_point_id
        WHERE t.organization_id = :org AND t.id = :id AND t.done_at IS NULL FOR UPDATE`,
      { id },
    );
    return row;
  }

  async settle(tx: Scoped, id: number, outcome: string): Promise<void> {
    await tx.execute(
      `UPDATE task
        SET done_at = UTC_TIMESTAMP(3), done_by = :actor, outcome = :outcome
        WHERE organization_id = :org AND id = :id`,
      {
        id,
        outcome,
        actor: tx.scope.actorId,
      },
    );
  }

  /** A START from the number answers what was asked of it; false where nothing was. */
  async answerByStart(tx: Scoped, contactPointId: number): Promise<boolean> {
    const answered = await tx.execute(
      `UPDATE task
        SET done_at = UTC_TIMESTAMP(3), outcome = 'start'
        WHERE organization_id = :org AND kind = 'stop'
        AND contact_point_id = :contactPointId AND done_at IS NULL`,
      { contactPointId },
    );
    return answered > 0;
  }

  async stops(db: Scoped): Promise<StopTask[]> {
    const rows = await db.sql<{
      taskId: number;
      supporterId: number | null;
      name: string;
      words: string;
      at: Date;
    }>(
      `SELECT t.id AS taskId, t.supporter_id AS supporterId,
          COALESCE(NULLIF(${NAME}, ''), cp.shown, 'Somebody') AS name, t.words, t.asked_at AS at
        FROM task t
        LEFT JOIN supporter s ON s.id = t.supporter_id
        LEFT JOIN contact_point cp ON cp.id = t.contact_point_id
        WHERE t.organization_id = :org AND t.kind = 'stop' AND t.done_at IS NULL
          AND (:chapter IS NULL OR s.chapter_id = :chapter)
        ORDER BY t.id
        LIMIT 50`,
    );
    return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
  }

  async erasures(db: Scoped): Promise<{ taskId: number; supporterId: number; name: string; at: string }[]> {
    const rows = await db.sql<{ taskId: number; supporterId: number; name: string; at: Date }>(
      `SELECT t.id AS taskId, t.supporter_id AS supporterId, ${NAME} AS name, t.asked_at AS at
        FROM task t
        JOIN supporter s ON s.id = t.supporter_id AND s.erased_at IS NULL
        WHERE t.organization_id = :org AND t.kind = 'erasure' AND t.done_at IS NULL
          AND (:chapter IS NULL OR s.chapter_id = :chapter)
        ORDER BY t.id
        LIMIT 50`,
    );
    return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
  }
}
