import { createWriteStream, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { EMPTY_PLAN, looseEmail, type IntakePlan } from '@goodword/core/intake';
import type { MatchClue } from '@goodword/server/intake/doubles/earlier-rows';
import { BatchViewsService } from '@goodword/server/intake/batch-views.service';
import { IntakeService } from '@goodword/server/intake/intake.service';
import { blockKeys } from '@goodword/server/intake/checking/stager';
import { StagingRepository } from '@goodword/server/intake/checking/staging.repository';
import { batchJobs, jobOf, openBenchHouse, seconds, type BenchHouse } from './house';
import { fictionNumbers } from './numbers';

const PLAN: IntakePlan = {
  ...EMPTY_PLAN,
  columns: [{ to: 'email' }, { to: 'firstName' }, { to: 'lastName' }, { to: 'mobile' }, { to: 'postcode' }],
  permission: { email: { said: 'nothing' }, text: { said: 'nothing' } },
};

async function write(rows: number, row: (i: number) => string): Promise<string> {
  const path = join(mkdtempSync(join(tmpdir(), 'gw-bench-')), 'people.csv');
  const out = createWriteStream(path);
  out.write('Email,First name,Last name,Mobile,Postcode\n');
  for (let i = 0; i < rows; i++)
    if (!out.write(`${row(i)}\n`)) await new Promise<void>((done) => out.once('drain', () => done()));
  await new Promise<void>((done) => out.end(() => done()));
  return path;
}

/** The first three letters of the last name of person `n`, spread as the names of a country are. */
const start = (n: number) =>
  [n % 23, Math.floor(n / 23) % 19, Math.floor(n / 437) % 17]
    .map((letter) => String.fromCharCode(97 + letter))
    .join('');

/**
 * Half of them have a number, which seven or eight share however many there are: a larger file is not a
 * denser one.
 */
const SHARE = 15;
const numbers = fictionNumbers();

const person = (i: number) =>
  `person.${i}@example.org,${start(Math.floor(i / 7))}ie${i},${start(i)}son,${i % 2 ? '' : numbers[Math.floor(i / SHARE)]!},${10_000 + (i % 5000)}`;

/**
 * Takes a file through reading, checking and bringing in; and taken back out; the time of each and the most
 * memory that was seen.
 */
export async function benchRows(
  server: string,
  rows: number,
): Promise<{ read: number; check: number; bring: number; out: number; megabytes: number }> {
  const house = await openBenchHouse(server, `bench_rows_${rows}`, 'smtp://127.0.0.1:9');
  const path = await write(rows, person);
  let most = 0;
  const watch = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 50);
  const before = process.memoryUsage().rss;
  const { id } = await house.context
    .get(IntakeService)
    .take(house.scope, { name: 'bench', fileName: 'bench.csv', path, what: 'people' });
  const jobs = batchJobs(house);
  const read = await seconds(() => jobs.read(jobOf(house.scope, id)));
  await house.context.get(IntakeService).plan(house.scope, id, PLAN);
  const check = await seconds(() => jobs.check(jobOf(house.scope, id)));
  await house.context.get(IntakeService).bringIn(house.scope, id);
  const bring = await seconds(() => jobs.bringIn(jobOf(house.scope, id)));
  clearInterval(watch);
  const batch = await house.context.get(BatchViewsService).show(house.scope, id);
  if (batch.state !== 'done')
    throw new Error(`expected a batch that is done, got ${batch.state}: ${batch.problem}`);
  await house.context.get(IntakeService).takeOut(house.scope, id);
  const out = await seconds(() => jobs.takeOut(jobOf(house.scope, id)));
  const gone = await house.context.get(BatchViewsService).show(house.scope, id);
  if (gone.state !== 'taken-out')
    throw new Error(`expected a batch that is taken out, got ${gone.state}: ${gone.problem}`);
  await house.context.close();
  return { read, check, bring, out, megabytes: Math.max(most, before) / 1024 / 1024 };
}

/** Brings so many rows in, and returns the batch. */
export async function broughtIn(house: BenchHouse, rows: number): Promise<number> {
  const [service, jobs] = [house.context.get(IntakeService), batchJobs(house)];
  const path = await write(rows, person);
  const { id } = await service.take(house.scope, {
    name: 'bench',
    fileName: 'bench.csv',
    path,
    what: 'people',
  });
  await jobs.read(jobOf(house.scope, id));
  await service.plan(house.scope, id, PLAN);
  await jobs.check(jobOf(house.scope, id));
  await service.bringIn(house.scope, id);
  await jobs.bringIn(jobOf(house.scope, id));
  // Their jobs are done by hand: a worker would do them once more.
  await house.database.unscoped()('job').update({ state: 'done' });
  return id;
}

const HERE = 1_000_000;
const ROWS = 50_000;
const SLICE = 2000;

/**
 * A million people, written by the database itself: each with an email, half with a number, all with a
 * postcode.
 */
