import type { Knex } from 'knex';

/** By which ids a gateway over SMPP tells what became of the segments of a text. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `CREATE TABLE text_segment (
      gateway_id VARCHAR(65) NOT NULL PRIMARY KEY,
      provider_key VARCHAR(80) NOT NULL,
      is_delivered TINYINT(1) NOT NULL DEFAULT 0,
      at DATETIME(3) NOT NULL DEFAULT (UTC_TIMESTAMP(3)),
      KEY by_key (provider_key),
      KEY by_at (at)
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE text_segment');
}
