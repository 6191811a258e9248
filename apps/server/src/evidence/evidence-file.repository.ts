import { Injectable } from '@nestjs/common';
import type { FormDefinition } from '@goodword/core/forms';
import type { AddressKind, Channel, HouseRules, Purpose, Scope, Verdict } from '@goodword/core/permission';
import { WANTS_AN_ANSWER } from '../permission/ledger/facts.repository';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

/** Whose file it is; also somebody erased. */
export type EvidenceSubject = Pick<
  Tables['supporter'],
  'id' | 'first_name' | 'last_name' | 'country' | 'region' | 'erased_at'
>;

export interface DeliveryFact {
  message: string;
  channel: Channel;
  purpose: Purpose | null;
  list_id: number | null;
  address: string | null;
  made_at: Date;
  sent_at: Date | null;
  state: string;
  verdict: Verdict;
  door_verdict: Verdict | null;
  entry_id: number | null;
  /** When they last wrote to us from that address before it left; told of service messages alone. */
  wrote_at: Date | null;
  detail: string | null;
}

const ADDRESS = 'LEFT JOIN contact_point cp ON cp.id =';
const MATE = 'LEFT JOIN teammate t ON t.id =';

/** What is kept of one person beside the ledger, each fact with its moment, oldest first. */
@Injectable()
export class EvidenceFileRepository {
  /** Also somebody erased; nobody who was brought into another record. */
  async subject(db: Scoped, id: number): Promise<EvidenceSubject | undefined> {
    const [row] = await db.sql<EvidenceSubject>(
      `SELECT id, first_name, last_name, country, region, erased_at FROM supporter
        WHERE organization_id = :org AND id = :id AND merged_into IS NULL
        AND (:chapter IS NULL OR chapter_id = :chapter)`,
      { id },
    );
    return row;
  }

  /** Also those of records that were brought into this one: of a message that both got, each kept its own. */
  async deliveries(db: Scoped, ids: readonly number[]): Promise<DeliveryFact[]> {
    return db.sql(
      `SELECT IF(a.id IS NULL, m.name, CONCAT(m.name, ' (by itself: ', a.name, ')')) AS message,
          d.channel, m.purpose, m.list_id, cp.shown AS address,
          COALESCE(v.caused_at, m.created_at) AS made_at, d.sent_at, d.state,
          d.verdict, d.door_verdict, d.entry_id, d.detail,
          IF(m.purpose = 'service' AND d.entry_id IS NULL,
            (SELECT MAX(COALESCE(r.received_at, r.at)) FROM reply r
              WHERE r.organization_id = d.organization_id AND r.supporter_id = d.supporter_id
              AND r.contact_point_id = d.contact_point_id AND r.channel = d.channel
              AND r.${WANTS_AN_ANSWER}
              AND COALESCE(r.received_at, r.at) <= COALESCE(d.sent_at, m.created_at)), NULL) AS wrote_at
        FROM delivery d JOIN message m ON m.id = d.message_id ${ADDRESS} d.contact_point_id
        LEFT JOIN automation_visit v ON v.id = d.occasion
        LEFT JOIN automation a ON a.id = v.automation_id
        WHERE d.organization_id = :org AND d.supporter_id IN (:ids) ORDER BY d.id`,
      { ids },
    );
  }

  async confirmations(
    db: Scoped,
    id: number,
  ): Promise<{ channel: Channel; address: string; at: Date; words: string; outcome: string }[]> {
    return db.sql(
      `SELECT s.channel, COALESCE(cp.shown, '') AS address, s.at, s.words, c.state AS outcome
        FROM confirmation_sent s
        JOIN confirmation c ON c.id = s.confirmation_id ${ADDRESS} s.contact_point_id
        WHERE s.organization_id = :org AND c.supporter_id = :id ORDER BY s.id`,
      { id },
    );
  }