async function fillMillion(house: BenchHouse): Promise<void> {
  await house.database.write(house.scope, async (tx) => {
    const of = { chapter_: house.chapterId };
    await tx.execute(
      `INSERT INTO supporter (organization_id, chapter_id, first_name, last_name, postcode)
        SELECT :org, :chapter_, CONCAT('Person', seq),
          CONCAT(CHAR(97 + seq % 23), CHAR(97 + (seq DIV 23) % 19), CHAR(97 + (seq DIV 437) % 17), 'son'),
          10000 + seq % 5000
        FROM seq_1_to_${HERE}`,
      of,
    );
    await tx.execute(
      `INSERT INTO contact_point (organization_id, kind, normal, shown)
        SELECT :org, 'email', CONCAT('person.', id, '@example.org'), CONCAT('person.', id, '@example.org')
        FROM supporter
        WHERE organization_id = :org`,
    );
    await tx.execute(
      `INSERT INTO supporter_contact (organization_id, supporter_id, contact_point_id, kind)
        SELECT :org, SUBSTRING(normal, 8, LOCATE('@', normal) - 8), id, kind
        FROM contact_point
        WHERE organization_id = :org`,
    );
    await tx.knex.raw('ANALYZE TABLE supporter, contact_point, supporter_contact');
  });
}

interface Row {
  email: string;
  firstName: string;
  lastName: string;
  postcode: string;
}

/** Rows of which a third are here, a third are here under a misspelt name, and a third are new. */
function someRows(): Row[] {
  return Array.from({ length: ROWS }, (_none, i) => {
    const who = i * 19 + 1;
    const [known, misspelt] = [i % 3 < 2, i % 3 === 1];
    return {
      email: known ? `person.${who}@example.org` : `new.${i}@example.org`,
      firstName: misspelt ? `Perso${who}` : known ? `Person${who}` : `Newcomer${i}`,
      lastName: `${start(who)}son`,
      postcode: `${10_000 + (who % 5000)}`,
    };
  });
}

const nameKey = ({ firstName, lastName, postcode }: Pick<Row, 'firstName' | 'lastName' | 'postcode'>) =>
  `${lastName}|${firstName}|${postcode}`;
const loosely = (row: Row): MatchClue[] => [
  { by: 'email', key: row.email },
  { by: 'looseEmail', key: looseEmail(row.email) },
  ...blockKeys(row.postcode, row).map((key): MatchClue => ({ by: 'nearby', key })),
];

/**
 * Candidates of these rows, likely doubles included, beside the exact joins of what they hold: by email, and
 * by name and postcode.
 */
export async function benchMatching(
  server: string,
): Promise<{ all: number; byEmail: number; byName: number; found: number }> {
  const house = await openBenchHouse(server, 'bench_matching', 'smtp://127.0.0.1:9');
  await fillMillion(house);
  const staging = house.context.get(StagingRepository);
  const db = house.database.read(house.scope);
  const rows = someRows();
  const inSlices = async (each: (slice: Row[]) => Promise<number>) => {
    let n = 0;
    for (let at = 0; at < rows.length; at += SLICE) n += await each(rows.slice(at, at + SLICE));
    return n;
  };
  let found = 0;
  const look = async () => {
    found = await inSlices(async (slice) => {
      const candidates = await staging.candidates(db, house.chapterId, slice.flatMap(loosely));
      return [...candidates.values()].reduce((n, some) => n + some.length, 0);
    });
  };
  const of = 's.organization_id = :org AND s.chapter_id = :chapterId AND s.erased_at IS NULL';
  const emails = () =>
    inSlices(async (slice) => {
      const rows = await db.sql(
        `SELECT cp.normal, s.id, s.first_name, s.last_name
          FROM contact_point cp
          JOIN supporter_contact sc ON sc.contact_point_id = cp.id
          JOIN supporter s ON s.id = sc.supporter_id AND ${of}
          WHERE cp.organization_id = :org AND cp.kind = 'email' AND cp.normal IN (:keys)`,
        { keys: slice.map(({ email }) => email), chapterId: house.chapterId },
      );
      return rows.length;
    });
  // By the block of postcode and name, and then the names: faster than any join by name that was tried.
  const names = () =>
    inSlices(async (slice) => {
      const wanted = new Set(slice.map(nameKey));
      const rows = await db.sql<{ first_name: string; last_name: string; postcode: string }>(
        `SELECT s.id, s.first_name, s.last_name, s.postcode
          FROM supporter s
          WHERE ${of} AND s.block IN (:keys)`,
        { keys: slice.map((row) => blockKeys(row.postcode, row)[0]!), chapterId: house.chapterId },
      );
      return rows.filter((row) =>
        wanted.has(nameKey({ firstName: row.first_name, lastName: row.last_name, postcode: row.postcode })),
      ).length;
    });
  await emails();
  const byEmail = await seconds(emails);
  const there = await names();
  if (there < ROWS / 3)
    throw new Error(`expected the names of at least ${Math.floor(ROWS / 3)} rows, got ${there}`);
  const byName = await seconds(names);
  await look();
  const all = await seconds(look);
  await house.context.close();
  return { all, byEmail, byName, found };
}
