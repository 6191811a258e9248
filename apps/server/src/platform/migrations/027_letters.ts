import type { Knex } from 'knex';

/** Letters as messages by post: laid out in files, numbered, and posted on a day. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw("ALTER TABLE message MODIFY channel ENUM('email','text','post') NOT NULL");
  await knex.raw("ALTER TABLE delivery MODIFY channel ENUM('email','text','post') NOT NULL");
  await knex.raw(
    `CREATE TABLE message_letters (
      organization_id INT UNSIGNED NOT NULL,
      message_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
      form VARCHAR(10) NOT NULL,
      asked INT UNSIGNED NOT NULL DEFAULT 1,
      made INT UNSIGNED NOT NULL DEFAULT 0,
      done INT UNSIGNED NOT NULL DEFAULT 0,
      total INT UNSIGNED NOT NULL DEFAULT 0,
      problem VARCHAR(300) NULL,
      posted_on DATE NULL
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
  await knex.raw(
    `CREATE TABLE message_letter (
      organization_id INT UNSIGNED NOT NULL,
      message_id BIGINT UNSIGNED NOT NULL,
      number INT UNSIGNED NOT NULL,
      delivery_id BIGINT UNSIGNED NOT NULL,
      PRIMARY KEY (message_id, number),
      KEY by_delivery (delivery_id)
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
  await knex.raw(
    `CREATE TABLE letter_file (
      id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
      organization_id INT UNSIGNED NOT NULL,
      message_id BIGINT UNSIGNED NOT NULL,
      kind ENUM('pdf','csv') NOT NULL,
      name VARCHAR(160) NOT NULL,
      storage_key CHAR(36) NOT NULL,
      first_number INT UNSIGNED NOT NULL,
      last_number INT UNSIGNED NOT NULL,
      KEY by_message (organization_id, message_id)
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
}

export async function down(knex: Knex): Promise<void> {
  for (const table of ['letter_file', 'message_letter', 'message_letters'])
    await knex.raw(`DROP TABLE ${table}`);
  for (const table of ['delivery', 'message']) {
    await knex.raw(`DELETE FROM ${table} WHERE channel = 'post'`);
    await knex.raw(`ALTER TABLE ${table} MODIFY channel ENUM('email','text') NOT NULL`);
  }
}
