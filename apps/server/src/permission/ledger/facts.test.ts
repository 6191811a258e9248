import fc from 'fast-check';
import {
  ADDRESS_KIND,
  decideFromEntries,
  PRESETS,
  startingRules,
  withOption,
  type HouseRules,
  type PermissionEntry,
  type Place,
  type CollectionMethod,
  type Scope,
} from '@goodword/core/permission';
import { makeTestOrganization, openTestDatabase } from '../../platform/test-database';
import type { Database } from '../../platform/database';
import type { Scoped } from '../../platform/scoped';
import type { AccessScope as CallerScope } from '../../platform/scope';
import { Ordinals } from '../../roll/ordinals';
import { ConsentColumns } from '../../roll/consent-columns';
import { FactsRepository, type EligibilityQuery } from './facts.repository';
import { LedgerRepository } from './ledger.repository';
import { FoldingRepository } from './folding.repository';

/**
 * A small world: people with the addresses they have (by number), the state of the addresses, and the ledger.
 */
interface World {
  channel: 'email' | 'text' | 'call' | 'post';
  people: { addresses: number[]; place: Place; before: { place: Place; until: number }[]; got: number[] }[];
  points: { onHold: boolean; doNotContact: boolean; landline: boolean }[];
  /** Of a person by number, at an address by number; null for none. */
  entries: (Omit<PermissionEntry, 'id' | 'channel' | 'supporterId'> & { person: number | null })[];
}

const POINTS = 4;
const NOW = Date.UTC(2026, 10, 23, 12);
const DAY = 86_400_000;
/** Moments about which a gift of 18 or 24 months lapses, and of an inquiry of 3 or 6. */
const LONG_AGO = [3, 6, 18, 24].flatMap((months) =>
  [-1, 0, 1].map((days) => Date.UTC(2026, 10 - months, 23 + days, 9)),
);
const PLACES: Place[] = [
  { country: null, region: null },
  { country: 'US', region: null },
  { country: 'US', region: 'FL' },
  { country: 'CA', region: 'QC' },
  { country: 'GB', region: null },
  { country: 'FR', region: 'IDF' },
  { country: 'NZ', region: null },
];
const rarely = fc.integer({ min: 0, max: 9 }).map((n) => n === 0);
const world: fc.Arbitrary<World> = fc.record({
  channel: fc.constantFrom(
    'email' as const,
    'email' as const,
    'text' as const,
    'call' as const,
    'post' as const,
  ),
  people: fc.array(
    fc.record({
      addresses: fc.uniqueArray(fc.nat(POINTS - 1), { maxLength: 3 }),
      place: fc.constantFrom(...PLACES),
      before: fc
        .array(
          fc.record({
            place: fc.constantFrom(...PLACES),
            until: fc.constantFrom(NOW - DAY, NOW - 100 * DAY, NOW - 500 * DAY),
          }),
          {
            maxLength: 2,
          },
        )
        .map((some) => some.sort((a, b) => a.until - b.until)),
      got: fc.array(fc.constantFrom(NOW - DAY, NOW - 7 * DAY, NOW - 7 * DAY + 1), { maxLength: 3 }),
    }),
    { minLength: 1, maxLength: 5 },
  ),
  points: fc.array(fc.record({ onHold: fc.boolean(), doNotContact: rarely, landline: rarely }), {
    minLength: POINTS,
    maxLength: POINTS,
  }),
  entries: fc.array(
    fc.record({
      contactPointId: fc.option(fc.nat(POINTS - 1), { nil: null, freq: 5 }),
      person: fc.option(fc.nat(4), { nil: null, freq: 8 }),
      scope: fc.constantFrom<Scope>('all', 'marketing', 'news', 'appeals', 'service', 'list:3'),
      how: fc.constantFrom<CollectionMethod>(
        'file',
        'form',
        'keyword',
        'reply',
        'gift',
        'membership',
        'volunteering',
        'inquiry',
      ),
      byPerson: fc.boolean(),
      state: fc.constantFrom(
        'yes' as const,
        'yes' as const,
        'no' as const,
        'asked' as const,
        'implied' as const,
        'pause' as const,
        'start' as const,
      ),
      // Few distinct moments, so that ties happen.
      at: fc.constantFrom(NOW - 5, NOW - 4, NOW - 3, ...LONG_AGO),
      until: fc.constantFrom(NOW - 1, NOW, NOW + 1000),
    }),
    { maxLength: 14 },
  ),
});

const START = startingRules('US');
const CAPPED = {
  ...PRESETS['united-states'].rules,
  caps: { ...PRESETS.strict.rules.caps, email: { messages: 2, days: 7 } },
};
const RULES: HouseRules[] = [
  START,
  startingRules('CA'),
  { home: '*', places: { '*': PRESETS.strict.rules } },
  {
    home: 'GB',
    refusalOfferedSince: '2026-01-01',
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
  const made = await makeTestOrganization(database);
  [scope, chapter] = [made.scope, made.chapters[0]!];
});
afterAll(() => close());

