import type { Line, Rule } from '@goodword/core/segment';
import { RollEngine } from '@goodword/server/roll/engine';
import { GroupsRepository } from '@goodword/server/supporters/groups.repository';
import { SupportersRepository } from '@goodword/server/supporters/supporters.repository';
import { benchBulk, type BulkFigures } from './bulk';
import { databaseAtRest, openBenchHouse, seconds, type BenchHouse } from './house';

const TODAY = 20_780;
const FIELDS = 20;
const TAGS = 30;

/**
 * People written by the database itself: names, an email that two thirds agreed to, 20 fields of five types
 * with values for a quarter each, three tags, two gifts over four years. Everything is spread by multiplying
 * with primes.
 */
async function fill(house: BenchHouse, people: number): Promise<void> {
  const { chapterId } = house;
  const types = ['date', 'choice', 'number', 'text', 'birthday'];
  const column = ['date_value', 'text_value', 'number_value', 'text_value', 'month_day'];
  const value = [
    `${TODAY - 1000} + (seq * 7919) % 2000`,
    "CONCAT('Choice ', (seq * 31) % 12)",
    '(seq * 104729) % 1000',
    "CONCAT('Word ', (seq * 7907) % 5000)",
    '(1 + (seq * 13) % 12) * 100 + 1 + (seq * 17) % 28',
  ];
  await house.database.write(house.scope, async (tx) => {
    const run = (sql: string) => tx.execute(sql, { people, chapter_: chapterId });
    const all = `FROM seq_1_to_${people}`;
    await run(
      `INSERT INTO supporter (organization_id, id, chapter_id, first_name, last_name)
        SELECT :org, seq, :chapter_, CONCAT('Fay', (seq * 7907) % 3000),
          CONCAT('Lin', (seq * 104729) % 50000) ${all}`,
    );
    await run(
      `INSERT INTO contact_point (organization_id, id, kind, normal, shown)
        SELECT :org, seq, 'email', CONCAT('p', seq, '@example.org'), CONCAT('p', seq, '@example.org') ${all}`,
    );
    await run(
      `INSERT INTO contact_point (organization_id, id, kind, normal, shown)
        SELECT :org, seq + ${people}, 'mobile', CONCAT('+1206', LPAD(seq, 7, '0')),
          CONCAT('+1206', LPAD(seq, 7, '0')) ${all}
        WHERE seq % 2 = 0`,
    );
    await run(
      `INSERT INTO supporter_contact (organization_id, supporter_id, contact_point_id, kind)
        SELECT :org, seq, seq, 'email' ${all}`,
    );
    await run(
      `INSERT INTO supporter_contact (organization_id, supporter_id, contact_point_id, kind, position)
        SELECT :org, seq, seq + ${people}, 'mobile', 1 ${all}
        WHERE seq % 2 = 0`,
    );
    await run(
      `INSERT INTO permission_state (organization_id, contact_point_id, supporter_id, channel, scope, yes_at)
        SELECT :org, seq, seq, 'email', 'appeals', '2026-01-15' ${all}
        WHERE seq % 3 > 0`,
    );
    for (let f = 0; f < FIELDS; f++) {
      await run(
        `INSERT INTO field (organization_id, id, name, type)
          VALUES (:org, ${f + 1}, 'Field ${f + 1}', '${types[f % 5]!}')`,
      );
      await run(
        `INSERT INTO field_value (organization_id, supporter_id, field_id, ${column[f % 5]!})
          SELECT :org, seq, ${f + 1}, ${value[f % 5]!} ${all}
          WHERE (seq + ${f}) % 4 = 0`,
      );
    }
    for (let t = 0; t < TAGS; t++)
      await run(`INSERT INTO tag (organization_id, id, name) VALUES (:org, ${t + 1}, 'Tag ${t + 1}')`);
    for (let n = 0; n < 3; n++)
      await run(
        `INSERT INTO supporter_tag (organization_id, supporter_id, tag_id)
          SELECT :org, seq, 1 + ${n * 10} + (seq * ${[7919, 31, 104729][n]!}) % 10 ${all}`,
      );
    for (let n = 0; n < 2; n++)
      await run(
        `INSERT INTO gift (organization_id, supporter_id, amount, given_on)
          SELECT :org, 1 + (seq * ${[7919, 15485863][n]!}) % :people, 500 + (seq * 37) % 20000,
            ${TODAY} - (seq * 104729) % 1460 ${all}`,
      );
    tx.changed('all', 0, 'everybody');
  });
  const tables =
    'supporter, contact_point, supporter_contact, permission_state, field_value, supporter_tag, gift';
  await house.database.unscoped().raw(`ANALYZE TABLE ${tables}`);
}

