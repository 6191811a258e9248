import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { ROLL_CONNECTIONS, RollEngine, type Roll, type RollAnswers, type RollQuestions } from './engine';
import type { RollRequest, RollReply } from './thread';

/** Compiled beside this file; tests run this file from its source and take the thread from the build. */
const THREAD = __filename.endsWith('.ts')
  ? join(__dirname, '../../dist/roll/thread.js')
  : join(__dirname, 'thread.js');

/**
 * Asks a thread of its own, so that counting a million people stalls no request. A thread that dies is begun
 * again.
 */
export class RollThread implements Roll {
  private worker: Worker | null = null;
  private next = 1;
  private readonly waiting = new Map<
    number,
    { done: (answer: never) => void; fail: (error: Error) => void }
  >();

  constructor(private readonly data: { databaseUrl: string; megabytes: number }) {}

  ask<Q extends keyof RollQuestions>(
    scope: AccessScope,
    what: Q,
    question: RollQuestions[Q],
  ): Promise<RollAnswers[Q]> {
    const asked: RollRequest = { n: this.next++, scope, what, question };
    return new Promise((done, fail) => {
      this.waiting.set(asked.n, { done: done as never, fail });
      this.thread().postMessage(asked);
    });
  }

  async close(): Promise<void> {
    const worker = this.worker;
    if (!worker) return;
    const ended = new Promise((done) => worker.once('exit', done));
    worker.postMessage('close');
    await ended;
  }

  private thread(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(THREAD, { workerData: this.data });
    worker.unref();
    worker.on('message', (told: RollReply) => {
      const waits = this.waiting.get(told.n);
      this.waiting.delete(told.n);
      if ('error' in told) waits?.fail(Object.assign(new Error(told.error.message), told.error));
      else waits?.done(told.answer as never);
    });
    const end = (error: Error) => {
      if (this.worker === worker) this.worker = null;
      for (const { fail } of this.waiting.values()) fail(error);
      this.waiting.clear();
    };
    worker.on('error', end);
    worker.on('exit', () => end(new Error('expected the roll to answer, got its end; ask again')));
    return (this.worker = worker);
  }
}

/** Questions about sets of people, answered exactly as of the moment they are asked. */
@Injectable()
export class RollService implements OnApplicationShutdown {
  private readonly roll: Roll;
  /** Connections of its own: what asks it may hold one, and locks. */
  private readonly database: Database | null = null;

  constructor(@Inject(CONFIG) config: Pick<Config, 'DATABASE_URL' | 'ROLL' | 'ROLL_MEGABYTES'>) {
    if (config.ROLL === 'thread') {
      this.roll = new RollThread({ databaseUrl: config.DATABASE_URL, megabytes: config.ROLL_MEGABYTES });
      return;
    }
    this.database = new Database(config.DATABASE_URL, ROLL_CONNECTIONS);
    this.roll = new RollEngine(this.database, config.ROLL_MEGABYTES);
  }

  ask<Q extends keyof RollQuestions>(
    scope: AccessScope,
    what: Q,
    question: RollQuestions[Q],
  ): Promise<RollAnswers[Q]> {
    return this.roll.ask(scope, what, question);
  }

  async onApplicationShutdown(): Promise<void> {
    await this.roll.close();
    await this.database?.close();
  }
}