  /** Sheets, labels and letters that they stood on. */
  async paper(
    db: Scoped,
    id: number,
  ): Promise<{ form: string; title: string; at: Date; by: string | null }[]> {
    return db.sql(
      `SELECT JSON_VALUE(b.act, '$.form') AS form, COALESCE(JSON_VALUE(b.act, '$.title'), '') AS title,
          COALESCE(b.ended_at, b.made_at) AS at, t.name AS \`by\`
        FROM bulk_member m JOIN bulk b ON b.id = m.bulk_id ${MATE} b.made_by
        WHERE m.organization_id = :org AND m.supporter_id = :id AND m.changed = 1
          AND JSON_VALUE(b.act, '$.do') = 'print'
        ORDER BY b.id`,
      { id },
    );
  }

  async calls(
    db: Scoped,
    id: number,
  ): Promise<
    { list: string; at: Date | null; outcome: string | null; by: string | null; suppressed: Verdict | null }[]
  > {
    return db.sql(
      `SELECT c.name AS list, m.answered_at AS at, m.outcome, t.name AS \`by\`, m.suppressed
        FROM call_list_member m
        JOIN call_list c ON c.id = m.call_list_id ${MATE} m.answered_by
        WHERE m.organization_id = :org AND m.supporter_id = :id ORDER BY c.id`,
      { id },
    );
  }

  async replies(
    db: Scoped,
    id: number,
  ): Promise<{ channel: Channel; at: Date; words: string; keyword: string }[]> {
    return db.sql(
      `SELECT channel, COALESCE(received_at, at) AS at, body AS words, keyword FROM reply
        WHERE organization_id = :org AND supporter_id = :id ORDER BY id`,
      { id },
    );
  }

  async holds(
    db: Scoped,
    points: readonly number[],
  ): Promise<
    {
      point: number;
      address: string;
      at: Date;
      reason: string;
      released_at: Date | null;
      by: string | null;
      why: string | null;
    }[]
  > {
    return db.sql(
      `SELECT h.contact_point_id AS point, cp.shown AS address, h.held_at AS at, h.reason, h.released_at,
        t.name AS \`by\`,
          h.released_why AS why
        FROM address_hold h JOIN contact_point cp ON cp.id = h.contact_point_id ${MATE} h.released_by
        WHERE h.organization_id = :org AND h.contact_point_id IN (:points) ORDER BY h.id`,
      { points: [...points, 0] },
    );
  }

  /** Addresses whose hold was asked for by somebody else there: its reason holds their words. */
  async heldByOthers(db: Scoped, id: number, points: readonly number[]): Promise<Set<number>> {
    const rows = await db.sql<{ point: number }>(
      `SELECT DISTINCT contact_point_id AS point FROM task WHERE organization_id = :org AND kind = 'stop'
        AND contact_point_id IN (:points) AND NOT (supporter_id <=> :id)`,
      { id, points: [...points, 0] },
    );
    return new Set(rows.map(({ point }) => point));
  }

  async questions(
    db: Scoped,
    id: number,
  ): Promise<
    {
      kind: string;
      words: string;
      at: Date;
      done_at: Date | null;
      by: string | null;
      outcome: string | null;
    }[]
  > {
    return db.sql(
      `SELECT k.kind, k.words, k.asked_at AS at, k.done_at, t.name AS \`by\`, k.outcome
        FROM task k ${MATE} k.done_by
        WHERE k.organization_id = :org AND k.supporter_id = :id ORDER BY k.id`,
      { id },
    );
  }

  async places(
    db: Scoped,
    id: number,
  ): Promise<{ country: string | null; region: string | null; until_at: Date; by: string | null }[]> {
    return db.sql(
      `SELECT p.country, p.region, p.until_at, t.name AS \`by\` FROM place_before p ${MATE} p.changed_by
        WHERE p.organization_id = :org AND p.supporter_id = :id ORDER BY p.until_at, p.id`,
      { id },
    );
  }

