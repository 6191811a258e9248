import fc from 'fast-check';
import {
  decide,
  oneCopyPerAddress,
  PRESETS,
  startingRules,
  withOption,
  type HouseRules,
  type PermissionEntry,
  type Place,
  type Road,
  type Scope,
} from '@goodword/core/permission';
import { LedgerRepository } from './ledger.repository';
import { bindingsOf, groupVerdictSql, type Asking } from './verdict.sql';
import { Ordinals } from '../roll/ordinals';
import { Standings } from '../roll/standings';
import { makeOrganization, openTestDatabase } from '../platform/test-database';
import type { Database, Scoped } from '../platform/database';
import type { Scope as CallerScope } from '../platform/scope';

/** A small world: people with the addresses they have (by number), the state of the addresses, and the ledger. */
interface World {
  channel: 'email' | 'text' | 'call';
  people: { addresses: number[]; place: Place; got: number[] }[];
  points: { onHold: boolean; doNotContact: boolean }[];
  entries: (Omit<PermissionEntry, 'id' | 'channel' | 'supporterId'> & { person: number })[];
}

const POINTS = 4;
const NOW = Date.UTC(2026, 10, 23, 12);
const DAY = 86_400_000;
/** Moments about which a gift of 18 or 24 months lapses, and of an inquiry of 3 or 6. */
const LONG_AGO = [3, 6, 18, 24].flatMap((months) => [-1, 0, 1].map((days) => Date.UTC(2026, 10 - months, 23 + days, 9)));
const world: fc.Arbitrary<World> = fc.record({
  channel: fc.constantFrom('email' as const, 'email' as const, 'text' as const, 'call' as const),
  people: fc.array(
    fc.record({
      addresses: fc.uniqueArray(fc.nat(POINTS - 1), { maxLength: 3 }),
      place: fc.constantFrom<Place>(
        { country: null, region: null },
        { country: 'US', region: null },
        { country: 'US', region: 'FL' },
        { country: 'CA', region: 'QC' },
        { country: 'GB', region: null },
        { country: 'FR', region: 'IDF' },
        { country: 'NZ', region: null },
      ),
      got: fc.array(fc.constantFrom(NOW - DAY, NOW - 7 * DAY, NOW - 7 * DAY + 1), { maxLength: 3 }),
    }),
    { minLength: 1, maxLength: 5 },
  ),
  points: fc.array(fc.record({ onHold: fc.boolean(), doNotContact: fc.integer({ min: 0, max: 9 }).map((n) => n === 0) }), {
    minLength: POINTS,
    maxLength: POINTS,
  }),
  entries: fc.array(
    fc.record({
      contactPointId: fc.nat(POINTS - 1),
      person: fc.nat(4),
      scope: fc.constantFrom<Scope>('all', 'marketing', 'news', 'appeals'),
      how: fc.constantFrom<Road>('file', 'form', 'gift', 'membership', 'volunteering', 'inquiry'),
      byPerson: fc.boolean(),
      state: fc.constantFrom('yes' as const, 'no' as const, 'asked' as const, 'implied' as const, 'pause' as const),
      // Few distinct moments, so that ties happen.
      at: fc.constantFrom(NOW - 5, NOW - 4, NOW - 3, ...LONG_AGO),
      until: fc.constantFrom(NOW - 1, NOW, NOW + 1000),
    }),
    { maxLength: 14 },
  ),
});

