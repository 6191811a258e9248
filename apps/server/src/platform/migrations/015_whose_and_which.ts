import type { Knex } from 'knex';

/*
 * Remembered layouts and named tables of people belong to a chapter, or to all; of each name or header there
 * is one in every chapter, so the keys hold a chapter that is never null (0 stands for all). And what is
 * saved by hand knows which version it is at, so that of two who save from one version the second is told.
 */
const VERSION = 'ADD version INT UNSIGNED NOT NULL DEFAULT 0, ADD changed_by BIGINT UNSIGNED NULL';
const CHAPTER =
  'ADD chapter_id INT UNSIGNED NULL, ADD chapter_key INT UNSIGNED AS (COALESCE(chapter_id, 0)) PERSISTENT';

export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `ALTER TABLE layout ${CHAPTER}, ${VERSION}, DROP KEY by_header, ADD UNIQUE KEY by_header (organization_id, chapter_key, header_key)`,
  );
  await knex.raw(
    `ALTER TABLE people_view ${CHAPTER}, ${VERSION}, DROP KEY organization_id, ADD UNIQUE KEY by_name (organization_id, chapter_key, name)`,
  );
  for (const table of ['segment', 'campaign', 'list', 'field'])
    await knex.raw(`ALTER TABLE \`${table}\` ${VERSION}`);
  // How far work is that counts in steps of its own and not in rows of a batch.
  await knex.raw('ALTER TABLE job ADD done INT UNSIGNED NULL, ADD total INT UNSIGNED NULL');
  await knex.raw(
    'ALTER TABLE batch ADD draft_version INT UNSIGNED NOT NULL DEFAULT 0, ADD draft_by BIGINT UNSIGNED NULL',
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE job DROP COLUMN done, DROP COLUMN total');
  await knex.raw('ALTER TABLE batch DROP COLUMN draft_version, DROP COLUMN draft_by');
  for (const table of ['segment', 'campaign', 'list', 'field'])
    await knex.raw(`ALTER TABLE \`${table}\` DROP COLUMN version, DROP COLUMN changed_by`);
  await knex.raw(
    'ALTER TABLE people_view DROP KEY by_name, DROP COLUMN chapter_key, DROP COLUMN chapter_id, DROP COLUMN version, DROP COLUMN changed_by, ADD UNIQUE KEY organization_id (organization_id, name)',
  );
  await knex.raw(
    'ALTER TABLE layout DROP KEY by_header, DROP COLUMN chapter_key, DROP COLUMN chapter_id, DROP COLUMN version, DROP COLUMN changed_by, ADD UNIQUE KEY by_header (organization_id, header_key)',
  );
}
