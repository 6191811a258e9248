import { parentPort, workerData } from 'node:worker_threads';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { ROLL_CONNECTIONS, RollEngine, type RollQuestions } from './engine';

/** What the thread is told and what it tells; an answer carries the number of its question. */
export interface RollRequest {
  n: number;
  scope: AccessScope;
  what: keyof RollQuestions;
  question: RollQuestions[keyof RollQuestions];
}
export type RollReply =
  { n: number; answer: unknown } | { n: number; error: { message: string; name: string; code?: string } };

const { databaseUrl, megabytes } = workerData as { databaseUrl: string; megabytes: number };
const database = new Database(databaseUrl, ROLL_CONNECTIONS);
const engine = new RollEngine(database, megabytes);

parentPort!.on('message', (asked: RollRequest | 'close') => {
  if (asked === 'close') {
    void engine
      .close()
      .then(() => database.close())
      .then(() => process.exit(0));
    return;
  }
  const { n, scope, what, question } = asked;
  engine.ask(scope, what, question).then(
    (answer) => tell({ n, answer }),
    (error: Error & { code?: string }) =>
      tell({
        n,
        error: { message: error.message, name: error.name, ...(error.code ? { code: error.code } : {}) },
      }),
  );
});

function tell(told: RollReply): void {
  parentPort!.postMessage(told);
}
