import type { Knex } from 'knex';

const STATES = [
  ...['suppressed', 'ready', 'leased', 'in-flight', 'sent', 'delivered', 'bounced', 'failed', 'door'],
  ...['unsure', 'stopped'],
];
const enumOf = (states: readonly string[]) => states.map((state) => `'${state}'`).join(',');

/**
 * Two and more wordings of one message: each a message of its own that belongs to the first, how they are
 * compared, and what was decided. Whoever waits for that is `undecided`.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    'ALTER TABLE message ADD COLUMN wording_of BIGINT UNSIGNED NULL, ADD KEY by_wording (wording_of)',
  );
  await knex.raw(`ALTER TABLE delivery MODIFY state ENUM(${enumOf([...STATES, 'undecided'])}) NOT NULL`);
  await knex.raw(
    `CREATE TABLE comparison (
      message_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
      organization_id BIGINT UNSIGNED NOT NULL,
      share TINYINT UNSIGNED NOT NULL,
      measure ENUM('clicked','gave','replied','opened') NOT NULL,
      hours SMALLINT UNSIGNED NOT NULL,
      seed INT UNSIGNED NOT NULL,
      version INT UNSIGNED NOT NULL DEFAULT 0,
      chosen_id BIGINT UNSIGNED NULL,
      decided_at DATETIME(3) NULL,
      decided_by BIGINT UNSIGNED NULL,
      KEY by_organization (organization_id)
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE comparison');
  await knex.raw("UPDATE delivery SET state = 'stopped' WHERE state = 'undecided'");
  await knex.raw(`ALTER TABLE delivery MODIFY state ENUM(${enumOf(STATES)}) NOT NULL`);
  await knex.raw('ALTER TABLE message DROP KEY by_wording, DROP COLUMN wording_of');
}
