import fc from 'fast-check';
import { decide, DEFAULT_RULES, oneCopyPerAddress, type HouseRules, type PermissionEntry, type Scope } from '@goodword/core/permission';
import { LedgerRepository } from './ledger.repository';
import { groupVerdictSql, questionOf } from './verdict.sql';
import { makeOrganization, openTestDatabase } from '../platform/test-database';
import type { Database, Scoped } from '../platform/database';
import type { Scope as CallerScope } from '../platform/scope';

/** A small world: people with the addresses they have (by number), the state of the addresses, and the ledger. */
interface World {
  people: number[][];
  points: { onHold: boolean; doNotContact: boolean }[];
  entries: (Omit<PermissionEntry, 'id' | 'channel' | 'supporterId'> & { person: number })[];
}

const POINTS = 4;
const NOW = 1_000_000;
const world: fc.Arbitrary<World> = fc.record({
  people: fc.array(fc.uniqueArray(fc.nat(POINTS - 1), { maxLength: 3 }), { minLength: 1, maxLength: 5 }),
  points: fc.array(fc.record({ onHold: fc.boolean(), doNotContact: fc.integer({ min: 0, max: 9 }).map((n) => n === 0) }), {
    minLength: POINTS,
    maxLength: POINTS,
  }),
  entries: fc.array(
    fc.record({
      contactPointId: fc.nat(POINTS - 1),
      person: fc.nat(4),
      scope: fc.constantFrom<Scope>('all', 'news', 'appeals'),
      byPerson: fc.boolean(),
      state: fc.constantFrom('yes' as const, 'no' as const, 'asked' as const, 'implied' as const),
      // Few distinct moments, so that ties happen.
      at: fc.integer({ min: 990_000, max: 990_005 }),
      until: fc.constantFrom(NOW - 1, NOW, NOW + 1000),
    }),
    { maxLength: 14 },
  ),
});

const RULES: HouseRules[] = [DEFAULT_RULES, { implied: {}, never: {} }, { implied: { email: ['news'] }, never: { email: ['appeals', 'news'] } }];

let database: Database;
let close: () => Promise<void>;
let scope: CallerScope;
let chapter: number;

beforeAll(async () => {
  ({ database, close } = await openTestDatabase());
  const made = await makeOrganization(database);
  [scope, chapter] = [made.scope, made.chapters[0]!];
});
afterAll(() => close());

/** Writes the world and returns the ids that its numbers became. */
async function settle(tx: Scoped, w: World) {
  const points: number[] = [];
  for (const [i, p] of w.points.entries()) {
    points.push(
      await tx.insert('contact_point', {
        kind: 'email',
        normal: `p${i}@example.org`,
        shown: `p${i}@example.org`,
        on_hold: p.onHold,
        do_not_contact: p.doNotContact,
      }),
    );
  }
  const people: number[] = [];
  for (const addresses of w.people) {
    const id = await tx.insert('supporter', { chapter_id: chapter, first_name: 'A', last_name: 'B' });
    people.push(id);
    for (const [position, point] of addresses.entries())
      await tx.insert('supporter_contact', { supporter_id: id, contact_point_id: points[point]!, position });
  }
  const ledger = new LedgerRepository();
  const entries: PermissionEntry[] = [];
  for (const e of w.entries) {
    const supporterId = people[e.person % people.length]!;
    const contactPointId = points[e.contactPointId]!;
    const id = await ledger.record(tx, {
      contactPointId,
      supporterId,
      channel: 'email',
      scope: e.scope,
      state: e.state,
      saidAt: new Date(e.at),
      untilAt: new Date(e.until!),
      byPerson: e.byPerson,
      how: 'file',
    });
    entries.push({ ...e, id, contactPointId, supporterId, channel: 'email' });
  }
  return { points, people, entries };
}

class Undo extends Error {}

/** Runs the work in a transaction that is thrown away. */
async function tried(work: (tx: Scoped) => Promise<void>): Promise<void> {
  await database
    .write(scope, async (tx) => {
      await work(tx);
      throw new Undo();
    })
    .catch((error: unknown) => {
      if (!(error instanceof Undo)) throw error;
    });
}

test('the set-based verdict agrees with the deciding function for every person', async () => {
  await fc.assert(
    fc.asyncProperty(world, fc.constantFrom<Scope>('news', 'appeals', 'service'), fc.constantFrom(...RULES), async (w, question, rules) => {
      await tried(async (tx) => {
        const { points, people, entries } = await settle(tx, w);
        const expected = oneCopyPerAddress(
          people.map((supporterId, i) => ({
            supporterId,
            ...decide({
              supporterId,
              channel: 'email',
              scope: question,
              now: NOW,
              entries,
              rules,
              addresses: w.people[i]!.map((n) => ({ contactPointId: points[n]!, ...w.points[n]! })),
            }),
          })),
        );
        const rows = await tx.sql<{ supporter_id: number; contact_point_id: number | null; state: string; entry_id: number | null; verdict: string }>(
          `SELECT * FROM (${groupVerdictSql('SELECT id AS supporter_id FROM supporter WHERE organization_id = :org')}) v ORDER BY supporter_id`,
          questionOf('email', question, new Date(NOW), rules),
        );
        expect(
          rows.map((r) => ({
            supporterId: r.supporter_id,
            verdict: r.verdict,
            contactPointId: r.contact_point_id,
            state: r.state,
            entryId: r.entry_id,
          })),
        ).toEqual(expected);
      });
    }),
    { numRuns: 150 },
  );
}, 60_000);

test('the state rebuilt from entries is the state that was kept', async () => {
  await fc.assert(
    fc.asyncProperty(world, async (w) => {
      await tried(async (tx) => {
        await settle(tx, w);
        const states = () =>
          tx.sql('SELECT * FROM permission_state WHERE organization_id = :org ORDER BY contact_point_id, supporter_id, channel, scope');
        const kept = await states();
        await new LedgerRepository().rebuild(tx);
        expect(await states()).toEqual(kept);
      });
    }),
    { numRuns: 40 },
  );
}, 60_000);
