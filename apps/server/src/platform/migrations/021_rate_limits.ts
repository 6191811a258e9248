import type { Knex } from 'knex';

/** How often something was done by somebody of late. The columns are those that the limiter asks for. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `CREATE TABLE rate_limit (
      \`key\` VARCHAR(255) NOT NULL PRIMARY KEY,
      points INT NOT NULL DEFAULT 0,
      expire BIGINT UNSIGNED NULL
    ) ENGINE=InnoDB`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE rate_limit');
}
