import type { Knex } from 'knex';

/**
 * How letters of a house look, in which language a message is written, what it asks for, the picture under a
 * signature, and pictures in several sizes.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE organization ADD COLUMN house_style JSON NULL');
  for (const table of ['message', 'template'])
    await knex.raw(`ALTER TABLE ${table} ADD COLUMN locale VARCHAR(12) NULL, ADD COLUMN ask JSON NULL`);
  await knex.raw('ALTER TABLE teammate ADD COLUMN picture_id BIGINT UNSIGNED NULL');
  await knex.raw("ALTER TABLE image ADD COLUMN folder VARCHAR(60) NOT NULL DEFAULT ''");
  await knex.raw(
    `CREATE TABLE image_size (
      organization_id INT UNSIGNED NOT NULL,
      image_id BIGINT UNSIGNED NOT NULL,
      width INT UNSIGNED NOT NULL,
      bytes INT UNSIGNED NOT NULL,
      storage_key VARCHAR(80) NOT NULL,
      PRIMARY KEY (image_id, width)
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE image_size');
  await knex.raw('ALTER TABLE image DROP folder');
  await knex.raw('ALTER TABLE teammate DROP picture_id');
  for (const table of ['message', 'template']) await knex.raw(`ALTER TABLE ${table} DROP locale, DROP ask`);
  await knex.raw('ALTER TABLE organization DROP house_style');
}
