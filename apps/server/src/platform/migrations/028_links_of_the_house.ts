import type { Knex } from 'knex';

/** Where one gives, and the host of short links; what a gateway's texts are shortened to. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `ALTER TABLE organization
      ADD COLUMN giving_page VARCHAR(300) NOT NULL DEFAULT '',
      ADD COLUMN link_url VARCHAR(120) NOT NULL DEFAULT ''`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE organization DROP giving_page, DROP link_url');
}
