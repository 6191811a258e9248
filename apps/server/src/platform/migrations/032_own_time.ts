import type { Knex } from 'knex';

/** Whether the time of a message is that of each person's own clock. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE message ADD COLUMN own_time TINYINT(1) NOT NULL DEFAULT 0');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE message DROP own_time');
}
