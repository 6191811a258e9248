import fc from 'fast-check';
import { evaluate, type Rule } from '@goodword/core/segment';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { LedgerRepository } from '../permission/ledger.repository';
import type { Bound, Database } from '../platform/database';
import type { Scope } from '../platform/scope';
import { makeOrganization, openTestDatabase } from '../platform/test-database';
import { RollRepository } from './roll.repository';
import { RollService } from './roll.service';

let database: Database;
let close: () => Promise<void>;
let scope: Scope;
let chapters: number[];
let ids: { tag: number; list: number; shirt: number; hours: number; renews: number; born: number };
const TODAY = 20_780;

beforeAll(async () => {
  ({ database, close } = await openTestDatabase());
  ({ scope, chapters } = await makeOrganization(database));
  ids = await database.write(scope, async (tx) => ({
    tag: await tx.insert('tag', { name: 't' }),
    list: await tx.insert('list', { name: 'l' }),
    shirt: await tx.insert('field', { name: 'Shirt', type: 'choice' }),
    hours: await tx.insert('field', { name: 'Hours', type: 'number' }),
    renews: await tx.insert('field', { name: 'Renews', type: 'date' }),
    born: await tx.insert('field', { name: 'Born', type: 'birthday' }),
  }));
});
afterAll(() => close());

interface Person {
  chapter: number;
  tag: boolean;
  list: boolean;
  shirt: string | null;
  hours: number | null;
  renews: number | null;
  born: number | null;
  gifts: number[];
  email: 'yes' | 'no' | null;
}

const maybe = <T>(values: fc.Arbitrary<T>) => fc.option(values, { nil: null });
const person: fc.Arbitrary<Person> = fc.record({
  chapter: fc.nat(1),
  tag: fc.boolean(),
  list: fc.boolean(),
  shirt: maybe(fc.constantFrom('S', 'M')),
  hours: maybe(fc.nat(5)),
  renews: maybe(fc.integer({ min: TODAY - 40, max: TODAY + 40 })),
  born: maybe(fc.constantFrom(101, 229, 1231)),
  gifts: fc.array(fc.integer({ min: 1, max: 5000 }), { maxLength: 3 }),
  email: maybe(fc.constantFrom('yes' as const, 'no' as const)),
});

async function settle(people: Person[]): Promise<number[]> {
  return database.write(scope, async (tx) => {
    for (const table of [
      'supporter',
      'contact_point',
      'supporter_contact',
      'supporter_tag',
      'supporter_list',
      'field_value',
      'gift',
      'permission_entry',
      'permission_state',
    ])
      await tx.table(table).delete();
    const made: number[] = [];
    for (const [i, p] of people.entries()) {
      const id = await tx.insert('supporter', { chapter_id: chapters[p.chapter]!, first_name: 'P', last_name: String(i).padStart(3, '0') });
      made.push(id);
      const value = (field: number, column: string, kept: Bound) =>
        kept !== null && tx.insert('field_value', { supporter_id: id, field_id: field, [column]: kept });
      if (p.tag) await tx.insert('supporter_tag', { supporter_id: id, tag_id: ids.tag });
      if (p.list) await tx.insert('supporter_list', { supporter_id: id, list_id: ids.list });
      await value(ids.shirt, 'text_value', p.shirt);
      await value(ids.hours, 'number_value', p.hours);
      await value(ids.renews, 'date_value', p.renews);
      await value(ids.born, 'month_day', p.born);
      for (const amount of p.gifts) await tx.insert('gift', { supporter_id: id, amount, given_on: TODAY - 3 });
      if (p.email) await agree(tx, id, i, p.email);
    }
    return made;
  });
}

