import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createServer as createTlsServer } from 'node:tls';
import { Database } from './platform/database';
import { HouseKeys, WRONG_SECRET } from './platform/house-keys';
import { roomFault } from './platform/problem.filter';
import { mailServerFault } from './platform/providers';
import { faultOf } from './platform/readiness';
import { readConfig } from './platform/config';
import { Sink } from './testing/sink';

const SCRIPT = join(__dirname, '../dist/prepare.js');
const SERVER = process.env.TEST_DATABASE_SERVER!;
const name = `t_${randomBytes(6).toString('hex')}`;
const folder = mkdtempSync(join(tmpdir(), 'gw-prepare-'));
const secret = () => randomBytes(32).toString('hex');
const sink = new Sink();
const admin = new Database(`${SERVER}/mysql`, 1);
let env: Record<string, string>;

beforeAll(async () => {
  await sink.listen();
  await admin.unscoped().raw(`CREATE DATABASE ${name} CHARACTER SET utf8mb4`);
  env = {
    DATABASE_URL: `${SERVER}/${name}`,
    PUBLIC_URL: 'http://127.0.0.1:1',
    PORT: String(await freePort()),
    SECRET: secret(),
    DATA_DIR: folder,
    SMTP_URL: sink.url,
    LOG_LEVEL: 'silent',
  };
});
afterAll(async () => {
  await admin.unscoped().raw(`DROP DATABASE ${name}`);
  await Promise.all([admin.close(), sink.close()]);
  rmSync(folder, { recursive: true, force: true });
});

async function freePort(): Promise<number> {
  const probe = await listening(createServer());
  const { port } = probe.address() as AddressInfo;
  await new Promise((done) => probe.close(done));
  return port;
}

function listening<T extends Server>(server: T): Promise<T> {
  return new Promise((done) => server.listen(0, '127.0.0.1', () => done(server)));
}

