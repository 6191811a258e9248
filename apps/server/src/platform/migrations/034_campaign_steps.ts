import type { Knex } from 'knex';

/**
 * A campaign's plan: when it begins, what it wants to reach, when it is over for one person, who comes onto
 * its roster by themselves, and its steps, each a message with its time and its own condition.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `ALTER TABLE campaign
      ADD COLUMN first_day INT NULL,
      ADD COLUMN goal_kind ENUM('people','gifts','money') NULL,
      ADD COLUMN goal_amount BIGINT UNSIGNED NULL,
      ADD COLUMN goal_by INT NULL,
      ADD COLUMN ends_for JSON NULL,
      ADD COLUMN ends_at JSON NULL,
      ADD COLUMN joins_from BIGINT UNSIGNED NULL`,
  );
  await knex.raw(
    `CREATE TABLE campaign_step (
      message_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
      organization_id BIGINT UNSIGNED NOT NULL,
      campaign_id BIGINT UNSIGNED NOT NULL,
      day SMALLINT UNSIGNED NOT NULL,
      minutes SMALLINT UNSIGNED NOT NULL,
      own_time TINYINT(1) NOT NULL DEFAULT 0,
      rule JSON NULL,
      KEY by_campaign (organization_id, campaign_id)
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
  await knex.raw(
    `CREATE TABLE campaign_off (
      organization_id BIGINT UNSIGNED NOT NULL,
      campaign_id BIGINT UNSIGNED NOT NULL,
      supporter_id BIGINT UNSIGNED NOT NULL,
      PRIMARY KEY (organization_id, campaign_id, supporter_id),
      KEY by_supporter (organization_id, supporter_id)
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE campaign_off');
  await knex.raw('DROP TABLE campaign_step');
  await knex.raw(
    `ALTER TABLE campaign DROP first_day, DROP goal_kind, DROP goal_amount, DROP goal_by, DROP ends_for,
      DROP ends_at, DROP joins_from`,
  );
}
