import { createWriteStream } from 'node:fs';
import { mkdtempSync, createReadStream, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection, type Connection } from 'mysql2/promise';
import { EMPTY_PLAN, type IntakePlan } from '@goodword/core/intake';
import { BatchViewsService } from '@goodword/server/intake/batch-views.service';
import { IntakeService } from '@goodword/server/intake/intake.service';
import { batchJobs, jobOf, openBenchHouse, seconds, type BenchHouse } from './house';
import { fictionNumbers } from './numbers';

const ROWS = 50_000;

const PLAN: IntakePlan = {
  columns: [{ to: 'email' }, { to: 'firstName' }, { to: 'lastName' }, { to: 'mobile' }],
  permission: {
    email: {
      said: 'yes',
      from: 'everyone',
      scopes: ['appeals'],
      how: 'paper',
      on: '2026-01-15',
      words: 'Please write to me about the ferry.',
      voucher: 'Idris Vale',
    },
    text: { said: 'nothing' },
  },
  ...EMPTY_PLAN,
};

/** The file: everybody is somebody new, half of them have a mobile too. */
function csv(): string {
  const numbers = fictionNumbers();
  if (numbers.length < ROWS / 2)
    throw new Error(`expected at least ${ROWS / 2} numbers, got ${numbers.length}`);
  const rows = Array.from({ length: ROWS }, (_v, i) => {
    const mobile = i % 2 === 0 ? numbers[i / 2]! : '';
    return `person.${i}@example.org,Person${i},Lin${i % 977},${mobile}`;
  });
  return ['Email,First name,Last name,Mobile', ...rows].join('\n');
}

/** Seconds of each part of the way. */
interface Parts {
  read: number;
  check: number;
  bring: number;
}

async function bringIn(house: BenchHouse, file: string): Promise<Parts> {
  const intake = house.context.get(IntakeService);
  const jobs = batchJobs(house);
  const { id } = await intake.take(house.scope, {
    name: 'bench',
    fileName: 'bench.csv',
    path: file,
    what: 'people',
  });
  const read = await seconds(() => jobs.read(jobOf(house.scope, id)));
  await intake.plan(house.scope, id, PLAN);
  const check = await seconds(() => jobs.check(jobOf(house.scope, id)));
  await intake.bringIn(house.scope, id);
  const bring = await seconds(() => jobs.bringIn(jobOf(house.scope, id)));
  const batch = await house.context.get(BatchViewsService).show(house.scope, id);
  if (batch.state !== 'done')
    throw new Error(`expected a batch that is done, got ${batch.state}: ${batch.problem}`);
  return { read, check, bring };
}

const TABLES = ['supporter', 'contact_point', 'supporter_contact', 'permission_entry', 'permission_state'];

/** The database makes these itself. */
const GENERATED = new Set(['block', 'loose', 'tail']);

/** Writes what the intake made into files, so that the yardstick loads exactly the same rows. */
async function dump(
  connection: Connection,
  folder: string,
): Promise<Map<string, { path: string; columns: string[] }>> {
  const files = new Map<string, { path: string; columns: string[] }>();
  for (const table of TABLES) {
    const [rows] = (await connection.query(`SELECT * FROM ${table}`)) as unknown as [
      Record<string, unknown>[],
    ];
    const columns = Object.keys(rows[0]!).filter((column) => !GENERATED.has(column));
    const path = join(folder, `${table}.tsv`);
    const out = createWriteStream(path);
    for (const row of rows) out.write(`${columns.map((column) => cell(row[column])).join('\t')}\n`);
    await new Promise<void>((done) => out.end(() => done()));
    files.set(table, { path, columns });
  }
  return files;
}

function cell(value: unknown): string {
  if (value === null) return '\\N';
  if (value instanceof Date) return value.toISOString().slice(0, 23).replace('T', ' ');
  return String(value).replace(/[\t\n\\]/g, ' ');
}

async function load(
  connection: Connection,
  files: Map<string, { path: string; columns: string[] }>,
): Promise<void> {
  for (const [table, { path, columns }] of files) {
    await connection.query({
      sql: `LOAD DATA LOCAL INFILE 'x' INTO TABLE ${table} CHARACTER SET utf8mb4 (${columns.map((column) => `\`${column}\``).join(',')})`,
      infileStreamFactory: () => createReadStream(path),
    });
  }
}

/** 50,000 rows of CSV end to end, beside bare LOAD DATA of the rows that came of them. */
export async function benchIntake(
  server: string,
): Promise<{ ours: number; yardstick: number; parts: Parts }> {
  const folder = mkdtempSync(join(tmpdir(), 'gw-bench-'));
  const file = join(folder, 'people.csv');
  writeFileSync(file, csv());
  const first = await openBenchHouse(server, 'bench_intake', 'smtp://127.0.0.1:9');
  let parts: Parts | null = null;
  const ours = await seconds(async () => (parts = await bringIn(first, file)));
  const connection = await createConnection({
    uri: `${server}/bench_intake`,
    timezone: 'Z',
    flags: ['+LOCAL_FILES'],
  });
  const files = await dump(connection, mkdtempSync(join(tmpdir(), 'gw-load-')));
  await connection.end();
  await first.context.close();
  const second = await openBenchHouse(server, 'bench_load', 'smtp://127.0.0.1:9');
  const bare = await createConnection({
    uri: `${server}/bench_load`,
    timezone: 'Z',
    flags: ['+LOCAL_FILES'],
  });
  const yardstick = await seconds(() => load(bare, files));
  await bare.end();
  await second.context.close();
  return { ours, yardstick, parts: parts! };
}
