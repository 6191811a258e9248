import type { Server } from 'node:http';
import { dayInZone, isoDay } from '@goodword/core/common';
import { startingRules, type HouseRules, type PlaceRules } from '@goodword/core/permission';
import 'reflect-metadata';
import { createHash, createHmac, generateKeyPairSync } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { INestApplication } from '@nestjs/common';
import { createApp } from '../create-app';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { createWorker, type Worker } from '../create-worker';
import { readConfig, type Config } from '../platform/config';
import type { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { makeTestOrganization, openTestDatabase } from '../platform/test-database';
import { hashPassword } from '../team/passwords';
import { AnswerCheck } from './answer-check';
import { Gateway } from './gateway';
import { TableWatch } from './rooms';
import { Sink, type SinkOptions } from './sink';

export const HOOK_SECRET = 'a hook secret for tests';
const PASSWORD = 'a password for tests';

export const dkimKeys = generateKeyPairSync('rsa', {
  modulusLength: 2048,
  privateKeyEncoding: { type: 'pkcs8', format: 'pem' },
  publicKeyEncoding: { type: 'spki', format: 'pem' },
});

/**
 * Each worker of the suite has ports of its own, below those that the system gives away: no two ever take the
 * same.
 */
let nextPort = 12_000 + (Number(process.env.JEST_WORKER_ID ?? 0) % 20) * 900;

/** A port of the loopback that nobody listens on. */
export async function freePort(): Promise<number> {
  for (;;) {
    const port = nextPort++;
    if (await isFree(port)) return port;
  }
}

function isFree(port: number): Promise<boolean> {
  return new Promise((done) => {
    const probe = createServer();
    probe.once('error', () => done(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)));
  });
}

/** The day that it is in the houses of tests, or some days from it; in UTC it may be tomorrow already. */
export const houseDay = (from = 0) => isoDay(dayInZone(Date.now(), 'America/Los_Angeles') + from);

export const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/** Waits until something is so, and says what was waited for when it never is. */
export async function eventually<T>(
  what: string,
  read: () => Promise<T> | T,
  so: (value: T) => boolean,
  seconds = 120,
): Promise<T> {
  let value = await read();
  for (const end = Date.now() + seconds * 1000; !so(value); value = await read()) {
    if (Date.now() > end)
      throw new Error(`waited ${seconds} s for ${what}; it stood at ${JSON.stringify(value)}`);
    await pause(100);
  }
  return value;
}

export interface HttpAnswer<T> {
  status: number;
  body: T;
  text: string;
  headers: Headers;
}

/** A browser's manners: keeps the cookie, sends the CSRF word. */
export class Client {
  private cookie = '';
  private csrf = '';

  constructor(readonly base: string) {}

  async signIn(email: string, password = PASSWORD): Promise<this> {
    await this.call('POST', '/api/session', { email, password });
    this.csrf = (await this.get<{ csrf: string }>('/api/session')).csrf;
    return this;
  }

  /** For downloads that are not text. */
  get cookies(): string {
    return this.cookie;
  }

  forgetCsrf(): void {
    this.csrf = '';
  }

  async call<T>(method: string, path: string, body?: unknown): Promise<HttpAnswer<T>> {
    const form = body instanceof FormData || body instanceof URLSearchParams;
    const response = await fetch(this.base + path, {
      method,
      redirect: 'manual',
      headers: {
        cookie: this.cookie,
        'x-gw-csrf': this.csrf,
        ...(body !== undefined && !form ? { 'content-type': 'application/json' } : {}),
      },
      body: form ? (body as FormData) : body === undefined ? undefined : JSON.stringify(body),
    });
    this.cookie = response.headers.get('set-cookie')?.split(';')[0] ?? this.cookie;
    const text = await response.text();
    const json = (response.headers.get('content-type') ?? '').includes('json') && text !== '';
    return {
      status: response.status,
      body: (json ? JSON.parse(text) : text) as T,
      text,
      headers: response.headers,
    };
  }

  async get<T>(path: string): Promise<T> {
    return this.done<T>('GET', path);
  }

  async post<T = void>(path: string, body?: unknown): Promise<T> {
    return this.done<T>('POST', path, body);
  }

  async put<T = void>(path: string, body?: unknown): Promise<T> {
    return this.done<T>('PUT', path, body);
  }

  /** As `call`, and a refusal is a failure of the test. */
  private async done<T>(method: string, path: string, body?: unknown): Promise<T> {
    const answer = await this.call<T>(method, path, body);
    if (answer.status >= 400) throw new Error(`${method} ${path} answered ${answer.status}: ${answer.text}`);
    return answer.body;
  }

  /** What the text gateway would post, signed. */
  async hook(hook: object, secret = HOOK_SECRET): Promise<number> {
    const raw = JSON.stringify(hook);
    const signature = createHmac('sha256', secret).update(raw).digest('hex');
    return (
      await fetch(`${this.base}/hooks/text`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-signature': signature },
        body: raw,
      })
    ).status;
  }
}

