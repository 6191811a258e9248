import type { Database } from '@goodword/server/platform/database';
import { programScope } from '@goodword/server/platform/scope';
import { writeAutomatic } from './automatic';
import { writeFeeds, type Desk } from './feeds';
import { DAY, makeHouse, makeDemoOrganization, type Made } from './house';
import { writeMessages } from './past';
import { inventPeople } from './people';
import { writePlan } from './plan';
import { writePeople } from './records';
import { writeTemplates } from './templates';

/**
 * Fills a new database with the demo organization; does nothing where there is an organization already.
 * `secret` is the one that the server will run with: hashes on do-not-contact are keyed by it.
 */
export async function fillHouse(
  database: Database,
  secret: string,
  { count = 12_000, desk = null }: { count?: number; desk?: Desk | null } = {},
): Promise<boolean> {
  const [row] = (await database.unscoped()('organization').count('* as n')) as { n: number }[];
  if ((row?.n ?? 0) > 0) return false;
  const organizationId = await makeDemoOrganization(database);
  try {
    await database.write(programScope(organizationId), async (db) => {
      const made: Made = {
        db,
        people: inventPeople(count),
        today: Math.floor(Date.now() / DAY),
        ids: await makeHouse(db, secret),
      };
      await writePeople(made);
      await writeTemplates(made);
      await writeMessages(made);
      await writePlan(made);
      await writeAutomatic(made);
      if (desk) await writeFeeds(made, secret, desk);
    });
  } catch (error) {
    // Half a demo would look like a whole one at the next start.
    await database.unscoped()('organization').where('id', organizationId).delete();
    throw error;
  }
  return true;
}
