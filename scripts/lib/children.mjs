/** Child processes that end with their parent, in order, and say so when they end by themselves. */
import { spawn } from 'node:child_process';
import { createWriteStream } from 'node:fs';

export class Children {
  #running = [];
  #stopping = false;

  start(name, command, args, { env, cwd, log, onExit } = {}) {
    const child = spawn(command, args, {
      cwd,
      env: { ...process.env, ...env },
      stdio: ['ignore', log ? 'pipe' : 'inherit', log ? 'pipe' : 'inherit'],
    });
    if (log) {
      const file = createWriteStream(log, { flags: 'a' });
      child.stdout.pipe(file);
      child.stderr.pipe(file);
    }
    const entry = { name, child, ended: new Promise((done) => child.once('exit', (code, signal) => done({ code, signal }))) };
    this.#running.push(entry);
    void entry.ended.then(({ code, signal }) => {
      if (!this.#stopping) onExit?.(name, code ?? signal);
    });
    return child;
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
  }
}