const START = startingRules('US');
const CAPPED = { ...PRESETS['united-states'].rules, caps: { ...PRESETS.strict.rules.caps, email: { messages: 2, days: 7 } } };
const RULES: HouseRules[] = [
  START,
  startingRules('CA'),
  { home: '*', places: { '*': PRESETS.strict.rules } },
  {
    home: 'GB',
    places: {
      ...START.places,
      'US-FL': CAPPED,
      CA: withOption(PRESETS.canada.rules, 'charity-fundraising', true),
      GB: withOption(PRESETS['united-kingdom'].rules, 'charity-soft-opt-in', true),
      FR: withOption(PRESETS['united-states'].rules, 'email-unasked', true),
    },
  },
  { home: 'US', places: { US: CAPPED, '*': CAPPED } },
];

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
        kind: w.channel === 'email' ? 'email' : 'mobile',
        normal: `p${i}@example.org`,
        shown: `p${i}@example.org`,
        on_hold: p.onHold,
        do_not_contact: p.doNotContact,
      }),
    );
  }
  const people: number[] = [];
  for (const { addresses, place, got } of w.people) {
    const id = await tx.insert('supporter', { chapter_id: chapter, first_name: 'A', last_name: 'B', ...place });
    for (const at of got)
      await tx.insert('delivery', {
        message_id: 900_000_000 + Math.floor(Math.random() * 1e9),
        supporter_id: id,
        channel: w.channel === 'call' ? 'email' : w.channel,
        verdict: 'send',
        state: 'sent',
        sent_at: new Date(at),
        provider_key: crypto.randomUUID(),
      });
    people.push(id);
    for (const [position, point] of addresses.entries())
      await tx.insert('supporter_contact', {
        supporter_id: id,
        contact_point_id: points[point]!,
        kind: w.channel === 'email' ? 'email' : 'mobile',
        position,
      });
  }
  const ledger = new LedgerRepository();
  const entries: PermissionEntry[] = [];
  for (const e of w.entries) {
    const supporterId = people[e.person % people.length]!;
    const contactPointId = points[e.contactPointId]!;
    const id = await ledger.record(tx, {
      contactPointId,
      supporterId,
      channel: w.channel,
      scope: e.scope,
      state: e.state,
      saidAt: new Date(e.at),
      untilAt: new Date(e.until!),
      byPerson: e.byPerson,
      how: e.how,
    });
    entries.push({ ...e, id, contactPointId, supporterId, channel: w.channel });
  }
  return { points, people, entries };
}

/** As the roll decides for everybody at once. */
async function inTheRoll(tx: Scoped, ids: readonly number[], asking: Asking): Promise<{ verdict: string; state: string }[]> {
  const people = new Ordinals();
  for (const id of ids) people.put(id, 1);
  people.settle();
  const standings = new Standings(people, asking);
  await standings.read(tx, Promise.resolve());
  const out: { verdict: string; state: string }[] = [];
  standings.decide((ordinal, { verdict, state }) => (out[ordinal] = { verdict, state }));
  return out;
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

test('the set-based verdict, and that of the roll, agree with the deciding function for every person', async () => {
  await fc.assert(
    fc.asyncProperty(world, fc.constantFrom<Scope>('news', 'appeals', 'service', 'list:3'), fc.constantFrom(...RULES), async (w, question, rules) => {
      await tried(async (tx) => {
        const { points, people, entries } = await settle(tx, w);
        const asking = { channel: w.channel, scope: question, now: new Date(NOW), rules };
        const expected = oneCopyPerAddress(
          people.map((supporterId, i) => ({
            supporterId,
            ...decide({
              supporterId,
              channel: w.channel,
              scope: question,
              now: NOW,
              place: w.people[i]!.place,
              // Calls are made by people and not handed over, so none is counted.
              recent: w.channel === 'call' ? [] : w.people[i]!.got,
              entries,
              rules,
              addresses: w.people[i]!.addresses.map((n) => ({ contactPointId: points[n]!, ...w.points[n]! })),
            }),
          })),
        );
        expect(await inTheRoll(tx, people, asking)).toEqual(
          expected.map(({ verdict, state }) => ({ verdict: verdict === 'shared-address' ? 'send' : verdict, state })),
        );
        const rows = await tx.sql<{ supporter_id: number; contact_point_id: number | null; state: string; entry_id: number | null; verdict: string }>(
          `SELECT * FROM (${groupVerdictSql('SELECT id AS supporter_id FROM supporter WHERE organization_id = :org', asking)}) v ORDER BY supporter_id`,
          bindingsOf(asking),
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
    { numRuns: 300 },
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
        expect(await new LedgerRepository().differences(tx)).toMatchObject({ differing: 0, kept: kept.length });
        await new LedgerRepository().rebuild(tx);
        expect(await states()).toEqual(kept);
      });
    }),
    { numRuns: 40 },
  );
}, 60_000);
