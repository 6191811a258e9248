import { createHash } from 'node:crypto';
import 'reflect-metadata';
import { generateKeyPairSync } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NestFactory } from '@nestjs/core';
import type { INestApplicationContext } from '@nestjs/common';
import { AppModule } from '@goodword/server/app.module';
import { readConfig, type Config } from '@goodword/server/platform/config';
import { Database } from '@goodword/server/platform/database';
import { migrate } from '@goodword/server/platform/migrate';
import { BringInJob } from '@goodword/server/intake/bringing-in/bring-in.job';
import { CheckBatchJob } from '@goodword/server/intake/checking/check-batch.job';
import { ReadBatchJob } from '@goodword/server/intake/reading/read-batch.job';
import { TakeOutJob } from '@goodword/server/intake/taking-out/take-out.job';
import type { Running } from '@goodword/server/platform/jobs';
import type { AccessScope } from '@goodword/server/platform/scope';

export interface BenchHouse {
  context: INestApplicationContext;
  database: Database;
  config: Config;
  scope: AccessScope;
  chapterId: number;
  dkimKey: string;
}

/** The server's services over a new database, without HTTP: what is measured is the work, not the request. */
export async function openBenchHouse(server: string, name: string, smtpUrl: string): Promise<BenchHouse> {
  const admin = new Database(`${server}/mysql`, 1);
  await admin.unscoped().raw(`DROP DATABASE IF EXISTS ${name}`);
  await admin.unscoped().raw(`CREATE DATABASE ${name}`);
  await admin.close();
  const folder = mkdtempSync(join(tmpdir(), 'gw-bench-'));
  const dkimKey = generateKeyPairSync('rsa', {
    modulusLength: 2048,
    privateKeyEncoding: { type: 'pkcs8', format: 'pem' },
    publicKeyEncoding: { type: 'spki', format: 'pem' },
  }).privateKey;
  writeFileSync(join(folder, 'dkim.pem'), dkimKey);
  const config = readConfig({
    DATABASE_URL: `${server}/${name}`,
    PUBLIC_URL: 'http://127.0.0.1:4600',
    SECRET: createHash('sha256').update('bench').digest('hex'),
    DATA_DIR: folder,
    SMTP_URL: smtpUrl,
    TEXT_URL: 'http://127.0.0.1:9',
    TEXT_KEY: 'a bench key',
    TEXT_HOOK_SECRET: 'a bench hook secret',
    DKIM_KEY_FILE: join(folder, 'dkim.pem'),
    DKIM_DOMAIN: 'lanternferry.test',
    LOG_LEVEL: 'silent',
  });
  const context = await NestFactory.createApplicationContext(AppModule.with(config), { logger: false });
  const database = context.get(Database);
  await migrate(database.unscoped());
  const knex = database.unscoped();
  const [organizationId] = (await knex('organization').insert({
    name: 'Lantern Ferry Trust',
    country: 'US',
    locale: 'en-US',
    currency: 'USD',
    time_zone: 'America/Los_Angeles',
    postal_address: '14 Slip Lane, Port Alder',
    from_email: 'hello@lanternferry.test',
    list_domain: 'lists.lanternferry.test',
    text_from: '+12065550100',
  })) as [number];
  const [chapterId] = (await knex('chapter').insert({
    organization_id: organizationId,
    name: 'East Landing',
  })) as [number];
  return {
    context,
    database,
    config,
    chapterId,
    dkimKey,
    scope: { organizationId, chapterId, actorId: null, role: 'owner', boundTo: null },
  };
}

/** A job as the runner would give it, that nobody stops. */
export function jobOf(scope: AccessScope, refId: number): Running {
  return { scope, refId, stopped: async () => false, progress: async () => undefined };
}

/** Pages yet to be written and changes yet to be cleared away below which a database is at rest. */
const REST = { Innodb_buffer_pool_pages_dirty: 500, Innodb_history_list_length: 1000 };
const PATIENCE_S = 180;

/**
 * Waits until the database has written down and cleared away what was just filled in: while it does, it takes
 * processor and memory from whatever is measured beside it. Throws where that takes longer than three
 * minutes.
 */
export async function databaseAtRest({ database }: BenchHouse): Promise<void> {
  const knex = database.unscoped();
  const hurry = ['innodb_max_dirty_pages_pct', 'innodb_io_capacity_max', 'innodb_io_capacity'] as const;
  const [[was]] = (await knex.raw(`SELECT ${hurry.map((name) => `@@${name} AS ${name}`).join(', ')}`)) as [
    Record<(typeof hurry)[number], number>[],
  ];
  const set = async (values: Record<string, number>, order: readonly string[]) => {
    for (const name of order) await knex.raw(`SET GLOBAL ${name} = ?`, [values[name]!]);
  };
  await set(
    { innodb_max_dirty_pages_pct: 0, innodb_io_capacity_max: 40_000, innodb_io_capacity: 20_000 },
    hurry,
  );
  for (let waited = 0; ; waited++) {
    const [rows] = (await knex.raw('SHOW GLOBAL STATUS WHERE Variable_name IN (?)', [Object.keys(REST)])) as [
      { Variable_name: string; Value: string }[],
    ];
    const busy = rows.filter(
      ({ Variable_name: name, Value }) => Number(Value) > REST[name as keyof typeof REST],
    );
    if (busy.length === 0) break;
    if (waited === PATIENCE_S)
      throw new Error(`expected the database to come to rest, got ${JSON.stringify(busy)}`);
    await new Promise((done) => setTimeout(done, 1000));
  }
  await set(was!, [...hurry].reverse());
}

export async function seconds(work: () => Promise<unknown>): Promise<number> {
  const began = process.hrtime.bigint();
  await work();
  return Number(process.hrtime.bigint() - began) / 1e9;
}

/** The pieces of work on a batch, done by hand. */
export function batchJobs({ context }: Pick<BenchHouse, 'context'>) {
  const [read, check] = [context.get(ReadBatchJob), context.get(CheckBatchJob)];
  const [bringIn, takeOut] = [context.get(BringInJob), context.get(TakeOutJob)];
  return {
    read: (job: Running) => read.run(job),
    check: (job: Running) => check.run(job),
    bringIn: (job: Running) => bringIn.run(job),
    takeOut: (job: Running) => takeOut.run(job),
  };
}