async function agree(tx: Parameters<Parameters<Database['write']>[1]>[0], id: number, i: number, state: 'yes' | 'no'): Promise<void> {
  const contactPointId = await tx.insert('contact_point', { kind: 'email', normal: `p${i}@example.org`, shown: `p${i}@example.org` });
  await tx.insert('supporter_contact', { supporter_id: id, contact_point_id: contactPointId });
  await new LedgerRepository().record(tx, {
    contactPointId,
    supporterId: id,
    channel: 'email',
    scope: 'news',
    state,
    saidAt: new Date(0),
    byPerson: false,
    how: 'file',
  });
}

/** Each rule with its reading in plain terms. */
function questions(): [Rule, (p: Person) => boolean][] {
  return [
    [{ kind: 'tag', tagId: ids.tag, has: true }, (p) => p.tag],
    [{ kind: 'list', listId: ids.list, on: false }, (p) => !p.list],
    [{ kind: 'field', field: ids.shirt, op: 'is', value: 's' }, (p) => p.shirt === 'S'],
    [{ kind: 'field', field: ids.hours, op: 'at-least', value: 3 }, (p) => p.hours !== null && p.hours >= 3],
    [{ kind: 'field', field: ids.renews, op: 'within-next', value: 30 }, (p) => p.renews !== null && p.renews >= TODAY && p.renews <= TODAY + 30],
    [{ kind: 'field', field: ids.born, op: 'in-month', value: 2 }, (p) => p.born === 229],
    [{ kind: 'field', field: 'created', op: 'filled' }, () => true],
    [{ kind: 'gave', did: true, atLeast: 4000, window: { over: 'last-days', days: 10 } }, (p) => p.gifts.reduce((a, b) => a + b, 0) >= 4000],
    [{ kind: 'permission', channel: 'email', scope: 'news', states: ['yes'] }, (p) => p.email === 'yes'],
    [{ kind: 'permission', channel: 'email', scope: 'news', states: ['no', 'never'] }, (p) => p.email !== 'yes'],
  ];
}

test('columns read from the database answer as the people themselves would, in a chapter and in all of them', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(person, { maxLength: 8 }), fc.constantFrom(null, 0, 1), async (people, chapter) => {
      const made = await settle(people);
      const roll = new RollService(database, new RollRepository(), new HouseRulesRepository());
      const caller = { ...scope, chapterId: chapter === null ? null : chapters[chapter]! };
      const mine = people.map((p, i) => ({ p, id: made[i]! })).filter(({ p }) => chapter === null || p.chapter === chapter);
      for (const [rule, holds] of questions()) {
        const columns = await roll.columnsFor(caller, rule);
        const found = evaluate(rule, columns, { today: TODAY })
          .ordinals()
          .map((ordinal) => columns.people.ids[ordinal]);
        expect([rule, found]).toEqual([rule, mine.filter(({ p }) => holds(p)).map(({ id }) => id)]);
      }
    }),
    { numRuns: 25 },
  );
}, 60_000);

test('an answer is exact after every write, also one that commits late', async () => {
  const [first] = await settle([{ chapter: 0, tag: false, list: false, shirt: null, hours: null, renews: null, born: null, gifts: [], email: null }]);
  const roll = new RollService(database, new RollRepository(), new HouseRulesRepository());
  const rule: Rule = { kind: 'tag', tagId: ids.tag, has: true };
  const count = async () => evaluate(rule, await roll.columnsFor(scope, rule), { today: TODAY }).count();
  expect(await count()).toBe(0);
  let letGo = () => undefined as void;
  const held = new Promise<void>((done) => (letGo = done));
  const slow = database.write(scope, async (tx) => {
    await tx.insert('change_log', {});
    await tx.insert('supporter_tag', { supporter_id: first!, tag_id: ids.tag });
    await held;
  });
  await new Promise((done) => setTimeout(done, 100));
  // Another transaction takes a later place in the log and commits first.
  await database.write(scope, async (tx) => void (await tx.insert('list', { name: 'later' })));
  expect(await count()).toBe(0);
  letGo();
  await slow;
  expect(await count()).toBe(1);
});
