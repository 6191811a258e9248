import type { Knex } from 'knex';

/** What a part of a text costs, in units of the currency; and texts whose values are written plainly. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE organization ADD COLUMN text_price DECIMAL(10,5) NULL');
  for (const table of ['message', 'template'])
    await knex.raw(`ALTER TABLE ${table} ADD COLUMN plainly TINYINT NOT NULL DEFAULT 0`);
}

export async function down(knex: Knex): Promise<void> {
  for (const table of ['message', 'template']) await knex.raw(`ALTER TABLE ${table} DROP plainly`);
  await knex.raw('ALTER TABLE organization DROP text_price');
}
