import { timingSafeEqual } from 'node:crypto';
import type { Request } from 'express';
import type { Config } from './config';

const LOOPBACK = /^(127\.|::1$|::ffff:127\.)/;

/**
 * Whether a request comes from this machine itself or carries the word for programs that watch. A proxy on
 * this machine passes the caller's address on, so what comes through it is not of this machine.
 */
export function isOurs(request: Request, config: Config): boolean {
  const given = Buffer.from(/^Bearer (.+)$/.exec(request.get('authorization') ?? '')?.[1] ?? '');
  const word = Buffer.from(config.METRICS_TOKEN);
  if (word.length > 0 && given.length === word.length && timingSafeEqual(given, word)) return true;
  return LOOPBACK.test(request.ip ?? '') && request.get('x-forwarded-for') === undefined;
}
