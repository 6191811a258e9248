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
import type { Running } from '@goodword/server/platform/jobs';
import type { Scope } from '@goodword/server/platform/scope';

export interface House {
  context: INestApplicationContext;
  database: Database;
  config: Config;
  scope: Scope;
  chapterId: number;
  dkimKey: string;
}

/** The server's services over a new database, without HTTP: what is measured is the work, not the request. */
export async function openHouse(server: string, name: string, smtpUrl: string): Promise<House> {
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
    SECRET: 'ab'.repeat(32),
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
  const [chapterId] = (await knex('chapter').insert({ organization_id: organizationId, name: 'East Landing' })) as [number];
  return { context, database, config, chapterId, dkimKey, scope: { organizationId, chapterId, actorId: null, role: 'owner' } };
}

/** A job as the runner would give it, that nobody stops. */
export function jobOf(scope: Scope, refId: number): Running {
  return { scope, refId, stopped: async () => false };
}

export async function seconds(work: () => Promise<unknown>): Promise<number> {
  const began = process.hrtime.bigint();
  await work();
  return Number(process.hrtime.bigint() - began) / 1e9;
}
