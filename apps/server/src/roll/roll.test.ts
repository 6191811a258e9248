import fc from 'fast-check';
import type { Rule } from '@goodword/core/segment';
import { FoldingRepository } from '../permission/ledger/folding.repository';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import type { Database } from '../platform/database';
import type { Bound, Scoped } from '../platform/scoped';
import type { AccessScope } from '../platform/scope';
import { makeTestOrganization, openTestDatabase } from '../platform/test-database';
import { FieldsRepository } from '../supporters/fields.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { SupportersRepository } from '../supporters/supporters.repository';
import { RollEngine, type Roll, type RollAnswers } from './engine';
import { RollThread } from './roll.service';

let database: Database;
let close: () => Promise<void>;
let url: string;
let scope: AccessScope;
let chapters: number[];
let ids: { tag: number; list: number; shirt: number; hours: number; renews: number; born: number };
const TODAY = 20_780;

beforeAll(async () => {
  ({ database, url, close } = await openTestDatabase());
  ({ scope, chapters } = await makeTestOrganization(database));
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
    tx.changed('all', 0, 'everybody');
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
    ] as const)
      await tx.table(table).delete();
    const made: number[] = [];
    for (const [i, p] of people.entries()) {
      const id = await tx.insert('supporter', {
        chapter_id: chapters[p.chapter]!,
        first_name: 'P',
        last_name: String(i).padStart(3, '0'),
      });
      made.push(id);
      const value = (field: number, column: string, kept: Bound) =>
        kept !== null && tx.insert('field_value', { supporter_id: id, field_id: field, [column]: kept });
      if (p.tag) await tx.insert('supporter_tag', { supporter_id: id, tag_id: ids.tag });
      if (p.list) await tx.insert('supporter_list', { supporter_id: id, list_id: ids.list });
      await value(ids.shirt, 'text_value', p.shirt);
      await value(ids.hours, 'number_value', p.hours);
      await value(ids.renews, 'date_value', p.renews);
      await value(ids.born, 'month_day', p.born);
      for (const amount of p.gifts)
        await tx.insert('gift', { supporter_id: id, amount, given_on: TODAY - 3 });
      if (p.email) await agree(tx, id, i, p.email);
    }
    return made;
  });
}

async function agree(
  tx: Parameters<Parameters<Database['write']>[1]>[0],
  id: number,
  i: number,
  state: 'yes' | 'no',
): Promise<void> {
  const contactPointId = await tx.insert('contact_point', {
    kind: 'email',
    normal: `p${i}@example.org`,
    shown: `p${i}@example.org`,
  });
  await tx.insert('supporter_contact', { supporter_id: id, contact_point_id: contactPointId, kind: 'email' });
  await new LedgerRepository(new FoldingRepository()).record(tx, {
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
    [
      { kind: 'field', field: ids.renews, op: 'within-next', value: 30 },
      (p) => p.renews !== null && p.renews >= TODAY && p.renews <= TODAY + 30,
    ],
    [{ kind: 'field', field: ids.born, op: 'in-month', value: 2 }, (p) => p.born === 229],
    [{ kind: 'field', field: 'created', op: 'filled' }, () => true],
    [
      { kind: 'gave', did: true, atLeast: 4000, window: { over: 'last-days', days: 10 } },
      (p) => p.gifts.reduce((a, b) => a + b, 0) >= 4000,
    ],
    [{ kind: 'permission', channel: 'email', scope: 'news', states: ['yes'] }, (p) => p.email === 'yes'],
    [
      { kind: 'permission', channel: 'email', scope: 'news', states: ['no', 'never'] },
      (p) => p.email !== 'yes',
    ],
  ];
}

const READING = { today: TODAY };

/** Everybody whom the roll finds, by id. */
async function found(roll: Roll, caller: AccessScope, rule: Rule): Promise<number[]> {
  return [...(await roll.ask(caller, 'members', { rule, reading: READING }))].sort((a, b) => a - b);
}

test('columns read from the database answer as the people themselves would, in a chapter and in all of them', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(person, { maxLength: 8 }),
      fc.constantFrom(null, 0, 1),
      async (people, chapter) => {
        const made = await settle(people);
        const roll = new RollEngine(database);
        const caller = { ...scope, chapterId: chapter === null ? null : chapters[chapter]! };
        const mine = people
          .map((p, i) => ({ p, id: made[i]! }))
          .filter(({ p }) => chapter === null || p.chapter === chapter);
        for (const [rule, holds] of questions())
          expect([rule, await found(roll, caller, rule)]).toEqual([
            rule,
            mine.filter(({ p }) => holds(p)).map(({ id }) => id),
          ]);
      },
    ),
    { numRuns: 25 },
  );
}, 300_000);

/** One thing that happens to somebody, done as the program does it, with what it says that it changed. */
type Deed = {
  who: number;
  do: 'tag' | 'untag' | 'hours' | 'gift' | 'say-yes' | 'say-no' | 'leave' | 'come' | 'tag-many';
};

