/** A mariadbd of the project's own, on loopback, with its data in a folder of the project's. */
import { spawn, spawnSync } from 'node:child_process';
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { totalmem, tmpdir } from 'node:os';
import { connect } from 'node:net';
import { join } from 'node:path';
import { ensureProgram, stop } from './prepare.mjs';

const AS_ROOT = process.getuid?.() === 0;

function mysqlUser() {
  const [, , uid, gid] = (readFileSync('/etc/passwd', 'utf8').match(/^mysql:.*$/m)?.[0] ?? '').split(':');
  return { uid: Number(uid), gid: Number(gid) };
}

/**
 * Who the server runs as; null for whoever starts it. Started by root it is the mysql user, except where that
 * user may not enter the folder (the project lies in somebody's own, mode 700), or where root's server made
 * the data before.
 */
function serverUser(folder) {
  if (!AS_ROOT) return null;
  if (existsSync(folder)) return statSync(folder).uid === 0 ? 'root' : 'mysql';
  const probe = spawnSync('su', ['-s', '/bin/sh', 'mysql', '-c', `test -x "${join(folder, '..')}"`]);
  return probe.status === 0 ? 'mysql' : 'root';
}

/** Its folders must belong to the user that it runs as. */
function giveToServer(path, user) {
  if (user !== 'mysql') return;
  const { uid, gid } = mysqlUser();
  chownSync(path, uid, gid);
}

function alive(pid) {
  try {
    process.kill(pid, 0);
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('mariadbd');
  } catch {
    return false;
  }
}

const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** Ends a server that a killed start has left on the same folder; waits until it has written everything. */
export async function endLeftover(pidFile) {
  if (!existsSync(pidFile)) return;
  const pid = Number(readFileSync(pidFile, 'utf8').trim());
  if (!pid || !alive(pid)) return rmSync(pidFile, { force: true });
  process.kill(pid, 'SIGTERM');
  for (let i = 0; i < 300 && alive(pid); i++) await pause(100);
  if (alive(pid)) process.kill(pid, 'SIGKILL');
}

function bufferPool() {
  const quarter = totalmem() / 6;
  return `${Math.max(128, Math.min(4096, Math.floor(quarter / 2 ** 20)))}M`;
}

function answers(port) {
  return new Promise((done) => {
    const socket = connect(port, '127.0.0.1');
    socket.once('data', () => (socket.destroy(), done(true)));
    socket.once('error', () => done(false));
    setTimeout(() => (socket.destroy(), done(false)), 500).unref();
  });
}

function install(installer, folder, user) {
  const part = `${folder}.part`;
  rmSync(part, { recursive: true, force: true });
  mkdirSync(part, { recursive: true });
  giveToServer(part, user);
  const made = spawnSync(
    installer,
    [
      '--no-defaults',
      ...(user ? [`--user=${user}`] : []),
      `--datadir=${part}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
    ],
    {
      encoding: 'utf8',
    },
  );
  if (made.status !== 0) stop(`MariaDB could not make its data folder:\n${made.stdout}\n${made.stderr}`);
  renameSync(part, folder);
}

/**
 * Starts the server on the folder and waits until it answers. `relaxed` gives up durability for speed, for
 * tests only; `onExit` is told when it ends by itself. Returns its port, its process and a clean stop.
 */
export async function startMariaDb({ folder, port, relaxed = false, onExit }) {
  const installer = ensureProgram('mariadb-install-db', 'mariadb-server');
  const server = ensureProgram('mariadbd', 'mariadb-server');
  mkdirSync(join(folder, '..'), { recursive: true });
  const user = serverUser(folder);
  if (!existsSync(join(folder, 'mysql'))) install(installer, folder, user);
  await endLeftover(join(folder, 'm.pid'));
  const sockets = mkdtempSync(join(tmpdir(), 'gw-'));
  chmodSync(sockets, 0o755);
  giveToServer(sockets, user);
  const options = [
    '--no-defaults',
    ...(user ? [`--user=${user}`] : []),
    `--datadir=${folder}`,
    `--socket=${join(sockets, 'm.sock')}`,
    `--pid-file=${join(folder, 'm.pid')}`,
    `--port=${port}`,
    '--bind-address=127.0.0.1',
    '--skip-name-resolve',
    '--character-set-server=utf8mb4',
    '--collation-server=utf8mb4_unicode_ci',
    `--log-error=${join(folder, 'm.err')}`,
    `--tmpdir=${sockets}`,
    `--innodb-buffer-pool-size=${relaxed ? '512M' : bufferPool()}`,
    '--local-infile=1',
    '--max-allowed-packet=64M',
    '--innodb-log-file-size=512M',
    '--max-connections=200',
    ...(relaxed ? ['--innodb-flush-log-at-trx-commit=0', '--sync-binlog=0', '--innodb-doublewrite=0'] : []),
  ];
  const child = spawn(server, options, { stdio: 'ignore', detached: true });
  let ended = false;
  let [ready, stopping] = [false, false];
  child.once('exit', () => {
    ended = true;
    if (ready && !stopping) onExit?.();
  });
  for (let i = 0; i < 300 && !ended && !(await answers(port)); i++) await pause(100);
  if (ended || !(await answers(port))) {
    const log = existsSync(join(folder, 'm.err'))
      ? readFileSync(join(folder, 'm.err'), 'utf8').split('\n').slice(-12).join('\n')
      : '';
    stop(`MariaDB did not start on port ${port}. The end of its log:\n${log}`);
  }
  ready = true;
  return {
    port,
    pid: child.pid,
    url: (database) => `mysql://root@127.0.0.1:${port}/${database}`,
    async stop() {
      stopping = true;
      if (!ended) child.kill('SIGTERM');
      for (let i = 0; i < 300 && !ended; i++) await pause(50);
      if (!ended) child.kill('SIGKILL');
      rmSync(sockets, { recursive: true, force: true });
    },
  };
}
