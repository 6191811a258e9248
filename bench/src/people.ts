import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Database } from '@goodword/server/platform/database';

const ROOT = join(__dirname, '../..');
/**
 * After a start the engine clears up what starting left, a few times, within some two and a half minutes:
 * that is no idling.
 */
const SETTLE_SECONDS = 200;
const IDLE_SECONDS = 60;
const PEOPLE = 50;
const LOAD_SECONDS = 20;

export interface PeopleFigures {
  /** Shares of a core, with nothing to do. */
  idleServer: number;
  idleWorker: number;
  /**
   * Milliseconds to an answer: of fifty who ask without a pause, and of fifty who look at each page for a
   * while.
   */
  crowded: Spread;
  atWork: Spread;
  /** Fifty who ask without a pause for what needs no work at all, on the same server: the yardstick. */
  bare: Spread;
}

export interface Spread {
  median: number;
  p95: number;
  aSecond: number;
}

/**
 * The running program over the demo organization: its processes with nothing to do, and fifty people on its
 * main pages.
 */
export async function benchPeople(server: string): Promise<PeopleFigures> {
  const admin = new Database(`${server}/mysql`, 1);
  await admin.unscoped().raw('DROP DATABASE IF EXISTS gw_bench_people');
  await admin.close();
  const port = await freePort();
  const env = {
    ...process.env,
    DATABASE_URL: `${server}/gw_bench_people`,
    PORT: String(port),
    PUBLIC_URL: `http://127.0.0.1:${port}`,
    SECRET: createHash('sha256').update('bench').digest('hex'),
    DATA_DIR: mkdtempSync(join(tmpdir(), 'gw-bench-')),
    SMTP_URL: 'smtp://127.0.0.1:9',
    LOG_LEVEL: 'silent',
    NODE_ENV: 'production',
  };
  const filled = spawnSync(process.execPath, [join(ROOT, 'demo/dist/main.js')], { env, stdio: 'ignore' });
  if (filled.status !== 0) throw new Error('expected the demo organization to be filled');
  const start = (name: string) =>
    spawn(process.execPath, [join(ROOT, 'apps/server/dist', `${name}.js`)], { env, stdio: 'ignore' });
  const [http, worker] = [start('main'), start('worker')];
  try {
    const base = env.PUBLIC_URL;
    await answers(`${base}/health/ready`);
    const cookies = await signIn(base);
    await once(base, cookies[0]!);
    await pause(SETTLE_SECONDS * 1000);
    const [idleServer, idleWorker] = await idle([http, worker]);
    const bare = await load(() => ask(`${base}/health/live`, ''), 0);
    const pages = pagesOf(base);
    const page = (i: number, turn: number) => pages[(i + turn) % pages.length]!;
    const crowded = await load((i, turn) => page(i, turn)(cookies[i % cookies.length]!), 0);
    const atWork = await load((i, turn) => page(i, turn)(cookies[i % cookies.length]!), 1000);
    return { idleServer: idleServer!, idleWorker: idleWorker!, crowded, atWork, bare };
  } finally {
    for (const child of [http, worker]) child.kill('SIGTERM');
  }
}

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => done(port));
    });
  });
}

async function answers(url: string): Promise<void> {
  for (let i = 0; i < 300; i++) {
    const ok = await fetch(url).then(
      (response) => response.ok,
      () => false,
    );
    if (ok) return;
    await pause(100);
  }
  throw new Error(`expected ${url} to answer within 30 seconds`);
}

async function signIn(base: string): Promise<string[]> {
  const cookies: string[] = [];
  for (const who of ['rosa', 'idris', 'june', 'tomas']) {
    const body = JSON.stringify({ email: `${who}@lanternferry.test`, password: 'oak-planks-afloat' });
    const answer = await fetch(`${base}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body,
    });
    cookies.push(answer.headers.getSetCookie()[0]!.split(';')[0]!);
  }
  return cookies;
}

async function ask(url: string, cookie: string, body?: object): Promise<void> {
  const headers = { cookie, ...(body ? { 'content-type': 'application/json' } : {}) };
  const answer = await fetch(url, {
    method: body ? 'POST' : 'GET',
    headers,
    body: body ? JSON.stringify(body) : undefined,
  });
  await answer.arrayBuffer();
  if (answer.status >= 500) throw new Error(`${url} answered ${answer.status}`);
}

/** What the main pages ask for; a page is there when its last answer is. */
function pagesOf(base: string): ((cookie: string) => Promise<void>)[] {
  const tree = { kind: 'all', rules: [{ kind: 'gave', did: true, atLeast: null, window: { over: 'ever' } }] };
  const all = (paths: (string | [string, object])[]) => async (cookie: string) => {
    await Promise.all(
      paths.map((path) =>
        typeof path === 'string'
          ? ask(`${base}/api/${path}`, cookie)
          : ask(`${base}/api/${path[0]}`, cookie, path[1]),
      ),
    );
  };
  return [
    all(['session', 'today']),
    all(['today', 'batches']),
    all(['today', 'supporters?limit=50', 'tags', 'lists', 'fields']),
    all(['supporters/500', 'supporters/500/timeline', 'tags']),
    all([
      'segments',
      ['segments/count', { tree, reach: false }],
      ['segments/people', { tree, by: 'name', descending: false, fields: [], limit: 50 }],
    ]),
    all(['messages']),
    all(['messages/1/results', 'today']),
    all(['replies', 'today']),
    all(['campaigns', 'lists']),
  ];
}

async function once(base: string, cookie: string): Promise<void> {
  for (const page of pagesOf(base)) await page(cookie);
}

/** Fifty ask one thing after the other, each with a pause behind it. */
async function load(act: (person: number, turn: number) => Promise<void>, pauseMs: number): Promise<Spread> {
  const times: number[] = [];
  const end = Date.now() + LOAD_SECONDS * 1000;
  const began = Date.now();
  await Promise.all(
    Array.from({ length: PEOPLE }, async (_none, person) => {
      if (pauseMs > 0) await pause((person / PEOPLE) * pauseMs);
      for (let turn = 0; Date.now() < end; turn++) {
        const from = performance.now();
        await act(person, turn);
        times.push(performance.now() - from);
        if (pauseMs > 0) await pause(pauseMs);
      }
    }),
  );
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.min(times.length - 1, Math.floor(times.length * share))]!;
  return { median: at(0.5), p95: at(0.95), aSecond: (times.length * 1000) / (Date.now() - began) };
}

/** What each process takes of a core while nobody asks anything. */
async function idle(children: readonly ChildProcess[]): Promise<number[]> {
  // Nanoseconds on a core, of all threads. Ticks of a hundredth of a second charge a whole one to whoever a
  // timer wakes.
  const spent = ({ pid }: ChildProcess) =>
    readdirSync(`/proc/${pid}/task`).reduce(
      (sum, thread) =>
        sum + Number(readFileSync(`/proc/${pid}/task/${thread}/schedstat`, 'utf8').split(' ')[0]),
      0,
    );
  const before = children.map(spent);
  await pause(IDLE_SECONDS * 1000);
  return children.map((child, i) => (spent(child) - before[i]!) / 1e9 / IDLE_SECONDS);
}