const deed: fc.Arbitrary<Deed> = fc.record({
  who: fc.nat(7),
  do: fc.constantFrom('tag', 'untag', 'hours', 'gift', 'say-yes', 'say-no', 'leave', 'come', 'tag-many'),
});

async function happens(
  people: (Person & { id: number; gone: boolean })[],
  { who, do: what }: Deed,
): Promise<void> {
  const p = people[who % people.length];
  const [groups, fields] = [new GroupsRepository(), new FieldsRepository()];
  await database.write(scope, async (tx) => {
    if (what === 'come') {
      const id = await tx.insert('supporter', { chapter_id: chapters[0]!, first_name: 'N', last_name: 'ew' });
      await groups.put(tx, 'tag', id, ids.tag);
      tx.changed('people', 0, [id]);
      people.push({
        id,
        gone: false,
        chapter: 0,
        tag: true,
        list: false,
        shirt: null,
        hours: null,
        renews: null,
        born: null,
        gifts: [],
        email: null,
      });
      return;
    }
    if (!p || p.gone) return tx.unchanged();
    switch (what) {
      case 'tag':
      case 'untag':
        await (what === 'tag'
          ? groups.put(tx, 'tag', p.id, ids.tag)
          : groups.takeOff(tx, 'tag', p.id, ids.tag));
        p.tag = what === 'tag';
        return;
      case 'tag-many':
        await tx.execute(
          `INSERT IGNORE INTO supporter_tag (organization_id, supporter_id, tag_id)
            SELECT :org, id, :tag
            FROM supporter
            WHERE organization_id = :org AND erased_at IS NULL`,
          {
            tag: ids.tag,
          },
        );
        tx.changed('tag', ids.tag, 'everybody');
        for (const one of people) one.tag = true;
        return;
      case 'hours':
        p.hours = (p.hours ?? 0) + 1;
        return fields.set(tx, p.id, ids.hours, { number: p.hours });
      case 'gift':
        p.gifts.push(2000);
        tx.changed('gifts', 0, [p.id]);
        return void (await tx.insert('gift', { supporter_id: p.id, amount: 2000, given_on: TODAY - 2 }));
      case 'say-yes':
      case 'say-no':
        return sayAgain(tx, p, what === 'say-yes' ? 'yes' : 'no');
      case 'leave':
        p.gone = true;
        tx.changed('people', 0, [p.id]);
        return void (await tx.execute(
          'UPDATE supporter SET erased_at = UTC_TIMESTAMP(3) WHERE organization_id = :org AND id = :id',
          { id: p.id },
        ));
    }
  });
}

/** A later word of the person about news; a no is only lifted by their own later yes. */
async function sayAgain(tx: Scoped, p: Person & { id: number }, state: 'yes' | 'no'): Promise<void> {
  const [point] = await tx.sql<{ id: number }>(
    `SELECT contact_point_id AS id
      FROM supporter_contact
      WHERE organization_id = :org AND supporter_id = :id`,
    {
      id: p.id,
    },
  );
  if (!point) return tx.unchanged();
  p.email = state;
  const entry = {
    contactPointId: point.id,
    supporterId: p.id,
    channel: 'email',
    scope: 'news',
    state,
    byPerson: true,
    how: 'form',
  } as const;
  await new LedgerRepository(new FoldingRepository()).record(tx, { ...entry, saidAt: new Date(++clock) });
}
let clock = 1000;

test('whatever happens to people, the very next answer knows it, without reading everything anew', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(person, { minLength: 1, maxLength: 6 }),
      fc.array(deed, { minLength: 1, maxLength: 8 }),
      async (start, deeds) => {
        const made = await settle(start);
        const people = start.map((p, i) => ({ ...p, gifts: [...p.gifts], id: made[i]!, gone: false }));
        const roll = new RollEngine(database);
        for (const [rule] of questions()) await found(roll, scope, rule);
        for (const one of deeds) {
          await happens(people, one);
          for (const [rule, holds] of questions())
            expect([one, rule, await found(roll, scope, rule)]).toEqual([
              one,
              rule,
              people.filter((p) => !p.gone && holds(p)).map(({ id }) => id),
            ]);
        }
      },
    ),
    { numRuns: 20 },
  );
}, 300_000);

const nobody: Person = {
  chapter: 0,
  tag: false,
  list: false,
  shirt: null,
  hours: null,
  renews: null,
  born: null,
  gifts: [],
  email: null,
};
const tagged = (): Rule => ({ kind: 'tag', tagId: ids.tag, has: true });

test('an answer is exact after every write, also one that commits late', async () => {
  const [first] = await settle([nobody]);
  const roll = new RollEngine(database);
  const count = async () =>
    (await roll.ask(scope, 'count', { rule: tagged(), reading: READING, beside: [] })).total;
  expect(await count()).toBe(0);
  let letGo = () => undefined as void;
  const held = new Promise<void>((done) => (letGo = done));
  const slow = database.writeUnlogged(scope, async (tx) => {
    await tx.insertAll('change_log', ['what', 'ref', 'ids'], [['tag', ids.tag, String(first)]]);
    await tx.insert('supporter_tag', { supporter_id: first!, tag_id: ids.tag });
    await held;
  });
  await new Promise((done) => setTimeout(done, 100));
  // Another transaction takes a later place in the log and commits first.
  await database.write(scope, async (tx) => void (await tx.insert('list', { name: 'later' })));
  await database.write(scope, async (tx) => tx.unchanged());
  expect(await count()).toBe(0);
  letGo();
  await slow;
  expect(await count()).toBe(1);
});

