import type { Knex } from 'knex';

/** Over how many hours from its beginning a message leaves; null for at once. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE message ADD COLUMN spread_hours SMALLINT UNSIGNED NULL');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE message DROP spread_hours');
}