const date: Line = { kind: 'field', field: 1, op: 'within-next', value: 300 };
const choice = (n: number): Line => ({ kind: 'field', field: 2, op: 'is-not', value: `Choice ${n}` });
const gaveBefore: Line = { kind: 'gave', did: true, atLeast: 2000, window: { over: 'earlier-years' } };
const notThisYear: Line = { kind: 'gave', did: false, atLeast: 10_000, window: { over: 'this-year' } };
const gaveEver: Line = { kind: 'gave', did: true, atLeast: 3000, window: { over: 'ever' } };
const agreed: Line = { kind: 'permission', channel: 'email', scope: 'appeals', states: ['yes'] };
const tag = (tagId: number): Line => ({ kind: 'tag', tagId, has: true });

const ONE: Rule = { kind: 'all', rules: [date] };
const FOUR: Rule = { kind: 'all', rules: [date, choice(3), gaveBefore, { kind: 'none', rules: [tag(1)] }] };
const eight = (n: number): Rule => ({
  kind: 'all',
  rules: [
    date,
    choice(n),
    gaveBefore,
    notThisYear,
    gaveEver,
    agreed,
    { kind: 'any', rules: [tag(2), { kind: 'none', rules: [tag(11)] }] },
  ],
});

/**
 * The best that was found by hand for the count alone: semi-joins from the most selective side, sums made
 * once.
 */
const SQL = {
  four: `SELECT COUNT(*) AS n
    FROM field_value d
    JOIN supporter s ON s.id = d.supporter_id AND s.erased_at IS NULL
    JOIN (SELECT supporter_id FROM gift WHERE organization_id = :org AND given_on < 20454
    GROUP BY supporter_id HAVING SUM(amount) >= 2000) g ON g.supporter_id = s.id
    WHERE d.organization_id = :org AND d.field_id = 1 AND d.date_value BETWEEN ${TODAY} AND ${TODAY + 300}
      AND NOT EXISTS (SELECT 1 FROM field_value c
      WHERE c.supporter_id = s.id AND c.field_id = 2 AND c.text_value = 'Choice 3')
      AND NOT EXISTS (SELECT 1 FROM supporter_tag t WHERE t.supporter_id = s.id AND t.tag_id = 1)`,
  eight: `SELECT COUNT(*) AS n
    FROM field_value d
    JOIN supporter s ON s.id = d.supporter_id AND s.erased_at IS NULL
    JOIN (SELECT supporter_id FROM gift WHERE organization_id = :org GROUP BY supporter_id
    HAVING SUM(IF(given_on < 20454, amount, 0)) >= 2000
      AND SUM(IF(given_on >= 20454, amount, 0)) < 10000 AND SUM(amount) >= 3000) g ON g.supporter_id = s.id
    WHERE d.organization_id = :org AND d.field_id = 1 AND d.date_value BETWEEN ${TODAY} AND ${TODAY + 300}
      AND NOT EXISTS (SELECT 1 FROM field_value c
      WHERE c.supporter_id = s.id AND c.field_id = 2 AND c.text_value = 'Choice 3')
      AND EXISTS (SELECT 1 FROM supporter_contact sc
      JOIN permission_state ps ON ps.organization_id = :org AND ps.contact_point_id = sc.contact_point_id
      AND ps.supporter_id = s.id
        AND ps.channel = 'email' AND ps.scope IN ('appeals', 'marketing', 'all') AND ps.yes_at IS NOT NULL
        WHERE sc.supporter_id = s.id)
      AND (EXISTS (SELECT 1 FROM supporter_tag t WHERE t.supporter_id = s.id AND t.tag_id = 2)
      OR NOT EXISTS (SELECT 1 FROM supporter_tag t WHERE t.supporter_id = s.id AND t.tag_id = 11))`,
};

export interface RollFigures {
  people: number;
  cold: number;
  /**
   * Milliseconds of counting with narrowing: one, four and eight lines with only columns there, and eight
   * after a change of one.
   */
  one: number;
  four: number;
  eight: number;
  changed: number;
  /** Seconds of the best SQL for the count alone. */
  sqlFour: number;
  sqlEight: number;
  afterWrite: number;
  makeOrder: number;
  /** Milliseconds until the first page after one person's name changed. */
  mendOrder: number;
  /** Tagging 100,000 of them as an act on a group; with a million people alone. */
  bulk: BulkFigures | null;
  page: number;
  find: number;
  megabytes: number;
  settings: string;
}

const ms = async (work: () => Promise<unknown>) => (await seconds(work)) * 1000;
const median = (some: number[]) => [...some].sort((a, b) => a - b)[Math.floor(some.length / 2)]!;

