import { YES_BY_FORM } from '../../permission/ledger/happened.sql';
import { foundBy, standingBy, type CauseSource } from './source';

/** Somebody comes onto a list. */
export const listSource: CauseSource<'list'> = {
  found: (db, { listId }, { from, to }) =>
    foundBy(
      db,
      `SELECT l.supporter_id AS supporterId, CONCAT('list:', UNIX_TIMESTAMP(l.added_at)) AS \`key\`,
          l.added_at AS at
        FROM supporter_list l
        WHERE l.organization_id = :org AND l.list_id = :listId AND l.added_at >= :from AND l.added_at < :to`,
      { listId, from, to },
    ),
  standing: (db, { listId }, some) =>
    standingBy(
      db,
      `SELECT v.id
        FROM automation_visit v
        JOIN supporter_list l ON l.supporter_id = v.supporter_id AND l.list_id = :listId
        WHERE v.organization_id = :org AND v.id IN (:ids)`,
      { listId, ids: some.map(({ id }) => id) },
    ),
};

/** Somebody says yes by a form; where it asks to confirm, when they have confirmed. */
export const formSource: CauseSource<'form'> = {
  found: (db, { formId }, { from, to }) => foundBy(db, YES_BY_FORM, { formId, from, to }),
};
