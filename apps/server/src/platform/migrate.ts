import type { Knex } from 'knex';
import * as first from './migrations/001_first';
import * as permission from './migrations/002_permission';
import * as gather from './migrations/003_gather';
import * as sort from './migrations/004_sort';
import * as record from './migrations/005_record';
import * as tagDeeds from './migrations/006_tag_deeds';
import * as rowsInPlace from './migrations/007_rows_in_place';
import * as kindsOfLinks from './migrations/008_kinds_of_links';
import * as whoseANoIs from './migrations/009_whose_a_no_is';
import * as rulesOfPlaces from './migrations/010_rules_of_places';
import * as evidenceWhole from './migrations/011_evidence_whole';
import * as holdsThatAsk from './migrations/012_holds_that_ask';
import * as lookedAt from './migrations/013_looked_at';
import * as setup from './migrations/014_setup';
import * as whoseAndWhich from './migrations/015_whose_and_which';
import * as severalChapters from './migrations/016_several_chapters';
import * as refusalsAndChapters from './migrations/017_refusals_and_chapters';
import * as whatIsTold from './migrations/018_what_is_told_of_rows';
import * as whichChapter from './migrations/019_which_chapter';
import * as wordsOfTheTrade from './migrations/020_words_of_the_trade';
import * as rateLimits from './migrations/021_rate_limits';
import * as templates from './migrations/022_templates';
import * as lettersInFull from './migrations/023_letters_in_full';
import * as proofs from './migrations/024_proofs';
import * as versionsOfWords from './migrations/025_versions_of_words';
import * as priceOfTexts from './migrations/026_price_of_texts';
import * as letters from './migrations/027_letters';
import * as deliveryFaults from './migrations/030_delivery_faults';
import * as secondLook from './migrations/033_second_look';
import * as campaignSteps from './migrations/034_campaign_steps';
import * as mailLimits from './migrations/035_mail_limits';
import * as automations from './migrations/036_automations';
import * as wordings from './migrations/037_wordings';
import * as inbox from './migrations/038_inbox';
import * as spread from './migrations/039_spread';
import * as textSegments from './migrations/040_text_segments';
import * as callsOfSteps from './migrations/041_calls_of_steps';
import * as keptWithout from './migrations/042_kept_without';
import * as feeds from './migrations/043_feeds';
import * as ownTime from './migrations/032_own_time';
import * as senderCheck from './migrations/031_sender_check';
import * as together from './migrations/029_together';
import * as linksOfTheHouse from './migrations/028_links_of_the_house';

const MIGRATIONS: Record<string, Knex.Migration> = {
  '001_first': first,
  '002_permission': permission,
  '003_gather': gather,
  '004_sort': sort,
  '005_record': record,
  '006_tag_deeds': tagDeeds,
  '007_rows_in_place': rowsInPlace,
  '008_kinds_of_links': kindsOfLinks,
  '009_whose_a_no_is': whoseANoIs,
  '010_rules_of_places': rulesOfPlaces,
  '011_evidence_whole': evidenceWhole,
  '012_holds_that_ask': holdsThatAsk,
  '013_looked_at': lookedAt,
  '014_setup': setup,
  '015_whose_and_which': whoseAndWhich,
  '016_several_chapters': severalChapters,
  '017_refusals_and_chapters': refusalsAndChapters,
  '018_what_is_told_of_rows': whatIsTold,
  '019_which_chapter': whichChapter,
  '020_words_of_the_trade': wordsOfTheTrade,
  '021_rate_limits': rateLimits,
  '022_templates': templates,
  '023_letters_in_full': lettersInFull,
  '024_proofs': proofs,
  '025_versions_of_words': versionsOfWords,
  '026_price_of_texts': priceOfTexts,
  '027_letters': letters,
  '028_links_of_the_house': linksOfTheHouse,
  '029_together': together,
  '030_delivery_faults': deliveryFaults,
  '031_sender_check': senderCheck,
  '032_own_time': ownTime,
  '033_second_look': secondLook,
  '034_campaign_steps': campaignSteps,
  '035_mail_limits': mailLimits,
  '036_automations': automations,
  '037_wordings': wordings,
  '038_inbox': inbox,
  '039_spread': spread,
  '040_text_segments': textSegments,
  '041_calls_of_steps': callsOfSteps,
  '042_kept_without': keptWithout,
  '043_feeds': feeds,
};

const source: Knex.MigrationSource<string> = {
  getMigrations: async () => Object.keys(MIGRATIONS),
  getMigrationName: (name) => name,
  getMigration: async (name) => MIGRATIONS[name]!,
};

export const newestMigration = Object.keys(MIGRATIONS).at(-1)!;

/** Seconds for which a start waits while another one migrates. */
const PATIENCE = 600;

/**
 * Brings the schema to the newest version; a database that is there already is left as it is. Of two starts
 * at once one waits for the other, by a lock of the server's that ends with its connection: none is left
 * behind by a killed one.
 */
export async function migrate(knex: Knex): Promise<void> {
  const client = knex.client as {
    acquireConnection(): Promise<unknown>;
    releaseConnection(one: unknown): Promise<void>;
  };
  const connection = await client.acquireConnection();
  try {
    const name = "CONCAT('gw_migrate_', DATABASE())";
    const [[row]] = (await knex
      .raw(`SELECT GET_LOCK(${name}, ${PATIENCE}) AS got`)
      .connection(connection)) as [[{ got: number }]];
    if (row.got !== 1)
      throw new Error(
        `another start has been migrating this database for ${PATIENCE} seconds; wait for it, then start again`,
      );
    // Under our lock, one of the library's that is still taken was left by a start that was killed.
    if (await knex.schema.hasTable('knex_migrations_lock'))
      await knex('knex_migrations_lock').update({ is_locked: 0 });
    try {
      await knex.migrate.latest({ migrationSource: source });
    } finally {
      await knex.raw(`SELECT RELEASE_LOCK(${name})`).connection(connection);
    }
  } finally {
    await client.releaseConnection(connection);
  }
}