function prepare(
  more: Record<string, string> = {},
  words: string[] = [],
): Promise<{ code: number | null; said: string }> {
  const child = spawn(process.execPath, [SCRIPT, ...words], {
    env: { PATH: process.env.PATH, ...env, ...more },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (piece: Buffer) => (said += piece.toString()));
  return new Promise((done) => child.once('close', (code) => done({ code, said })));
}

test('the script that is tried is there', () => expect(existsSync(SCRIPT)).toBe(true));

test('looking alone changes nothing: no table, no word', async () => {
  const { code, said } = await prepare({}, ['--check']);
  expect([code, said]).toEqual([0, expect.stringContaining('nothing was changed') as string]);
  expect(await admin.unscoped()('information_schema.tables').where('table_schema', name)).toEqual([]);
});

test('npm start says when it is ready, and ends whole when npm alone is told to end, as what supervises it does', async () => {
  const root = join(__dirname, '../../..');
  const child = spawn('npm', ['start'], {
    cwd: root,
    env: {
      PATH: process.env.PATH,
      HOME: folder,
      npm_config_update_notifier: 'false',
      ...env,
      ENV_FILE: '/dev/null',
    },
  });
  let said = '';
  const ready = new Promise<void>((done, fail) => {
    for (const stream of [child.stdout, child.stderr])
      stream.on(
        'data',
        (piece: Buffer) => ((said += piece.toString()), said.includes('Good Word is ready') && done()),
      );
    child.once('close', () => fail(new Error(said)));
  });
  await ready;
  const live = `http://127.0.0.1:${env.PORT}/health/live`;
  expect((await fetch(live)).status).toBe(200);
  child.kill('SIGTERM');
  await new Promise((done) => child.once('close', done));
  await expect(fetch(live)).rejects.toThrow();
});

describe('what is wrong is said in one list before anything starts', () => {
  test('settings', async () => {
    const { code, said } = await prepare({
      SECRET: 'ab'.repeat(32),
      PUBLIC_URL: 'http://desk.lanternferry.test',
      DKIM_KEY_FILE: '/nowhere/key.pem',
    });
    expect(code).toBe(78);
    for (const word of ['SECRET', 'PUBLIC_URL', 'DKIM_KEY_FILE', 'DKIM_DOMAIN'])
      expect(said).toContain(`- "${word}"`);
  });

  test('a database that is not there, a port that is taken, a page that was not built', async () => {
    const taken = await listening(createServer());
    const { port } = taken.address() as AddressInfo;
    const { code, said } = await prepare({
      DATABASE_URL: `${SERVER}/nowhere`,
      PORT: String(port),
      WEB_DIR: folder,
    });
    taken.close();
    expect(code).toBe(78);
    expect(said).toContain('There is no database “nowhere”');
    expect(said).toContain(`another program listens on 127.0.0.1:${port}`);
    expect(said).toContain('no index.html');
  });

  test.each([
    [
      'a wrong password',
      { DATABASE_URL: `${SERVER.replace('root@', 'nobody:wrong@')}/${name}` },
      /does not let “nobody” in/,
    ],
    [
      'a server that is away',
      { DATABASE_URL: 'mysql://root@127.0.0.1:1/x' },
      /127\.0\.0\.1:1 does not answer/,
    ],
  ])('%s', async (_what, more, told) => {
    const { code, said } = await prepare(more);
    expect([code, said]).toEqual([78, expect.stringMatching(told) as string]);
  });

  test('a mail server whose certificate is not accepted is no database that does not answer', async () => {
    // Without a certificate of its own the handshake fails, as it does with a wrong one.
    const server = await listening(createTlsServer({}, () => undefined));
    const { port } = server.address() as AddressInfo;
    const { code, said } = await prepare({ SMTP_URL: `smtps://127.0.0.1:${port}` });
    server.close();
    expect(code).toBe(78);
    expect(said).toMatch(/mail server/);
    expect(said).not.toMatch(/database/);
  });

  test.each([
    [{ code: 'ESOCKET', message: 'self-signed certificate' }, /certificate that is not accepted/, true],
    [
      { code: 'ESOCKET', message: "Hostname/IP does not match certificate's altnames" },
      /certificate that is not accepted/,
      true,
    ],
    [{ code: 'EAUTH', message: 'Invalid login', responseCode: 535 }, /user and password/, true],
    [{ code: 'EDNS', message: 'getaddrinfo ENOTFOUND smtp.ferry.test' }, /no host “smtp.ferry.test”/, true],
    [{ code: 'ESOCKET', message: 'connect ECONNREFUSED' }, /can not be reached/, false],
    [{ code: 'ETIMEDOUT', message: 'Connection timeout' }, /does not answer in time/, false],
  ])('%j', (error, told, lasting) => {
    const fault = mailServerFault(error, 'smtp.ferry.test:465');
    expect([fault.words, fault.lasting]).toEqual([expect.stringMatching(told), lasting]);
  });

  test('a mail server that is only away is waited for', async () => {
    const { code, said } = await prepare({ SMTP_URL: `smtp://127.0.0.1:${await freePort()}` });
    expect([code, said]).toEqual([0, expect.stringContaining('It is waited for') as string]);
  });
});

test('two starts at once migrate once, and each makes a word of its own, of which the last holds', async () => {
  await admin.unscoped().raw(`DROP DATABASE ${name}`);
  await admin.unscoped().raw(`CREATE DATABASE ${name} CHARACTER SET utf8mb4`);
  const both = await Promise.all([prepare(), prepare({ PORT: String(await freePort()) })]);
  expect(both.map(({ code }) => code)).toEqual([0, 0]);
  const words = both.map(({ said }) => /^ {4}([a-z]+(?:-[a-z]+){5})$/m.exec(said)?.[1]);
  expect(words[0]).not.toBe(words[1]);
  expect(words.every(Boolean)).toBe(true);
});

test('a start that was killed while it migrated leaves nothing behind that stops the next', async () => {
  const database = new Database(env.DATABASE_URL!, 1);
  await database.unscoped()('knex_migrations_lock').update({ is_locked: 1 });
  await database.close();
  expect((await prepare()).code).toBe(0);
});

describe('ready', () => {
  const open = () => new Database(env.DATABASE_URL!, 2);
  const fault = async (database: Database, more: Record<string, string> = {}) => {
    const config = readConfig({ ...env, ...more });
    return faultOf(database, new HouseKeys(database, config), config);
  };

  test('only with the schema, the secret and a folder that takes files', async () => {
    const database = open();
    expect(await fault(database)).toBeNull();
    writeFileSync(join(folder, 'a-file'), '');
    expect(await fault(database, { DATA_DIR: join(folder, 'a-file') })).toMatch(/DATA_DIR/);
    if (process.getuid?.() !== 0) {
      chmodSync(folder, 0o500);
      expect(await fault(database)).toMatch(/DATA_DIR/);
      chmodSync(folder, 0o700);
    }
    expect(await fault(database, { SECRET: secret() })).toBe(WRONG_SECRET);
    await database.unscoped().raw('RENAME TABLE knex_migrations TO knex_elsewhere');
    expect(await fault(database)).toMatch(/no schema/);
    await database.unscoped().raw('RENAME TABLE knex_elsewhere TO knex_migrations');
    await database.close();
  });

  test.each([
    ['ENOSPC', /disk of the server is full/],
    ['ER_RECORD_FILE_FULL', /disk of the server is full/],
    ['EROFS', /can only read/],
    ['ER_OPTION_PREVENTS_STATEMENT', /can only read/],
    ['ER_NO_SUCH_TABLE', /another schema/],
  ])('a page says %s in a sentence', (code, told) =>
    expect(roomFault(Object.assign(new Error(code), { code }))).toMatch(told),
  );

  test('a server that only reads is told, by readiness and by the page', async () => {
    // Seen by whoever has no right to write all the same, as the program's own user.
    await admin.unscoped().raw(`CREATE OR REPLACE USER ${name}@'127.0.0.1'`);
    await admin.unscoped().raw(`GRANT ALL ON ${name}.* TO ${name}@'127.0.0.1'`);
    const own = new Database(env.DATABASE_URL!.replace('root@', `${name}@`), 1);
    const config = readConfig(env);
    await admin.unscoped().raw('SET GLOBAL read_only = 1');
    try {
      expect(await faultOf(own, new HouseKeys(own, config), config)).toMatch(/can not be written to/);
    } finally {
      await admin.unscoped().raw('SET GLOBAL read_only = 0');
      await admin.unscoped().raw(`DROP USER ${name}@'127.0.0.1'`);
      await own.close();
    }
  });

  test('the secret is changed with the one of before beside it, and who is on do-not-contact stays known', async () => {
    const database = open();
    const hashUnder = async (more: Record<string, string>) =>
      (await new HouseKeys(database, readConfig({ ...env, ...more })).hasher())(
        'email',
        'ada@lanternferry.test',
      );
    const before = await hashUnder({});
    const next = secret();
    expect(await hashUnder({ SECRET: next, SECRET_BEFORE: env.SECRET! })).toBe(before);
    // Wrapped anew: from here on the old one is not needed.
    expect(await hashUnder({ SECRET: next })).toBe(before);
    await expect(hashUnder({})).rejects.toThrow('SECRET');
    env.SECRET = next;
    await database.close();
  });
});
