import type { Knex } from 'knex';

/** How much mail a provider takes, and how a new domain is made known. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE organization ADD COLUMN mail_limits JSON NULL');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE organization DROP mail_limits');
}
