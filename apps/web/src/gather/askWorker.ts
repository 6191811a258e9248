import { t } from '@lingui/core/macro';
import type { WorkerReply, Ask } from './intake.worker';

let worker: Worker | null = null;
let asked = 0;
/** The number of a new question; answers to older ones are dropped. */
export const nextQuestion = () => ++asked;
/** Ends the waiting for answers to the last question: a newer one takes its place. */
let endLast = () => {};
const WORKER_GONE = t`The browser gave up reading the file, most likely for want of memory. Close other pages and read it again, or cut the file in two.`;

/**
 * Puts one question to the worker and hears its answers, several on the way; whatever belongs to an older
 * question is dropped. A worker that the browser has ended is told as an answer, and the next question begins
 * a new one.
 */
export function ask(question: Ask, hear: (answer: WorkerReply) => void): Promise<void> {
  const own = (worker ??= new Worker(new URL('./intake.worker.ts', import.meta.url), { type: 'module' }));
  endLast();
  return new Promise((done) => {
    const end = (endLast = () => {
      own.removeEventListener('message', listen);
      own.removeEventListener('error', gone);
      done();
    });
    const listen = ({ data }: MessageEvent<WorkerReply>) => {
      if (data.id !== question.id) return;
      if (question.id === asked) hear(data);
      if (!data.ok || data.done || question.id !== asked) end();
    };
    const gone = () => {
      own.terminate();
      if (worker === own) worker = null;
      if (question.id === asked) hear({ id: question.id, ok: false, reason: WORKER_GONE });
      end();
    };
    own.addEventListener('message', listen);
    own.addEventListener('error', gone);
    own.postMessage(question);
  });
}