async function several(times: number, work: (i: number) => Promise<unknown>): Promise<number> {
  const took: number[] = [];
  for (let i = 0; i < times; i++) took.push(await ms(() => work(i)));
  return median(took);
}

/** Segments over so many people, columns and all, beside the best SQL for the same counts. */
export async function benchRoll(server: string, people: number): Promise<RollFigures> {
  const house = await openBenchHouse(server, `bench_roll_${people}`, 'smtp://127.0.0.1:9');
  await fill(house, people);
  await databaseAtRest(house);
  const { database, scope } = house;
  const everybody = { ...scope, chapterId: null };
  const db = database.read(everybody);
  const engine = new RollEngine(database, 700);
  // Another day is another question for every line: nothing but the columns can be used again.
  let day = TODAY;
  const count = (rule: Rule, today = day) =>
    engine.ask(everybody, 'count', { rule, reading: { today }, beside: [] });
  const sql = (text: string) => db.sql<{ n: number }>(text);
  for (const text of Object.values(SQL)) await sql(text);
  const sqlFour = (await several(3, () => sql(SQL.four))) / 1000;
  const sqlEight = (await several(3, () => sql(SQL.eight))) / 1000;
  const cold = await seconds(() => count(eight(3)));
  const agree: [Rule, string][] = [
    [FOUR, SQL.four],
    [eight(3), SQL.eight],
  ];
  for (const [rule, text] of agree) {
    const [ours, theirs] = [(await count(rule)).total, (await sql(text))[0]!.n];
    if (ours !== theirs)
      throw new Error(`expected SQL and the roll to count the same, got ${theirs} and ${ours}`);
  }
  const one = await several(9, () => count(ONE, ++day));
  const four = await several(9, () => count(FOUR, ++day));
  const eightLines = await several(9, () => count(eight(3), ++day));
  await count(eight(0), TODAY);
  const changed = await several(9, (i) => count(eight(1 + i), TODAY));
  const before = (await count(tag(5), TODAY)).total;
  await new GroupsRepository().find(db, 'tag', 5);
  const [outside] = await db.sql<{ id: number }>(
    `SELECT id
      FROM supporter s
      WHERE organization_id = :org
        AND NOT EXISTS (SELECT 1 FROM supporter_tag t WHERE t.supporter_id = s.id AND t.tag_id = 5)
      LIMIT 1`,
  );
  await database.write(scope, (tx) => new GroupsRepository().put(tx, 'tag', outside!.id, 5));
  let after = 0;
  const afterWrite = await ms(async () => (after = (await count(tag(5), TODAY)).total));
  if (after !== before + 1) throw new Error(`expected ${before + 1} people after the write, got ${after}`);
  const page = (by: string | number, from: number | null) =>
    engine.ask(everybody, 'page', {
      rule: ONE,
      reading: { today: TODAY },
      by,
      descending: false,
      after: from,
      limit: 50,
    });
  const makeOrder = await ms(() => page('name', null));
  let at: number | null = null;
  const nextPage = await several(9, async () => {
    at = (await page('name', at)).ids.at(-1) ?? null;
  });
  const supporters = new SupportersRepository();
  const mendOrder = await several(5, async (i) => {
    await database.write(scope, (tx) => supporters.rename(tx, 1000 + i, `Fay${i}`, 'Aalto'));
    await page('name', null);
  });
  for (let f = 1; f <= FIELDS; f++) await page(f, null);
  for (let t = 1; t <= TAGS; t++) await count(tag(t));
  const find = await several(9, (i) =>
    engine.ask(everybody, 'find', { words: [`lin${400 + i}`, 'fay1'], limit: 8 }),
  );
  const megabytes = process.memoryUsage().rss / 1024 / 1024;
  const [settings] = await db.sql<Record<string, string>>(
    `SELECT @@innodb_buffer_pool_size DIV 1048576 AS pool, @@optimizer_switch AS optimizer,
        @@join_cache_level AS cache, @@version AS version
      FROM organization
      WHERE id = :org`,
  );
  // After this the tags are other ones, so it comes last.
  const bulk = people >= 1_000_000 ? await benchBulk(house, 100_000) : null;
  await house.context.close();
  return {
    people,
    bulk,
    mendOrder,
    cold,
    one,
    four,
    eight: eightLines,
    changed,
    sqlFour,
    sqlEight,
    afterWrite,
    makeOrder,
    page: nextPage,
    find,
    megabytes,
    settings: `MariaDB ${settings!.version}, buffer pool ${settings!.pool} MB, join_cache_level ${settings!.cache}`,
  };
}
