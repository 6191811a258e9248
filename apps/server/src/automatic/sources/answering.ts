import { keywordKey } from '@goodword/core/text';
import { foundBy, type CauseSource } from './source';

/** Somebody texts a word, and nothing else. */
export const keywordSource: CauseSource<'keyword'> = {
  async found(db, { word }, { from, to }) {
    const rows = await db.sql<{ id: number; supporterId: number; body: string; at: Date }>(
      `SELECT r.id, r.supporter_id AS supporterId, r.body, r.at
        FROM reply r
        JOIN supporter s ON s.id = r.supporter_id AND s.erased_at IS NULL
          AND (:chapter IS NULL OR s.chapter_id = :chapter)
        WHERE r.organization_id = :org AND r.channel = 'text' AND r.at >= :from AND r.at < :to`,
      { from, to },
    );
    return rows
      .filter(({ body }) => keywordKey(body) === keywordKey(word))
      .map(({ id, supporterId, at }) => ({ supporterId, key: `reply:${id}`, at: at.getTime() }));
  },
};

/** Somebody follows a link of a message, for the first time. */
export const clickSource: CauseSource<'click'> = {
  found: (db, { messageId }, { from, to }) =>
    foundBy(
      db,
      `SELECT e.supporter_id AS supporterId, CONCAT('click:', e.delivery_id) AS \`key\`, MIN(e.at) AS at
        FROM delivery_event e
        JOIN message m ON m.id = e.message_id AND (m.id = :messageId OR m.wording_of = :messageId)
        WHERE e.organization_id = :org AND e.kind = 'clicked'
          AND e.at >= :from AND e.at < :to
        GROUP BY e.supporter_id, e.delivery_id`,
      { messageId, from, to },
    ),
};