/** Writes the world and returns the ids that its numbers became. */
async function settle(tx: Scoped, w: World) {
  const points: number[] = [];
  for (const [i, p] of w.points.entries()) {
    points.push(
      await tx.insert('contact_point', {
        kind: ADDRESS_KIND[w.channel],
        normal: `p${i}@example.org`,
        shown: `p${i}@example.org`,
        on_hold: p.onHold,
        do_not_contact: p.doNotContact,
        line: p.landline ? 'landline' : null,
      }),
    );
  }
  const people: number[] = [];
  for (const { addresses, place, before, got } of w.people) {
    const id = await tx.insert('supporter', {
      chapter_id: chapter,
      first_name: 'A',
      last_name: 'B',
      ...place,
    });
    for (const { place: past, until } of before)
      await tx.insert('place_before', { supporter_id: id, ...past, until_at: new Date(until) });
    for (const at of got)
      await tx.insert('delivery', {
        message_id: 900_000_000 + Math.floor(Math.random() * 1e9),
        supporter_id: id,
        channel: w.channel === 'text' ? 'text' : 'email',
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
        kind: ADDRESS_KIND[w.channel],
        position,
      });
  }
  const entries = w.entries.map((e): Omit<PermissionEntry, 'id'> => ({
    ...e,
    contactPointId: e.contactPointId === null ? null : points[e.contactPointId]!,
    supporterId: e.person === null ? null : people[e.person % people.length]!,
    channel: w.channel,
  }));
  const written = await new LedgerRepository(new FoldingRepository()).recordAll(
    tx,
    entries.map((e) => ({ ...e, saidAt: new Date(e.at), untilAt: new Date(e.until!) })),
  );
  return { points, people, entries: entries.map((e, i): PermissionEntry => ({ ...e, id: written[i]! })) };
}

/** As the roll decides for everybody at once. */
async function inTheRoll(
  tx: Scoped,
  ids: readonly number[],
  asking: EligibilityQuery,
): Promise<{ verdict: string; state: string; contactPointId: number | null }[]> {
  const people = new Ordinals();
  for (const id of ids) people.put(id, 1);
  people.settle();
  const consent = new ConsentColumns(people, asking);
  await consent.read(tx, Promise.resolve());
  const out: { verdict: string; state: string; contactPointId: number | null }[] = [];
  consent.decide(
    (ordinal, { verdict, state }, point) =>
      (out[ordinal] = { verdict, state, contactPointId: point || null }),
  );
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

test('facts of some people, and columns of everybody, come to what the deciding function says of their entries', async () => {
  await fc.assert(
    fc.asyncProperty(
      world,
      fc.constantFrom<Scope>('news', 'appeals', 'service', 'list:3'),
      fc.constantFrom(...RULES),
      async (w, question, rules) => {
        await tried(async (tx) => {
          const { points, people, entries } = await settle(tx, w);
          const asking = { channel: w.channel, scope: question, now: new Date(NOW), rules };
          const expected = people.map((supporterId, i) => {
            const { place, before, got, addresses } = w.people[i]!;
            // Calls and letters are not handed over here, so none is counted.
            const recent = w.channel === 'email' || w.channel === 'text' ? got : [];
            const asked = {
              supporterId,
              channel: w.channel,
              scope: question,
              now: NOW,
              place,
              recent,
              rules,
            };
            const past = before.map(({ place: where, until }) => ({ ...where, until }));
            const at = addresses.map((n) => ({ contactPointId: points[n]!, ...w.points[n]! }));
            return decideFromEntries({ ...asked, before: past, addresses: at }, entries);
          });
          expect([...(await new FactsRepository().decide(tx, people, asking)).values()]).toEqual(expected);
          expect(await inTheRoll(tx, people, asking)).toEqual(
            expected.map(({ verdict, state, contactPointId }) => ({ verdict, state, contactPointId })),
          );
          const atEach = people.flatMap((supporterId, i) =>
            w.people[i]!.addresses.map((n) => ({ supporterId, contactPointId: points[n]!, n, i })),
          );
          const door = await new FactsRepository().decideAt(tx, atEach, asking);
          door.forEach(({ decision }, k) => {
            const { i, n } = atEach[k]!;
            const isNone = w.channel === 'text' && w.points[n]!.landline;
            // Somebody who is reached at all is reached there if that is where they are reached.
            if (expected[i]!.verdict === 'send' && expected[i]!.contactPointId === points[n])
              expect(decision.verdict).toBe('send');
            if (expected[i]!.verdict !== 'send' || isNone) expect(decision.verdict).not.toBe('send');
          });
        });
      },
    ),
    { numRuns: 300 },
  );
}, 300_000);

test('the state rebuilt from entries is the state that was kept', async () => {
  await fc.assert(
    fc.asyncProperty(world, async (w) => {
      await tried(async (tx) => {
        await settle(tx, w);
        const states = () =>
          tx.sql(
            `SELECT *
              FROM permission_state
              WHERE organization_id = :org
              ORDER BY contact_point_id, supporter_id, channel, scope`,
          );
        const kept = await states();
        expect(await new FoldingRepository().differences(tx)).toMatchObject({
          differing: 0,
          kept: kept.length,
        });
        await new FoldingRepository().rebuild(tx);
        expect(await states()).toEqual(kept);
      });
    }),
    { numRuns: 40 },
  );
}, 300_000);
