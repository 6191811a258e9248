import type { Database } from '@goodword/server/platform/database';
import type { AccessScope } from '@goodword/server/platform/scope';
import type { EligibilityQuery } from '@goodword/server/permission/ledger/facts.repository';
import type { SendingRepository } from '@goodword/server/sending/sending.repository';
import { seconds } from './house';

/** So many at once, as the job that prepares. */
const SLICE = 5000;

export interface OutboxFigures {
  /** Seconds for the group to be frozen. */
  frozen: number;
  /** Seconds for everybody to be decided and written down, slice by slice. */
  ours: number;
  /** Seconds for one `INSERT … SELECT` of the same rows into a table like it. */
  yardstick: number;
}

/** The outbox of a message to everybody, beside the plain copy of what came of it. */
export async function benchOutbox(
  { database, scope }: { database: Database; scope: AccessScope },
  sending: SendingRepository,
  ids: Uint32Array,
  asking: EligibilityQuery,
): Promise<OutboxFigures> {
  const knex = database.unscoped();
  const [messageId] = (await knex('message').insert({
    organization_id: scope.organizationId,
    ...{ name: 'To everybody', channel: 'email', purpose: 'appeals', state: 'preparing', subject: '' },
    ...{ preheader: '', body: '', recipients: '{"from":[],"minus":[],"without":[]}' },
  })) as [number];
  const frozen = await seconds(() =>
    database.writeUnlogged(scope, (tx) => sending.freezeGroup(tx, messageId, [...ids])),
  );
  const ours = await seconds(async () => {
    for (let after: number | null = 0; after !== null;) {
      const from: number = after;
      after = await database.writeUnlogged(scope, (tx) =>
        sending.prepareSlice(tx, messageId, from, SLICE, { ...asking, messageId }),
      );
    }
  });
  await knex.raw('CREATE TABLE delivery_like LIKE delivery');
  const yardstick = await seconds(async () => {
    await knex.raw('INSERT INTO delivery_like SELECT * FROM delivery WHERE message_id = ?', [messageId]);
  });
  return { frozen, ours, yardstick };
}
