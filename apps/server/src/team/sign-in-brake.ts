import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { isIPv4 } from 'node:net';
import { Inject, Injectable } from '@nestjs/common';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { rowsOf } from '../platform/scoped';
import { TooMany } from '../platform/errors';
import { sentence } from '../platform/words';

/** Misses that cost nothing: people mistype. Many people share a network. */
const FREE = { account: 3, network: 20 };
/** Who may wait at once; more are told to come back. */
const WAITING = { account: 20, network: 10 };
const LONGEST_MS = 10_000;
const FORGET_MS = 3_600_000;

interface Key {
  name: string;
  of: 'account' | 'network';
}

/**
 * Slows guessing down, per account and per network: tries at one key come one after the other, each waiting
 * longer the more went wrong within the hour. Nobody is locked out by others' guesses: a browser that has
 * signed in to the account before is known by a cookie and is counted by itself (OWASP, "Slow Down Online
 * Guessing Attacks with Device Cookies"), and a forgotten password is changed by mail however many guess.
 */
@Injectable()
export class SignInBrake {
  private readonly queues = new Map<string, { tail: Promise<unknown>; waiting: number }>();

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Makes the try when it is its turn. `attempt` answers whether it was right, or null where it was not. */
  async try<T>(
    who: { email: string; network: string; known: string | undefined },
    attempt: () => Promise<T | null>,
  ): Promise<T | null> {
    const keys = this.keysOf(who);
    for (const key of keys)
      if ((this.queues.get(key.name)?.waiting ?? 0) >= WAITING[key.of])
        throw new TooMany(sentence('access.many-tries'));
    return this.inTurn(keys, async () => {
      const wait = this.delayOf(keys, await this.failures(keys));
      if (wait > 0) await new Promise((done) => setTimeout(done, wait));
      const result = await attempt();
      await (result === null ? this.missed(keys) : this.met(keys));
      return result;
    });
  }

  /** What a browser is given to be known by at its next sign-in to the account. */
  deviceFor(email: string): string {
    const nonce = randomBytes(16).toString('base64url');
    return `${nonce}.${this.seal(email, nonce)}`;
  }

  async sweep(): Promise<void> {
    await rowsOf(this.database.unscoped(), 'sign_in_failure')
      .where('last_at', '<', new Date(Date.now() - FORGET_MS))
      .delete();
  }

  private keysOf({
    email,
    network,
    known,
  }: {
    email: string;
    network: string;
    known: string | undefined;
  }): Key[] {
    if (known && this.isDevice(email, known)) return [{ name: `device:${known}`, of: 'account' }];
    return [
      { name: `account:${email}`, of: 'account' },
      { name: `network:${networkOf(network)}`, of: 'network' },
    ];
  }

  private isDevice(email: string, cookie: string): boolean {
    const [nonce = '', seal = ''] = cookie.split('.');
    const right = Buffer.from(this.seal(email, nonce));
    const given = Buffer.from(seal);
    return right.length === given.length && timingSafeEqual(right, given);
  }

  private seal(email: string, nonce: string): string {
    return createHmac('sha256', this.config.SECRET).update(`device:${nonce}:${email}`).digest('base64url');
  }

  /**
   * One after the other at every key; always queued in the same order, so that no two wait for each other.
   */
  private async inTurn<T>(keys: readonly Key[], work: () => Promise<T>): Promise<T> {
    const [key, ...others] = keys;
    if (!key) return work();
    const queue = this.queues.get(key.name) ?? { tail: Promise.resolve(), waiting: 0 };
    this.queues.set(key.name, queue);
    queue.waiting += 1;
    const turn = queue.tail.then(() => this.inTurn(others, work));
    queue.tail = turn.catch(() => undefined);
    try {
      return await turn;
    } finally {
      queue.waiting -= 1;
      if (queue.waiting === 0) this.queues.delete(key.name);
    }
  }

  private async failures(keys: readonly Key[]): Promise<Map<string, number>> {
    const rows = await rowsOf(this.database.unscoped(), 'sign_in_failure')
      .whereIn('key_hash', keys.map(hashOf))
      .where('last_at', '>', new Date(Date.now() - FORGET_MS))
      .select('key_hash', 'failures');
    return new Map(rows.map((row) => [row.key_hash, row.failures]));
  }

  /** Milliseconds: none for the first misses, then twice as long with each, up to ten seconds. */
  private delayOf(keys: readonly Key[], failures: Map<string, number>): number {
    const beyond = Math.max(...keys.map((key) => (failures.get(hashOf(key)) ?? 0) - FREE[key.of]));
    return beyond < 0 ? 0 : Math.min(this.config.SIGN_IN_DELAY_MS * 2 ** Math.min(beyond, 20), LONGEST_MS);
  }

  private async missed(keys: readonly Key[]): Promise<void> {
    for (const key of keys)
      await this.database.unscoped().raw(
        `INSERT INTO sign_in_failure (key_hash, failures, last_at) VALUES (:key, 1, :now)
            ON DUPLICATE KEY UPDATE failures = IF(last_at < :old, 1, failures + 1), last_at = :now`,
        { key: hashOf(key), now: new Date(), old: new Date(Date.now() - FORGET_MS) },
      );
  }

  /** Whoever gets in is no guesser; others of their network may be. */
  private async met(keys: readonly Key[]): Promise<void> {
    const own = keys.filter((key) => key.of === 'account').map(hashOf);
    await rowsOf(this.database.unscoped(), 'sign_in_failure').whereIn('key_hash', own).delete();
  }
}

const hashOf = ({ name }: Key) => createHash('sha256').update(name).digest('hex');

/**
 * The network of an address: the first 24 bits of IPv4, the first 64 of IPv6, which one subscriber holds (RFC
 * 6177 §2).
 */
export function networkOf(address: string): string {
  const plain = address.replace(/^::ffff:(?=\d+\.)/i, '');
  if (isIPv4(plain)) return plain.split('.').slice(0, 3).join('.');
  const [head = '', tail = ''] = plain.split('%')[0]!.split('::');
  const before = head.split(':').filter(Boolean);
  const after = plain.includes('::') ? tail.split(':').filter(Boolean) : [];
  const full = [
    ...before,
    ...Array<string>(Math.max(0, 8 - before.length - after.length)).fill('0'),
    ...after,
  ];
  return full
    .slice(0, 4)
    .map((group) => group.toLowerCase().replace(/^0+(?=.)/, ''))
    .join(':');
}