/**
 * As a house starts, but messages leave at once, and texts at any hour and without a cap: a test runs at
 * whatever time it is. In the United States it has turned confirming by email and for calls off, so that
 * tests of something else need no second step.
 */
export function rulesOfTests(): HouseRules {
  const rules = startingRules('US');
  const places = Object.entries(rules.places).map(([key, place]): [string, PlaceRules] => [
    key,
    {
      ...place,
      hours: { call: null, text: null },
      caps: { email: null, text: null, call: null, post: null },
    },
  ]);
  const all = Object.fromEntries(places);
  const confirm = { ...all.US!.confirm, email: false, call: false };
  return { ...rules, undoSeconds: 0, places: { ...all, US: { ...all.US!, confirm } } };
}

export interface TestHouse {
  app: INestApplication;
  client: Client;
  database: Database;
  scope: AccessScope;
  chapters: number[];
  sink: Sink;
  gateway: Gateway;
  config: Config;
  /** The environment that a process of its own would need to work in this house. */
  env: Record<string, string>;
  worker: Worker;
  startWorker(): void;
  as(role: string, chapterId?: number | null, which?: string): Promise<Client>;
  close(): Promise<void>;
}

/** A whole house for one test file: database, HTTP application, worker, an SMTP sink and a text gateway. */
export async function openTestHouse(
  options: { sink?: SinkOptions; env?: Record<string, string> } = {},
): Promise<TestHouse> {
  const { database, url, close } = await openTestDatabase();
  const { scope, chapters } = await makeTestOrganization(database);
  await database.write(scope, (tx) =>
    new HouseRulesRepository().keep(tx, { rules: rulesOfTests(), words: 'For tests', effects: [] }),
  );
  const [sink, gateway, port, bounces] = [
    await new Sink(options.sink).listen(),
    await new Gateway().listen(),
    await freePort(),
    await freePort(),
  ];
  const folder = mkdtempSync(join(tmpdir(), 'gw-test-'));
  writeFileSync(join(folder, 'dkim.pem'), dkimKeys.privateKey);
  const env = {
    DATABASE_URL: url,
    PORT: String(port),
    PUBLIC_URL: `http://127.0.0.1:${port}`,
    SECRET: createHash('sha256').update('tests').digest('hex'),
    SIGN_IN_DELAY_MS: '1',
    DATA_DIR: folder,
    SMTP_URL: sink.url,
    TEXT_URL: `http://127.0.0.1:${gateway.port}`,
    TEXT_KEY: 'a test key',
    TEXT_HOOK_SECRET: HOOK_SECRET,
    INBOUND_SMTP_PORT: String(bounces),
    DKIM_KEY_FILE: join(folder, 'dkim.pem'),
    DKIM_DOMAIN: 'lanternferry.test',
    NAME_LOOKUP: '',
    LOG_LEVEL: process.env.GW_LOG ?? 'silent',
    LEASE_SECONDS: '2',
    POLL_MS: '50',
    // From its source; that the thread answers the same is a test of its own (roll/thread.test.ts).
    ROLL: 'here',
    ...options.env,
  };
  const config = readConfig(env);
  const app = await createApp(config);
  const tables = await TableWatch.on(database.unscoped());
  app.useGlobalInterceptors(new AnswerCheck(tables));
  await app.listen(config.PORT, '127.0.0.1');
  // On a busy machine a connection that is kept would be closed in the moment in which it is used again.
  (app.getHttpServer() as Server).keepAliveTimeout = 120_000;
  const worker = createWorker(app, config);
  const hash = await hashPassword(PASSWORD);
  let running = false;
  const as = async (role: string, chapterId: number | null = null, which = '') => {
    const email = `${role}.${chapterId ?? 'all'}${which}@lanternferry.test`;
    const known = await database.unscoped()('teammate').where('email', email).first('id');
    if (!known)
      await database
        .unscoped()('teammate')
        .insert({
          organization_id: scope.organizationId,
          chapter_ids: chapterId === null ? null : JSON.stringify([chapterId]),
          name: `The ${which}${role}`,
          email,
          role,
          password_hash: hash,
          mobile: '+12065550111',
        });
    return new Client(config.PUBLIC_URL).signIn(email);
  };
  return {
    app,
    database,
    scope,
    chapters,
    sink,
    gateway,
    config,
    env,
    worker,
    as,
    client: await as('owner'),
    startWorker() {
      running = true;
      void worker.run();
    },
    async close() {
      if (running) await worker.stop();
      await app.close();
      await Promise.all([sink.close(), gateway.close(), close()]);
      if (tables.faults.size > 0)
        throw new Error(`expected no faults of calls, got\n${[...tables.faults].join('\n')}`);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