test('a transaction that says nothing counts as having changed everything', async () => {
  const [first] = await settle([nobody]);
  const roll = new RollEngine(database);
  expect(await found(roll, scope, tagged())).toEqual([]);
  await database.write(
    scope,
    async (tx) => void (await tx.insert('supporter_tag', { supporter_id: first!, tag_id: ids.tag })),
  );
  expect(await found(roll, scope, tagged())).toEqual([first]);
});

test('people come in pages, in the order of names or of a field, missing values last', async () => {
  const made = await settle([3, null, 1, 2, null].map((hours) => ({ ...nobody, hours })));
  const roll = new RollEngine(database);
  const rule: Rule = { kind: 'all', rules: [] };
  const pages = async (by: string | number, descending: boolean) => {
    const all: number[][] = [];
    for (let after: number | null = null; ;) {
      const { ids: some, total }: RollAnswers['page'] = await roll.ask(scope, 'page', {
        rule,
        reading: READING,
        by,
        descending,
        after,
        limit: 2,
      });
      expect(total).toBe(5);
      all.push(some.map((id) => made.indexOf(id)));
      if (some.length < 2) return all;
      after = some.at(-1)!;
    }
  };
  expect(await pages('name', false)).toEqual([[0, 1], [2, 3], [4]]);
  expect(await pages('name', true)).toEqual([[4, 3], [2, 1], [0]]);
  expect(await pages(ids.hours, false)).toEqual([[2, 3], [0, 1], [4]]);
  expect(await pages(ids.hours, true)).toEqual([[0, 3], [2, 1], [4]]);
});

test('names are found by their parts in any order, without accents', async () => {
  const made = await settle([nobody, nobody, nobody]);
  const rename = (i: number, first: string, last: string) =>
    database.write(scope, async (tx) => {
      tx.changed('own', 0, [made[i]!]);
      await tx.table('supporter').where('id', made[i]!).update({ first_name: first, last_name: last });
    });
  await rename(0, 'Zoé', 'Castellan-Núñez');
  await rename(1, 'Nunzia', 'Berg');
  await rename(2, 'Ann', 'Castle');
  const roll = new RollEngine(database);
  const find = async (...words: string[]) =>
    (await roll.ask(scope, 'find', { words, limit: 5 })).map((id) => made.indexOf(id));
  expect(await find('nun')).toEqual([1, 0]);
  expect(await find('cast')).toEqual([0, 2]);
  expect(await find('cast', 'zoe')).toEqual([0]);
  expect(await find('stell')).toEqual([]);
});

test('a change of name is told by whoever writes it, also beside another change', async () => {
  const [first] = await settle([nobody]);
  const roll = new RollEngine(database);
  const find = async (word: string) => roll.ask(scope, 'find', { words: [word], limit: 5 });
  expect(await find('mallory')).toEqual([]);
  await database.write(scope, async (tx) => {
    await new SupportersRepository().rename(tx, first!, 'Mallory', 'Moss');
    tx.changed('reach', 0, [first!]);
  });
  expect(await find('mallory')).toEqual([first]);
});

test('under a small budget columns are dropped and read again, and answers stay the same', async () => {
  const made = await settle([{ ...nobody, tag: true, hours: 4 }, nobody]);
  const roll = new RollEngine(database, 0.01);
  for (let round = 0; round < 2; round++) {
    expect(await found(roll, scope, tagged())).toEqual([made[0]]);
    expect(await found(roll, scope, { kind: 'field', field: ids.hours, op: 'at-least', value: 3 })).toEqual([
      made[0],
    ]);
  }
});

test('the thread answers as the engine does, tells its faults, and begins again after its end', async () => {
  const made = await settle([{ ...nobody, tag: true }, nobody]);
  const thread = new RollThread({ databaseUrl: url, megabytes: 64 });
  const question = {
    rule: tagged(),
    reading: READING,
    beside: [{ kind: 'none' as const, rules: [tagged()] }],
  };
  expect(await thread.ask(scope, 'count', question)).toEqual(
    await new RollEngine(database).ask(scope, 'count', question),
  );
  expect([...(await thread.ask(scope, 'members', { rule: tagged(), reading: READING }))]).toEqual([made[0]]);
  const inside: Rule = { kind: 'segment', segmentId: 1, in: true };
  await expect(thread.ask(scope, 'members', { rule: inside, reading: READING })).rejects.toThrow('expanded');
  await thread.close();
  expect([...(await thread.ask(scope, 'members', { rule: tagged(), reading: READING }))]).toEqual([made[0]]);
  await thread.close();
});
