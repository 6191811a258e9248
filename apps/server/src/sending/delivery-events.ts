import type { Scoped } from '../platform/scoped';

/** What a delivery says while it waits for an hour at which it may come. */
export const WAITS_FOR_HOUR = 'Waits for a decent hour where they are';

export async function addEvents(
  tx: Scoped,
  ids: readonly number[],
  kind: string,
  detail: string,
): Promise<void> {
  const people = 'SELECT supporter_id AS id FROM delivery WHERE organization_id = :org AND id IN (:ids)';
  tx.changed(
    'messages',
    0,
    (await tx.sql<{ id: number }>(people, { ids })).map(({ id }) => id),
  );
  await tx.execute(
    `INSERT INTO delivery_event (organization_id, delivery_id, message_id, supporter_id, kind, detail)
      SELECT organization_id, id, message_id, supporter_id, :kind, :detail
      FROM delivery
      WHERE organization_id = :org AND id IN (:ids)`,
    { ids, kind, detail: detail.slice(0, 500) },
  );
}
