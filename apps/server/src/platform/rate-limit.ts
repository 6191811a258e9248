import { createHash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { RateLimiterMemory, RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible';
import { Database } from './database';

/** At most so many acts by one key in a window of time, whichever process they come to. */
export interface RateLimit {
  /** Counts an act; false when it is one too many. */
  pass(key: string): Promise<boolean>;
  /** Whether it has been one too many already, without counting one more. */
  spent(key: string): Promise<boolean>;
  /** Takes one back that was counted and did not happen. */
  undo(key: string): Promise<void>;
}

/**
 * Limits that all HTTP processes count together, in the table `rate_limit`. While the database does not
 * answer each process counts for itself. Keys are kept as hashes: who came is nobody's business an hour
 * later.
 */
@Injectable()
export class RateLimits {
  constructor(@Inject(Database) private readonly database: Database) {}

  /** `name` parts the limits from each other; the window begins with the first act. */
  of(name: string, most: number, windowSeconds: number): RateLimit {
    const knex = this.database.unscoped();
    const bounds = { points: most, duration: windowSeconds, keyPrefix: name };
    const limiter = new RateLimiterMySQL({
      ...bounds,
      storeClient: knex,
      storeType: 'knex',
      dbName: this.database.name,
      tableName: 'rate_limit',
      tableCreated: true,
      // Whoever goes on beyond it is answered without asking the database.
      inMemoryBlockOnConsumed: most + 1,
      insuranceLimiter: new RateLimiterMemory(bounds),
    });
    const hashed = (key: string) => createHash('sha256').update(key).digest('base64url').slice(0, 32);
    return {
      pass: async (key) => {
        try {
          await limiter.consume(hashed(key));
          return true;
        } catch (refusal) {
          if (refusal instanceof RateLimiterRes) return false;
          throw refusal;
        }
      },
      spent: async (key) => ((await limiter.get(hashed(key)))?.consumedPoints ?? 0) > most,
      undo: async (key) => void (await limiter.reward(hashed(key))),
    };
  }
}