  async addressChanges(db: Scoped, id: number): Promise<{ from: string; to: string; at: Date }[]> {
    return db.sql(
      `SELECT a.shown AS \`from\`, b.shown AS \`to\`, c.at FROM address_change c
        JOIN contact_point a ON a.id = c.from_point_id JOIN contact_point b ON b.id = c.to_point_id
        WHERE c.organization_id = :org AND c.supporter_id = :id ORDER BY c.id`,
      { id },
    );
  }

  async forms(
    db: Scoped,
    ids: readonly number[],
  ): Promise<{ id: number; version: number; name: string; made_at: Date; definition: FormDefinition }[]> {
    return db.sql(
      `SELECT f.id, v.version, f.name, v.made_at, v.definition
        FROM form_version v
        JOIN form f ON f.id = v.form_id
        WHERE v.organization_id = :org AND v.form_id IN (:ids) ORDER BY f.id, v.version`,
      { ids: [...new Set(ids), 0] },
    );
  }

  /** When each version of the rules of the house began, oldest first. */
  async rulesSince(db: Scoped): Promise<{ id: number; made_at: Date }[]> {
    return db.sql('SELECT id, made_at FROM house_rules WHERE organization_id = :org ORDER BY id');
  }

  async rulesAt(db: Scoped, ids: readonly number[]): Promise<Map<number, HouseRules>> {
    const rows = await db.sql<{ id: number; rules: HouseRules }>(
      'SELECT id, rules FROM house_rules WHERE organization_id = :org AND id IN (:ids)',
      {
        ids: [...new Set(ids), 0],
      },
    );
    return new Map(rows.map(({ id, rules }) => [id, rules]));
  }

  /** Addresses under any of these names, as they are written or as the hash that is left of an erased one. */
  async pointsNamed(
    db: Scoped,
    names: readonly { kind: AddressKind; normal: string; hash: string }[],
  ): Promise<{ id: number; kind: AddressKind }[]> {
    const found = await Promise.all(
      names.map(({ kind, normal, hash }) =>
        db.sql<{ id: number; kind: AddressKind }>(
          `SELECT id, kind FROM contact_point WHERE organization_id = :org AND kind = :kind
            AND (normal = :normal OR normal LIKE CONCAT('erased:', :hash, ':%'))`,
          { kind, normal, hash },
        ),
      ),
    );
    return found.flat();
  }

  /** Everybody of whom anything is kept at some addresses. */
  async peopleAt(
    db: Scoped,
    points: readonly number[],
    said: readonly number[],
  ): Promise<{ id: number; name: string; erased_at: Date | null; current: number }[]> {
    const at = (table: string) =>
      `SELECT supporter_id AS id
        FROM ${table}
        WHERE organization_id = :org AND contact_point_id IN (:points) AND supporter_id > 0`;
    const changed = (column: string) =>
      `SELECT supporter_id AS id FROM address_change WHERE organization_id = :org AND ${column} IN (:points)`;
    return db.sql(
      `SELECT s.id, TRIM(CONCAT(s.first_name, ' ', s.last_name)) AS name, s.erased_at,
          EXISTS (SELECT 1 FROM supporter_contact sc
          WHERE sc.supporter_id = s.id AND sc.contact_point_id IN (:points)) AS current
        FROM supporter s JOIN (
          ${['supporter_contact', 'delivery', 'confirmation', 'reply'].map(at).join(' UNION ')}
          UNION ${changed('from_point_id')} UNION ${changed('to_point_id')} UNION SELECT id FROM supporter
            WHERE organization_id = :org AND id IN (:said)) x ON x.id = s.id
        WHERE s.organization_id = :org AND s.merged_into IS NULL
          AND (:chapter IS NULL OR s.chapter_id = :chapter)
        ORDER BY s.id`,
      { points: [...points, 0], said: [...said, 0] },
    );
  }
}

/** The scope that a message asked for. */
export function scopeOfDelivery({ purpose, list_id }: Pick<DeliveryFact, 'purpose' | 'list_id'>): Scope {
  return list_id === null ? (purpose ?? 'appeals') : `list:${list_id}`;
}
