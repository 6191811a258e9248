import type { Params } from 'nestjs-pino';
import type { Config } from './config';

/*
 * Logs hold no people: they are read by whoever looks after the machine, and kept by programs that know
 * nothing of erasing. So no search words, no addresses, no values of statements stand in them; what happened
 * and where is enough.
 */

const BETWEEN_WORDS = /([\s<>"'`(),;:]+)/;
/** Digits with what people write between them. */
const NUMBER = /\+?\d(?:[\d ().-]{5,}\d)/g;

/**
 * A text without addresses and numbers of people. Times, ids and codes are shorter than a telephone number.
 */
export function masked(text: string): string {
  const words = text
    .split(BETWEEN_WORDS)
    .map((word) => (word.includes('@') && word.length > 1 ? '…@…' : word));
  return words.join('').replace(NUMBER, (found) => (found.replace(/\D/g, '').length >= 7 ? '…' : found));
}

/** What is asked for, without what was typed and without tokens, which are keys. */
export function pathOf(url: string): string {
  return (url.split('?')[0] ?? '').replace(
    /^\/(api\/password|password|leave|confirm|choices|never-ask|o|f)\/[^/]{8,}/,
    '/$1/…',
  );
}

interface Logged {
  type: string;
  code?: string;
  message: string;
  at: string[];
}

/**
 * An error by its kind, its code and where it arose. The database's own words are left out: they quote
 * values.
 */
export function errorOf(error: unknown): Logged {
  if (!(error instanceof Error)) return { type: typeof error, message: 'no error', at: [] };
  const { code, sqlState } = error as { code?: unknown; sqlState?: unknown };
  const isDatabase = sqlState !== undefined || (typeof code === 'string' && code.startsWith('ER_'));
  return {
    type: error.name,
    ...(typeof code === 'string' || typeof code === 'number' ? { code: String(code) } : {}),
    message: isDatabase ? 'the database refused a statement' : masked(error.message.slice(0, 500)),
    at: (error.stack ?? '')
      .split('\n')
      .filter((line) => /^\s+at /.test(line))
      .slice(0, 12)
      .map((line) => line.trim()),
  };
}

/** What is given to a logger, masked. An error without words would be given its own message as such. */
function withoutPeople(given: readonly unknown[]): unknown[] {
  const texts = given.map((one) => (typeof one === 'string' ? masked(one) : one));
  const [first, second] = texts;
  const error = first instanceof Error ? first : (first as { err?: unknown } | null)?.err;
  if (!(error instanceof Error)) return texts;
  return [
    first instanceof Error ? { err: first } : first,
    second ?? errorOf(error).message,
    ...texts.slice(2),
  ];
}

export function loggingOf(config: Config): Params {
  return {
    pinoHttp: {
      level: config.LOG_LEVEL,
      autoLogging: {
        ignore: (request) =>
          (request.url ?? '').startsWith('/assets/') || (request.url ?? '').startsWith('/health/'),
      },
      serializers: {
        req: (request: { method: string; url: string }) => ({
          method: request.method,
          url: pathOf(request.url),
        }),
        res: (response: { statusCode: number }) => ({ status: response.statusCode }),
        err: (error: { raw?: unknown }) => errorOf(error.raw ?? error),
      },
      hooks: {
        logMethod(given, method) {
          method.apply(this, withoutPeople(given) as typeof given);
        },
      },
    },
  };
}
