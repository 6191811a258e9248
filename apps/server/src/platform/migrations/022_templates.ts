import type { Knex } from 'knex';

/** Words that are kept and used again, and on a message, which of them it began with. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `CREATE TABLE template (
      id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
      organization_id INT UNSIGNED NOT NULL,
      chapter_id INT UNSIGNED NULL,
      name VARCHAR(120) NOT NULL,
      folder VARCHAR(60) NOT NULL DEFAULT '',
      channel ENUM('email','text','post','call') NOT NULL,
      purpose VARCHAR(20) NULL,
      list_id BIGINT UNSIGNED NULL,
      note VARCHAR(500) NOT NULL DEFAULT '',
      subject VARCHAR(200) NOT NULL DEFAULT '',
      preheader VARCHAR(200) NOT NULL DEFAULT '',
      letter JSON NULL,
      body VARCHAR(4000) NOT NULL DEFAULT '',
      owner_id BIGINT UNSIGNED NULL,
      is_team TINYINT NOT NULL DEFAULT 0,
      archived_at DATETIME(3) NULL,
      version INT UNSIGNED NOT NULL DEFAULT 1,
      changed_by BIGINT UNSIGNED NULL,
      created_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      updated_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      KEY by_age (organization_id, updated_at)
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
  await knex.raw(
    `ALTER TABLE message
      ADD COLUMN template_id BIGINT UNSIGNED NULL,
      ADD COLUMN template_version INT UNSIGNED NULL,
      ADD KEY by_template (organization_id, template_id)`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE message DROP KEY by_template, DROP template_id, DROP template_version');
  await knex.raw('DROP TABLE template');
}
