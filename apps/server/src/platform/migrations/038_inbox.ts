import type { Knex } from 'knex';

/**
 * Replies as threads: whose they are to answer, until when they are put aside, whether somebody has read
 * them, what a mail says of itself, and the files that came with it. And which reply a message answers, and
 * what it said to the one whom it was written to.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `ALTER TABLE reply
      ADD COLUMN subject VARCHAR(300) NOT NULL DEFAULT '',
      ADD COLUMN mail_id VARCHAR(300) NULL,
      ADD COLUMN assigned_to BIGINT UNSIGNED NULL,
      ADD COLUMN aside_until DATETIME(3) NULL,
      ADD COLUMN read_at DATETIME(3) NULL,
      ADD KEY by_open (organization_id, handled_at, keyword),
      ADD KEY by_point (organization_id, contact_point_id)`,
  );
  // What was done before was read before.
  await knex.raw('UPDATE reply SET read_at = handled_at WHERE handled_at IS NOT NULL');
  await knex.raw(
    `CREATE TABLE reply_file (
      id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
      organization_id INT UNSIGNED NOT NULL,
      reply_id BIGINT UNSIGNED NOT NULL,
      name VARCHAR(200) NOT NULL,
      mime VARCHAR(100) NOT NULL DEFAULT '',
      bytes INT UNSIGNED NOT NULL,
      storage_key VARCHAR(80) NULL,
      refused ENUM('kind','many','empty') NULL,
      KEY by_reply (organization_id, reply_id)
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
  await knex.raw(
    `ALTER TABLE message
      ADD COLUMN answers_reply BIGINT UNSIGNED NULL,
      ADD COLUMN in_reply_to VARCHAR(300) NULL,
      ADD COLUMN said TEXT NULL,
      ADD KEY by_person (personal_to)`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(
    'ALTER TABLE message DROP KEY by_person, DROP COLUMN said, DROP COLUMN in_reply_to, DROP COLUMN answers_reply',
  );
  await knex.raw('DROP TABLE reply_file');
  await knex.raw(
    `ALTER TABLE reply DROP KEY by_point, DROP KEY by_open, DROP COLUMN read_at, DROP COLUMN aside_until,
      DROP COLUMN assigned_to, DROP COLUMN mail_id, DROP COLUMN subject`,
  );
}
