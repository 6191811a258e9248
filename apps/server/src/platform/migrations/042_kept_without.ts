import type { Knex } from 'knex';

const STATES = [
  ...['suppressed', 'ready', 'leased', 'in-flight', 'sent', 'delivered', 'bounced', 'failed', 'door'],
  ...['unsure', 'stopped', 'undecided'],
];
const enumOf = (states: readonly string[]) => states.map((state) => `'${state}'`).join(',');

/** Some are kept without a message, by lot, to see what it did: how many of a hundred, and the seed. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE message ADD kept_share TINYINT UNSIGNED NULL, ADD kept_seed INT UNSIGNED NULL');
  await knex.raw(`ALTER TABLE delivery MODIFY state ENUM(${enumOf([...STATES, 'kept'])}) NOT NULL`);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw("UPDATE delivery SET state = 'stopped' WHERE state = 'kept'");
  await knex.raw(`ALTER TABLE delivery MODIFY state ENUM(${enumOf(STATES)}) NOT NULL`);
  await knex.raw('ALTER TABLE message DROP COLUMN kept_share, DROP COLUMN kept_seed');
}
