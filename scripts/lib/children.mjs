/** Child processes that end with their parent, in order, and say so when they end by themselves. */
import { spawn } from 'node:child_process';
import { createWriteStream, existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';

function commandOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ');
  } catch {
    return '';
  }
}

/** Ends what a killed start has left running: only processes that are still what the file says they were. */
export async function endLeftovers(pidFile) {
  if (!existsSync(pidFile)) return;
  const left = JSON.parse(readFileSync(pidFile, 'utf8')).filter(({ pid, script }) =>
    commandOf(pid).includes(script),
  );
  for (const { pid } of left) process.kill(pid, 'SIGTERM');
  for (let i = 0; i < 50 && left.some(({ pid, script }) => commandOf(pid).includes(script)); i++)
    await new Promise((done) => setTimeout(done, 100));
  for (const { pid, script } of left) if (commandOf(pid).includes(script)) process.kill(pid, 'SIGKILL');
  rmSync(pidFile, { force: true });
}

export class Children {
  #running = [];
  #stopping = false;
  #pidFile;

  /** `pidFile` remembers who runs, for a start after one that was killed. */
  constructor(pidFile) {
    this.#pidFile = pidFile;
  }

  start(name, command, args, { env, cwd, log, onExit } = {}) {
    const child = spawn(command, args, {
      cwd,
      env: { ...process.env, ...env },
      stdio: ['ignore', log ? 'pipe' : 'inherit', log ? 'pipe' : 'inherit'],
    });
    if (log) {
      const file = createWriteStream(log, { flags: 'a', mode: 0o600 });
      child.stdout.pipe(file);
      child.stderr.pipe(file);
    }
    const entry = {
      name,
      child,
      script: args[0],
      ended: new Promise((done) => child.once('exit', (code, signal) => done({ code, signal }))),
    };
    this.#running.push(entry);
    this.#remember();
    void entry.ended.then(({ code, signal }) => {
      if (!this.#stopping) onExit?.(name, code ?? signal);
    });
    return child;
  }

  #remember() {
    if (!this.#pidFile) return;
    writeFileSync(
      this.#pidFile,
      JSON.stringify(this.#running.map(({ child, script }) => ({ pid: child.pid, script }))),
    );
  }

  /** Ends all of them and lets the caller start them anew. */
  async restart(start) {
    await this.stop();
    this.#running = [];
    this.#stopping = false;
    start();
  }

  /** Ends them newest first; whoever does not listen within ten seconds is killed. */
  async stop() {
    this.#stopping = true;
    for (const { child, ended } of [...this.#running].reverse()) {
      if (child.exitCode !== null || child.signalCode !== null) continue;
      child.kill('SIGTERM');
      const timer = setTimeout(() => child.kill('SIGKILL'), 10_000);
      await ended;
      clearTimeout(timer);
    }
    if (this.#pidFile) rmSync(this.#pidFile, { force: true });
  }
}
