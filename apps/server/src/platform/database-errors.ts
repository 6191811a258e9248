import { Unavailable } from './errors';

const LOST = new Set([
  'ECONNREFUSED',
  'PROTOCOL_CONNECTION_LOST',
  'ECONNRESET',
  'ER_SERVER_SHUTDOWN',
  'EPIPE',
  'ETIMEDOUT',
]);

/**
 * Deadlock, lock wait, and a certification failure of a cluster: the transaction may be tried again as a
 * whole.
 */
export const AGAIN = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);

export function codeOf(error: unknown): string {
  return typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';
}

/** Whether the database did not answer, so that the same may be asked again when it does. */
export function isLostConnection(error: unknown): boolean {
  if (error instanceof Unavailable || LOST.has(codeOf(error))) return true;
  if (typeof error !== 'object' || error === null) return false;
  // A command given to a connection that has just been lost fails without a code, and is marked as fatal by
  // the driver.
  return (
    ('fatal' in error && error.fatal === true && codeOf(error) === '') ||
    (error as Error).name === 'KnexTimeoutError'
  );
}

/**
 * Whether the server ended a statement that ran for too long: MariaDB's 1969, which the driver has no name
 * for.
 */
export function tookTooLong(error: unknown): boolean {
  return typeof error === 'object' && error !== null && 'errno' in error && error.errno === 1969;
}

export function isDuplicate(error: unknown): boolean {
  return codeOf(error) === 'ER_DUP_ENTRY';
}
