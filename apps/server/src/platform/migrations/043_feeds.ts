import type { Knex } from 'knex';

const CHARS = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci';
/** Keys of another system are told apart to the letter. */
const KEY = 'VARCHAR(190) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL';

const TABLES = [
  `CREATE TABLE feed_source (
    id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    organization_id BIGINT UNSIGNED NOT NULL,
    name VARCHAR(120) NOT NULL,
    kind ENUM('desk','address') NOT NULL,
    url VARCHAR(500) NOT NULL,
    token TEXT NULL,
    version INT UNSIGNED NOT NULL DEFAULT 0,
    changed_by BIGINT UNSIGNED NULL,
    made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
    UNIQUE KEY by_name (organization_id, name)
  ) ${CHARS}`,
  `CREATE TABLE feed (
    id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    organization_id BIGINT UNSIGNED NOT NULL,
    chapter_id INT UNSIGNED NOT NULL,
    across TINYINT(1) NOT NULL DEFAULT 1,
    source_id BIGINT UNSIGNED NOT NULL,
    name VARCHAR(120) NOT NULL,
    plan JSON NOT NULL,
    is_on TINYINT(1) NOT NULL DEFAULT 0,
    on_since DATETIME(3) NULL,
    next_run_at DATETIME(3) NULL,
    etag VARCHAR(200) NULL,
    position VARCHAR(200) NULL,
    failures TINYINT UNSIGNED NOT NULL DEFAULT 0,
    problem VARCHAR(500) NULL,
    hook_key CHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
    hook_secret TEXT NULL,
    told_up_to BIGINT UNSIGNED NOT NULL DEFAULT 0,
    version INT UNSIGNED NOT NULL DEFAULT 0,
    changed_by BIGINT UNSIGNED NULL,
    made_by BIGINT UNSIGNED NULL,
    made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
    UNIQUE KEY by_name (organization_id, name),
    UNIQUE KEY by_hook (hook_key),
    KEY by_due (is_on, next_run_at)
  ) ${CHARS}`,
  `CREATE TABLE feed_run (
    id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    organization_id BIGINT UNSIGNED NOT NULL,
    feed_id BIGINT UNSIGNED NOT NULL,
    cause ENUM('clock','hand','hook','trial') NOT NULL,
    state ENUM('reading','checking','bringing','done','nothing','tried','held','failed','stopped','taken-out')
      NOT NULL DEFAULT 'reading',
    anyway TINYINT(1) NOT NULL DEFAULT 0,
    batch_id BIGINT UNSIGNED NULL,
    looks_batch_id BIGINT UNSIGNED NULL,
    is_whole TINYINT(1) NOT NULL DEFAULT 1,
    etag VARCHAR(200) NULL,
    position VARCHAR(200) NULL,
    fresh INT UNSIGNED NOT NULL DEFAULT 0,
    changed INT UNSIGNED NOT NULL DEFAULT 0,
    same INT UNSIGNED NOT NULL DEFAULT 0,
    gone INT UNSIGNED NOT NULL DEFAULT 0,
    looks INT UNSIGNED NOT NULL DEFAULT 0,
    not_taken INT UNSIGNED NOT NULL DEFAULT 0,
    problem VARCHAR(500) NULL,
    began_by BIGINT UNSIGNED NULL,
    began_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
    ended_at DATETIME(3) NULL,
    KEY by_feed (organization_id, feed_id, id)
  ) ${CHARS}`,
  `CREATE TABLE feed_run_row (
    organization_id BIGINT UNSIGNED NOT NULL,
    run_id BIGINT UNSIGNED NOT NULL,
    row_no INT UNSIGNED NOT NULL,
    record_key ${KEY},
    digest CHAR(22) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    says CHAR(22) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    first_on CHAR(10) CHARACTER SET ascii NOT NULL,
    is_gone TINYINT(1) NOT NULL DEFAULT 0,
    PRIMARY KEY (run_id, is_gone, row_no)
  ) ${CHARS}`,
  `CREATE TABLE feed_record (
    organization_id BIGINT UNSIGNED NOT NULL,
    feed_id BIGINT UNSIGNED NOT NULL,
    record_key ${KEY},
    digest CHAR(22) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    says CHAR(22) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    first_on CHAR(10) CHARACTER SET ascii NOT NULL,
    supporter_id BIGINT UNSIGNED NULL,
    run_id BIGINT UNSIGNED NOT NULL,
    looks_batch_id BIGINT UNSIGNED NULL,
    looks_row_no INT UNSIGNED NULL,
    is_gone TINYINT(1) NOT NULL DEFAULT 0,
    PRIMARY KEY (feed_id, record_key),
    KEY by_run (run_id),
    KEY by_supporter (organization_id, supporter_id)
  ) ${CHARS}`,
  `CREATE TABLE feed_hook (
    id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    organization_id BIGINT UNSIGNED NOT NULL,
    feed_id BIGINT UNSIGNED NOT NULL,
    hook_id VARCHAR(100) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
    is_open TINYINT(1) NOT NULL DEFAULT 1,
    UNIQUE KEY once (feed_id, hook_id),
    KEY by_open (is_open, feed_id)
  ) ${CHARS}`,
  `CREATE TABLE feed_notice (
    id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    organization_id BIGINT UNSIGNED NOT NULL,
    feed_id BIGINT UNSIGNED NOT NULL,
    entry_id BIGINT UNSIGNED NOT NULL,
    record_key ${KEY},
    supporter_id BIGINT UNSIGNED NOT NULL,
    channel ENUM('email','text','call','post') NOT NULL,
    scope VARCHAR(40) NOT NULL,
    said_at DATETIME(3) NOT NULL,
    state ENUM('waiting','told','dropped') NOT NULL DEFAULT 'waiting',
    attempts TINYINT UNSIGNED NOT NULL DEFAULT 0,
    next_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
    told_at DATETIME(3) NULL,
    problem VARCHAR(500) NULL,
    UNIQUE KEY once (feed_id, entry_id, record_key),
    KEY by_due (state, next_at)
  ) ${CHARS}`,
];

/**
 * Feeds: the systems that they take from, what each says, its runs, and what it knows of each record over
 * there. A run is a batch; the rows of one that is under way are kept beside it until it is in.
 */
export async function up(knex: Knex): Promise<void> {
  for (const table of TABLES) await knex.raw(table);
  await knex.raw('ALTER TABLE batch ADD feed_run_id BIGINT UNSIGNED NULL, ADD KEY by_feed_run (feed_run_id)');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE batch DROP KEY by_feed_run, DROP COLUMN feed_run_id');
  for (const table of [
    'feed_notice',
    'feed_hook',
    'feed_record',
    'feed_run_row',
    'feed_run',
    'feed',
    'feed_source',
  ])
    await knex.raw(`DROP TABLE ${table}`);
}
