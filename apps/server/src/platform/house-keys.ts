import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { CONFIG, type Config } from './config';
import { Database } from './database';
import { addressHash } from './tokens';
import { unwrap, wrap } from './wrapping';

const USE = 'house keys';

export type Hasher = (kind: string, normal: string) => string;

/**
 * The key of the hashes by which do-not-contact knows addresses. It can never change, since the addresses are
 * gone; the secret can. So it lies in the database, wrapped by the secret (AES-256-GCM, NIST SP 800-38D), and
 * is wrapped anew when the secret is another: a start with SECRET and SECRET_BEFORE is all that changing it
 * takes.
 */
@Injectable()
export class HouseKeys implements OnApplicationBootstrap {
  private known: Promise<string> | null = null;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Read before anything needs it; where the database is away just then, when it is needed. */
  async onApplicationBootstrap(): Promise<void> {
    await this.hasher().catch(() => undefined);
  }

  /** Hashes addresses for do-not-contact: 64 hex digits. Throws where the secret is not this database's. */
  async hasher(): Promise<Hasher> {
    this.known ??= this.read().catch((error: unknown) => {
      this.known = null;
      throw error;
    });
    const key = await this.known;
    return (kind, normal) => addressHash(key, kind, normal);
  }

  private async read(): Promise<string> {
    const keys = this.database.unscoped();
    const find = async () =>
      (await keys('house_key').where('name', 'addresses').first('wrapped')) as
        { wrapped: string } | undefined;
    let row = await find();
    if (!row) {
      // Of several processes that begin together, the first one's stays. Before there was such a key the
      // secret itself was it.
      const wrapped = wrap(this.config.SECRET, this.config.SECRET, USE);
      await keys('house_key').insert({ name: 'addresses', wrapped }).onConflict('name').ignore();
      row = (await find())!;
    }
    const open = unwrap(row.wrapped, this.config.SECRET, USE);
    if (open !== null) return open;
    const before = this.config.SECRET_BEFORE ? unwrap(row.wrapped, this.config.SECRET_BEFORE, USE) : null;
    if (before === null) throw new Error(WRONG_SECRET);
    await keys('house_key')
      .where({ name: 'addresses', wrapped: row.wrapped })
      .update({ wrapped: wrap(before, this.config.SECRET, USE) });
    return before;
  }
}

export const WRONG_SECRET =
  'SECRET is not the one that this database was begun with. Give that one, or name it as SECRET_BEFORE: without it nobody on do-not-contact is known any more.';
