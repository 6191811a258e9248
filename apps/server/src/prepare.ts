import 'reflect-metadata';
import { randomInt } from 'node:crypto';
import { existsSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { createConnection, type Connection, type RowDataPacket } from 'mysql2/promise';
import { createTransport } from 'nodemailer';
import { configFaults, readConfig, type Config } from './platform/config';
import { Database } from './platform/database';
import { codeOf, isLostConnection } from './platform/database-errors';
import { HouseKeys } from './platform/house-keys';
import { migrate } from './platform/migrate';
import { mailServerFault } from './platform/providers';
import { faultOf } from './platform/readiness';
import { BeginningRepository } from './setup/beginning.repository';
import { wordHash } from './setup/beginning.service';

/*
 * What comes before a start: looks at everything that the program leans on, says in one list what is wrong or
 * missing (and ends with EX_CONFIG, sysexits.h), brings the schema up to date, and prints the word for the
 * first owner. With `--check` it looks, and changes nothing.
 */

const say = (text: string) => process.stdout.write(`${text}\n`);

/** Words that are read aloud without a mistake; six of 64 are 36 bits, spent by the first who says them. */
const WORDS =
  `amber anchor apple autumn barge basil beacon birch breeze bridge candle canoe cedar clover copper coral cotton daisy delta ember
 fern ferry flint forest garden ginger harbor hazel island ivory jasmine kettle lagoon lantern lemon linen maple marble meadow mint oak
 olive orchid otter paddle pearl pebble pepper pier plum quartz reed ribbon river saddle saffron sail slate spruce stone thistle timber
 velvet willow`
    .trim()
    .split(/\s+/);
const makeWord = () => Array.from({ length: 6 }, () => WORDS[randomInt(WORDS.length)]).join('-');

async function main(): Promise<void> {
  // Whatever is written is for this user alone.
  process.umask(0o077);
  const faults = configFaults(process.env);
  if (faults.length > 0) return refuse(faults);
  const config = readConfig(process.env);
  const found = await Promise.all([
    databaseFaults(config),
    portFaults(config),
    mailFaults(config),
    webFaults(config),
  ]);
  const wrong = found.flat();
  if (wrong.length > 0) return refuse(wrong);
  if (process.argv.includes('--check'))
    return void say(
      'Nothing is wrong or missing, and nothing was changed: a start brings the database up to date first.',
    );
  const database = new Database(config.DATABASE_URL, 3);
  try {
    say('Bringing the database up to date…');
    await migrate(database.unscoped());
    const fault = await faultOf(database, new HouseKeys(database, config), config);
    if (fault) return refuse([fault]);
    await firstOwner(database, config);
  } finally {
    await database.close();
  }
}

/** Everything at once, so that nobody mends one thing after the other. */
function refuse(faults: readonly string[]): void {
  process.stderr.write(
    `\nGood Word can not start:\n${faults.map((fault) => `  - ${fault}`).join('\n')}\n\nEvery setting stands in .env.example.\n`,
  );
  process.exitCode = 78;
}

async function databaseFaults(config: Config): Promise<string[]> {
  const url = new URL(config.DATABASE_URL);
  const where = `${url.hostname}:${url.port || 3306}`;
  let connection: Connection | null = null;
  try {
    connection = await createConnection({ uri: config.DATABASE_URL, connectTimeout: 10_000 });
    const [rows] = await connection.query<(RowDataPacket & Settings)[]>(
      `SELECT VERSION() AS version, @@max_allowed_packet AS packet, @@local_infile AS loads,
        @@character_set_database AS charset`,
    );
    const row = rows[0]!;
    const [major = 0, minor = 0] = row.version.split('.').map((part) => Number.parseInt(part, 10));
    return [
      ...(/mariadb/i.test(row.version) && (major > 10 || (major === 10 && minor >= 11))
        ? []
        : [`The database is ${row.version}; MariaDB 10.11 or newer is needed`]),
      ...(row.packet >= 16 * 2 ** 20
        ? []
        : [`The database takes packets of ${row.packet} bytes; set max_allowed_packet to 64M`]),
      ...(row.loads ? [] : ['The database refuses LOAD DATA LOCAL; set local_infile to 1']),
      ...(row.charset === 'utf8mb4'
        ? []
        : [`The database is in ${row.charset}; make it with CHARACTER SET utf8mb4`]),
    ];
  } catch (error) {
    const code = codeOf(error);
    if (code === 'ER_ACCESS_DENIED_ERROR' || code === 'ER_DBACCESS_DENIED_ERROR')
      return [
        `The database at ${where} does not let “${decodeURIComponent(url.username)}” in; look at DATABASE_URL`,
      ];
    if (code === 'ER_BAD_DB_ERROR')
      return [`There is no database “${url.pathname.slice(1)}” at ${where}; make it first`];
    if (code === 'ENOTFOUND' || code === 'EAI_AGAIN')
      return [`There is no host “${url.hostname}”, which DATABASE_URL names`];
    if (isLostConnection(error)) return [`The database at ${where} does not answer (${code})`];
    return [`The database at ${where} can not be used: ${(error as Error).message}`];
  } finally {
    await connection?.end().catch(() => undefined);
  }
}

interface Settings {
  version: string;
  packet: number;
  loads: number;
  charset: string;
}

async function portFaults(config: Config): Promise<string[]> {
  const wanted: [string, string, number][] = [
    ['PORT', config.HOST, config.PORT],
    ...(config.INBOUND_SMTP_PORT > 0
      ? ([['INBOUND_SMTP_PORT', config.INBOUND_HOST || config.HOST, config.INBOUND_SMTP_PORT]] as [
          string,
          string,
          number,
        ][])
      : []),
  ];
  const faults: string[] = [];
  for (const [name, host, port] of wanted) {
    const code = await listenFault(host, port);
    if (code === 'EADDRINUSE') faults.push(`${name}: another program listens on ${host}:${port} already`);
    else if (code === 'EACCES')
      faults.push(
        `${name}: port ${port} needs rights that this user has not; take one above 1023 behind a proxy`,
      );
    else if (code !== null) faults.push(`${name}: this machine can not listen on ${host}:${port} (${code})`);
  }
  return faults;
}

function listenFault(host: string, port: number): Promise<string | null> {
  return new Promise((done) => {
    const probe = createServer();
    probe.once('error', (error) => done(codeOf(error) || 'unknown'));
    probe.listen(port, host, () => probe.close(() => done(null)));
  });
}

/** A mail server that is away is told and waited for; one that can never work is a fault. */
async function mailFaults(config: Config): Promise<string[]> {
  const url = new URL(config.SMTP_URL);
  const address = `${url.hostname}:${url.port || (url.protocol === 'smtps:' ? 465 : 587)}`;
  const transport = createTransport({
    url: config.SMTP_URL,
    connectionTimeout: 8000,
    greetingTimeout: 8000,
    socketTimeout: 8000,
  } as never);
  try {
    await transport.verify();
    return [];
  } catch (error) {
    const { words, lasting } = mailServerFault(error as Error, address);
    if (lasting) return [words];
    say(`${words}. It is waited for: what is to leave stays here until it answers.`);
    return [];
  } finally {
    transport.close();
  }
}

function webFaults({ WEB_DIR: folder }: Config): Promise<string[]> {
  return Promise.resolve(
    folder === '' || existsSync(join(folder, 'index.html'))
      ? []
      : [`WEB_DIR: there is no index.html in ${folder}; run "npm run build", or leave it empty`],
  );
}

async function firstOwner(database: Database, config: Config): Promise<void> {
  const beginnings = new BeginningRepository();
  if (!(await beginnings.isEmpty(database))) return;
  const word = makeWord();
  await beginnings.keepWord(database, wordHash(word));
  say(
    `\nNobody is here yet. Open ${config.PUBLIC_URL}/begin and say this word; it works once, and each start makes a new one:\n\n    ${word}\n`,
  );
}

void main().catch((error: unknown) => {
  process.stderr.write(`Good Word can not start: ${(error as Error).message}\n`);
  process.exitCode = 1;
});
