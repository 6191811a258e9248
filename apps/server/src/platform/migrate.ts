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
};

const source: Knex.MigrationSource<string> = {
  getMigrations: async () => Object.keys(MIGRATIONS),
  getMigrationName: (name) => name,
  getMigration: async (name) => MIGRATIONS[name]!,
};

/** Brings the schema to the newest version; a database that is there already is left as it is. */
export async function migrate(knex: Knex): Promise<void> {
  await knex.migrate.latest({ migrationSource: source });
}
