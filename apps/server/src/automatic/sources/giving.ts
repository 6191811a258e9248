import { foundBy, standingBy, type CauseSource } from './source';

const EARLIER = `SELECT 1 FROM gift b
  WHERE b.organization_id = g.organization_id AND b.supporter_id = g.supporter_id AND b.amount > 0
    AND (b.given_on < g.given_on OR (b.given_on = g.given_on AND b.id < g.id))`;

/** What a gift is, beside somebody's earlier ones. */
const WHICH = {
  any: '',
  first: `AND NOT EXISTS (${EARLIER})`,
  again: `AND EXISTS (${EARLIER})`,
  recurring: `AND g.recurring = 1 AND NOT EXISTS (${EARLIER} AND b.recurring = 1)`,
} as const;

/** A gift comes in, by whatever way; one that was given before the time that is looked at is none. */
export const giftSource: CauseSource<'gift'> = {
  found: (db, { which, atLeast }, { from, to, since }) =>
    foundBy(
      db,
      `SELECT g.supporter_id AS supporterId, CONCAT('gift:', g.id) AS \`key\`, g.recorded_at AS at
        FROM gift g
        WHERE g.organization_id = :org AND g.recorded_at >= :from AND g.recorded_at < :to AND g.amount > 0
          AND g.given_on >= :day AND g.amount >= :least ${WHICH[which]}`,
      { from, to, least: atLeast ?? 1, day: since },
    ),
  standing: (db, _cause, some) =>
    standingBy(
      db,
      `SELECT v.id
        FROM automation_visit v
        JOIN gift g ON g.id = CAST(SUBSTRING(v.cause_key, 6) AS UNSIGNED) AND g.organization_id = :org
          AND g.supporter_id = v.supporter_id AND g.amount > 0
        WHERE v.organization_id = :org AND v.id IN (:ids)`,
      { ids: some.map(({ id }) => id) },
    ),
};
