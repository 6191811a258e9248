import { Injectable } from '@nestjs/common';
import { CALL_AGAIN, type CallWho, type MessageState } from '@goodword/core/contract';
import type { Purpose, Verdict } from '@goodword/core/permission';
import type { Bound, Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export interface CallListRow extends Pick<
  Tables['call_list'],
  'name' | 'campaign_id' | 'script' | 'message_id'
> {
  /** How it stands with the step that it is; null for a list that is none. */
  step_state: MessageState | null;
  chapter_id: number | null;
  campaign: string | null;
  stages: string[] | null;
  purpose: Purpose;
  made_by_name: string | null;
  made_at: Date;
  people: number;
  called: number;
  again: number;
  suppressed: number;
  id: number;
}

export interface CallMemberRow extends Pick<
  Tables['call_list_member'],
  'position' | 'supporter_id' | 'outcome' | 'note_id'
> {
  suppressed: Verdict | null;
  note: string | null;
  stage: string | null;
  gone: number;
  first_name: string;
  last_name: string;
}

const HERE = 'AND m.suppressed IS NULL AND s.erased_at IS NULL';
const WHO: Record<CallWho, string> = {
  all: '',
  may: HERE,
  open: `AND m.outcome IS NULL ${HERE}`,
  again: `AND m.outcome IN (:again) ${HERE}`,
};

const TO_CALL = `EXISTS (SELECT 1 FROM call_list_member m
    WHERE m.call_list_id = c.id AND m.outcome IS NULL AND m.suppressed IS NULL)`;

/**
 * Lists of people to be called, frozen in their order, and what came of each call. Owns `call_list`,
 * `call_list_member`.
 */
@Injectable()
export class CallsRepository {
  async make(
    tx: Scoped,
    list: {
      name: string;
      campaignId: number | null;
      script: string;
      purpose: Purpose;
      messageId: number | null;
    },
    people: readonly { id: number; suppressed: Verdict | null }[],
  ): Promise<number> {
    const id = await tx.insert('call_list', {
      name: list.name,
      campaign_id: list.campaignId,
      script: list.script,
      purpose: list.purpose,
      message_id: list.messageId,
      chapter_id: tx.scope.chapterId,
      made_by: tx.scope.actorId,
    });
    const names = await this.byName(
      tx,
      people.map((person) => person.id),
    );
    const suppressedOf = new Map(people.map((person) => [person.id, person.suppressed]));
    await tx.insertAll(
      'call_list_member',
      ['call_list_id', 'position', 'supporter_id', 'suppressed'],
      names.map((supporterId, i): Bound[] => [id, i + 1, supporterId, suppressedOf.get(supporterId) ?? null]),
    );
    return id;
  }

  async all(db: Scoped): Promise<CallListRow[]> {
    return this.select(db, 'ORDER BY c.id DESC LIMIT 200', {});
  }

  /** Those of a step. */
  async ofMessage(db: Scoped, messageId: number): Promise<CallListRow[]> {
    return this.select(db, 'AND c.message_id = :messageId ORDER BY c.id', { messageId });
  }

  async find(db: Scoped, id: number): Promise<CallListRow | undefined> {
    return (await this.select(db, 'AND c.id = :id', { id }))[0];
  }

  async outcomes(
    db: Scoped,
    ids: readonly number[],
  ): Promise<{ listId: number; outcome: string; people: number }[]> {
    if (ids.length === 0) return [];
    return db.sql(
      `SELECT m.call_list_id AS listId, m.outcome, COUNT(*) AS people
        FROM call_list_member m
        WHERE m.organization_id = :org AND m.call_list_id IN (:ids) AND m.outcome IS NOT NULL
        GROUP BY m.call_list_id, m.outcome ORDER BY people DESC, m.outcome`,
      { ids },
    );
  }

  /** People after a position, in their order; of all of them or of some. */
  async members(
    db: Scoped,
    id: number,
    after: number,
    limit: number,
    who: CallWho = 'all',
  ): Promise<CallMemberRow[]> {
    return db.sql<CallMemberRow>(
      `SELECT m.position, m.supporter_id, s.first_name, s.last_name, m.suppressed, m.outcome, m.note_id,
        n.body AS note, r.stage, s.erased_at IS NOT NULL AS gone
        FROM call_list_member m
        JOIN call_list c ON c.id = m.call_list_id
        JOIN supporter s ON s.id = m.supporter_id
        LEFT JOIN note n ON n.id = m.note_id
        LEFT JOIN roster r ON r.campaign_id = c.campaign_id AND r.supporter_id = m.supporter_id
        WHERE m.organization_id = :org AND m.call_list_id = :id AND m.position > :after
        AND (:chapter IS NULL OR s.chapter_id = :chapter)
          ${WHO[who]} ORDER BY m.position LIMIT :limit`,
      { id, after, limit, again: CALL_AGAIN },
    );
  }

  /** Where each of its people stands on the roster of its campaign. */
  async stages(db: Scoped, id: number): Promise<Map<number, string>> {
    const rows = await db.sql<{ supporter_id: number; stage: string }>(
      `SELECT m.supporter_id, r.stage
        FROM call_list_member m
        JOIN call_list c ON c.id = m.call_list_id
        JOIN roster r ON r.campaign_id = c.campaign_id AND r.supporter_id = m.supporter_id
        WHERE m.organization_id = :org AND m.call_list_id = :id`,
      { id },
    );
    return new Map(rows.map((row) => [row.supporter_id, row.stage]));
  }

  async member(db: Scoped, id: number, position: number): Promise<CallMemberRow | undefined> {
    const [row] = await this.members(db, id, position - 1, 1);
    return row?.position === position ? row : undefined;
  }

  /** What came of a call so far, locked: two may call through one list. */
  async holdAnswer(
    tx: Scoped,
    id: number,
    position: number,
  ): Promise<{ outcome: string | null; note: string } | undefined> {
    const [row] = await tx.sql<{ outcome: string | null; note: string }>(
      `SELECT m.outcome, COALESCE(n.body, '') AS note
        FROM call_list_member m
        LEFT JOIN note n ON n.id = m.note_id
        WHERE m.organization_id = :org AND m.call_list_id = :id AND m.position = :position FOR UPDATE`,
      { id, position },
    );
    return row;
  }

  async answer(
    tx: Scoped,
    id: number,
    position: number,
    outcome: string | null,
    noteId: number | null,
  ): Promise<void> {
    await tx.execute(
      `UPDATE call_list_member
        SET outcome = :outcome, note_id = :noteId, answered_by = :actor,
          answered_at = IF(:outcome IS NULL, NULL, UTC_TIMESTAMP(3))
        WHERE organization_id = :org AND call_list_id = :id AND position = :position`,
      { id, position, outcome, noteId, actor: tx.scope.actorId },
    );
  }

  async remove(tx: Scoped, id: number): Promise<void> {
    await tx.execute('DELETE FROM call_list_member WHERE organization_id = :org AND call_list_id = :id', {
      id,
    });
    await tx.execute('DELETE FROM call_list WHERE organization_id = :org AND id = :id', { id });
  }

  private async byName(db: Scoped, ids: readonly number[]): Promise<number[]> {
    const rows = await db.sql<{ id: number }>(
      `SELECT id
        FROM supporter
        WHERE organization_id = :org AND erased_at IS NULL AND id IN (:ids)
        ORDER BY last_name, first_name, id`,
      { ids },
    );
    return rows.map((row) => row.id);
  }

  /** How many call lists of a teammate's still have somebody to call. */
  async waitingFor(db: Scoped, id: number): Promise<number> {
    const [row] = await db.sql<{ n: number }>(
      `SELECT COUNT(*) AS n
        FROM call_list c
        WHERE c.organization_id = :org AND c.made_by = :id AND ${TO_CALL}`,
      {
        id,
      },
    );
    return row?.n ?? 0;
  }

  async handOn(tx: Scoped, from: number, to: number): Promise<void> {
    await tx.execute(
      `UPDATE call_list c
        SET c.made_by = :to
        WHERE c.organization_id = :org AND c.made_by = :from AND ${TO_CALL}`,
      { from, to },
    );
  }

  private async select(db: Scoped, rest: string, bindings: Record<string, Bound>): Promise<CallListRow[]> {
    return db.sql<CallListRow>(
      `SELECT c.id, c.chapter_id, c.name, c.campaign_id, c.script, c.purpose, c.made_at,
          c.message_id, e.state AS step_state, g.name AS campaign, g.stages, t.name AS made_by_name,
          (SELECT COUNT(*) FROM call_list_member m WHERE m.call_list_id = c.id) AS people,
          (SELECT COUNT(*) FROM call_list_member m
          WHERE m.call_list_id = c.id AND m.outcome IS NOT NULL) AS called,
          (SELECT COUNT(*) FROM call_list_member m JOIN supporter s ON s.id = m.supporter_id
          WHERE m.call_list_id = c.id ${WHO.again}) AS again,
          (SELECT COUNT(*) FROM call_list_member m
          WHERE m.call_list_id = c.id AND m.suppressed IS NOT NULL) AS suppressed
        FROM call_list c LEFT JOIN campaign g ON g.id = c.campaign_id LEFT JOIN teammate t ON t.id = c.made_by
          LEFT JOIN message e ON e.id = c.message_id
        WHERE c.organization_id = :org AND (:chapter IS NULL OR c.chapter_id = :chapter) ${rest}`,
      { ...bindings, again: CALL_AGAIN },
    );
  }
}
