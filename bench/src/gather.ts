import { createWriteStream, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { EMPTY_PLAN, type IntakePlan } from '@goodword/core/intake';
import { IntakeJobs } from '@goodword/server/intake/intake.jobs';
import { IntakeService } from '@goodword/server/intake/intake.service';
import { StagingRepository } from '@goodword/server/intake/staging.repository';
import { jobOf, openHouse, seconds, type House } from './house';

const PLAN: IntakePlan = {
  ...EMPTY_PLAN,
  columns: [{ to: 'email' }, { to: 'firstName' }, { to: 'lastName' }, { to: 'mobile' }, { to: 'postcode' }],
  permission: { email: { said: 'nothing' }, text: { said: 'nothing' } },
};

async function write(rows: number, row: (i: number) => string): Promise<string> {
  const path = join(mkdtempSync(join(tmpdir(), 'gw-bench-')), 'people.csv');
  const out = createWriteStream(path);
  out.write('Email,First name,Last name,Mobile,Postcode\n');
  for (let i = 0; i < rows; i++) if (!out.write(`${row(i)}\n`)) await new Promise<void>((done) => out.once('drain', () => done()));
  await new Promise<void>((done) => out.end(() => done()));
  return path;
}

/** The first three letters of the last name of person `n`, spread as the names of a country are. */
const start = (n: number) => [n % 23, Math.floor(n / 23) % 19, Math.floor(n / 437) % 17].map((letter) => String.fromCharCode(97 + letter)).join('');

const person = (i: number) =>
  `person.${i}@example.org,${start(Math.floor(i / 7))}ie${i},${start(i)}son,${i % 2 ? '' : `${201 + (Math.floor(i / 200) % 99)} 555 01${String(i % 100).padStart(2, '0')}`},${10_000 + (i % 5000)}`;

/** Takes a file through reading, checking and bringing in; the time of each and the most memory that was seen. */
export async function benchRows(server: string, rows: number): Promise<{ read: number; check: number; bring: number; megabytes: number }> {
  const house = await openHouse(server, `bench_rows_${rows}`, 'smtp://127.0.0.1:9');
  const path = await write(rows, person);
  let most = 0;
  const watch = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 50);
  const before = process.memoryUsage().rss;
  const { id } = await house.context.get(IntakeService).take(house.scope, { name: 'bench', fileName: 'bench.csv', path, what: 'people' });
  const jobs = house.context.get(IntakeJobs);
  const read = await seconds(() => jobs.read(jobOf(house.scope, id)));
  await house.context.get(IntakeService).plan(house.scope, id, PLAN);
  const check = await seconds(() => jobs.check(jobOf(house.scope, id)));
  await house.context.get(IntakeService).bringIn(house.scope, id);
  const bring = await seconds(() => jobs.bringIn(jobOf(house.scope, id)));
  clearInterval(watch);
  const batch = await house.context.get(IntakeService).show(house.scope, id);
  if (batch.state !== 'done') throw new Error(`expected a batch that is done, got ${batch.state}: ${batch.problem}`);
  await house.context.close();
  return { read, check, bring, megabytes: Math.max(most, before) / 1024 / 1024 };
}

const HERE = 1_000_000;
const ROWS = 50_000;
const SLICE = 2000;

/** A million people, written by the database itself: each with an email, half with a number, all with a postcode. */
async function fillMillion(house: House): Promise<void> {
  await house.database.write(house.scope, async (tx) => {
    const of = { chapter_: house.chapterId };
    await tx.execute(
      `INSERT INTO supporter (organization_id, chapter_id, first_name, last_name, postcode) SELECT :org, :chapter_, CONCAT('Person', seq), CONCAT(CHAR(97 + seq % 23), CHAR(97 + (seq DIV 23) % 19), CHAR(97 + (seq DIV 437) % 17), 'son'), 10000 + seq % 5000 FROM seq_1_to_${HERE}`,
      of,
    );
    await tx.execute(
      "INSERT INTO contact_point (organization_id, kind, normal, shown) SELECT :org, 'email', CONCAT('person.', id, '@example.org'), CONCAT('person.', id, '@example.org') FROM supporter WHERE organization_id = :org",
    );
    await tx.execute(
      "INSERT INTO supporter_contact (organization_id, supporter_id, contact_point_id) SELECT :org, SUBSTRING(normal, 8, LOCATE('@', normal) - 8), id FROM contact_point WHERE organization_id = :org",
    );
    await tx.knex.raw('ANALYZE TABLE supporter, contact_point, supporter_contact');
  });
}

/** Rows of which a third are here, a third are here under a misspelt name, and a third are new. */
export async function benchMatching(server: string): Promise<{ all: number; exact: number; found: number }> {
  const house = await openHouse(server, 'bench_matching', 'smtp://127.0.0.1:9');
  await fillMillion(house);
  const staging = house.context.get(StagingRepository);
  const db = house.database.read(house.scope);
  const rows = Array.from({ length: ROWS }, (_none, i) => {
    const who = i * 19 + 1;
    return {
      email: i % 3 === 2 ? `new.${i}@example.org` : `person.${who}@example.org`,
      block: [`${10_000 + (who % 5000)}|${start(who)}`, `${10_000 + (who % 5000)}|per`],
    };
  });
  let found = 0;
  const look = (fuzzy: boolean) => async () => {
    found = 0;
    for (let at = 0; at < rows.length; at += SLICE) {
      const clues = rows
        .slice(at, at + SLICE)
        .flatMap(({ email, block }) => [
          { by: 'email' as const, key: email },
          ...(fuzzy
            ? [
                { by: 'looseEmail' as const, key: email.replace('person.', 'person').replace('new.', 'new') },
                ...block.map((key) => ({ by: 'nearby' as const, key })),
              ]
            : []),
        ]);
      for (const some of (await staging.candidates(db, house.chapterId, clues)).values()) found += some.length;
    }
  };
  const plain = async () => {
    for (let at = 0; at < rows.length; at += SLICE) {
      await db.sql(
        `SELECT cp.normal, s.id, s.first_name, s.last_name FROM contact_point cp JOIN supporter_contact sc ON sc.contact_point_id = cp.id JOIN supporter s ON s.id = sc.supporter_id
          WHERE cp.organization_id = :org AND cp.kind = 'email' AND cp.normal IN (:keys)`,
        { keys: rows.slice(at, at + SLICE).map(({ email }) => email) },
      );
    }
  };
  await plain();
  const exact = await seconds(plain);
  await look(true)();
  const all = await seconds(look(true));
  await house.context.close();
  return { all, exact, found };
}
