import { createHash, randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { Role } from '@goodword/core/contract';
import type { CallerSession } from './api';
import { CONFIG, type Config } from './config';
import { Database } from './database';
import { rowsOf } from './scoped';
import type { AccessScope } from './scope';

const DAYS = 14;
const HOUR_MS = 3_600_000;
/** A session is marked as used once in so long, not with every request. */
const MARK_MS = 60_000;

interface SessionRow {
  token_hash: string;
  csrf: string;
  organization_id: number;
  teammate_id: number;
  chapter_id: number | null;
  own_chapters: number[] | null;
  role: Role;
  seen_at: Date;
}

/** Where a session was begun: the caller's address and what browser it says it is. */
export interface ClientPlace {
  network: string;
  browser: string;
}

export interface OpenSession {
  id: number;
  network: string;
  browser: string;
  created_at: Date;
  seen_at: Date;
  token_hash: string;
}

/**
 * Sessions of teammates: the cookie holds a random token, the database only its hash. One ends after some
 * hours without a request, and after two weeks in any case.
 */
@Injectable()
export class Sessions {
  private readonly idleMs: number;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) config: Config,
  ) {
    this.idleMs = config.SESSION_IDLE_HOURS * HOUR_MS;
  }

  async open(teammate: { id: number; organizationId: number }, place: ClientPlace): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    const knex = this.database.unscoped();
    // Whoever is bound to chapters begins in the first, and stays there when others are opened.
    const first = rowsOf(knex, 'teammate')
      .where('id', teammate.id)
      .select(knex.raw("JSON_VALUE(chapter_ids, '$[0]')"));
    await rowsOf(knex, 'session').insert({
      token_hash: hash(token),
      organization_id: teammate.organizationId,
      teammate_id: teammate.id,
      chapter_id: first,
      csrf: randomBytes(32).toString('base64url'),
      expires_at: new Date(Date.now() + DAYS * 24 * HOUR_MS),
      seen_at: new Date(),
      network: place.network.slice(0, 45),
      browser: place.browser.slice(0, 200),
    });
    return token;
  }

  async find(token: string | undefined): Promise<CallerSession | null> {
    if (!token) return null;
    const row = await rowsOf(this.database.unscoped(), 'session')
      .join('teammate', 'teammate.id', 'session.teammate_id')
      .where('session.token_hash', hash(token))
      .where('session.expires_at', '>', new Date())
      .where('session.seen_at', '>', new Date(Date.now() - this.idleMs))
      .whereNull('teammate.left_at')
      .first<SessionRow | undefined>(
        'session.token_hash',
        'session.csrf',
        'session.organization_id',
        'session.teammate_id',
        'session.chapter_id',
        'session.seen_at',
        'teammate.role',
        'teammate.chapter_ids as own_chapters',
      );
    if (!row) return null;
    if (Date.now() - row.seen_at.getTime() > MARK_MS)
      await rowsOf(this.database.unscoped(), 'session')
        .where('token_hash', row.token_hash)
        .update({ seen_at: new Date() });
    const scope = {
      organizationId: row.organization_id,
      actorId: row.teammate_id,
      role: row.role,
      ...clientPlaceOf(row.own_chapters, row.chapter_id),
    };
    return { tokenHash: row.token_hash, csrf: row.csrf, teammateId: row.teammate_id, scope };
  }

  async chooseChapter(tokenHash: string, chapterId: number | null): Promise<void> {
    await rowsOf(this.database.unscoped(), 'session')
      .where('token_hash', tokenHash)
      .update({ chapter_id: chapterId });
  }

  async close(tokenHash: string): Promise<void> {
    await rowsOf(this.database.unscoped(), 'session').where('token_hash', tokenHash).delete();
  }

  /** A teammate's sessions that have not ended, the last used first. */
  async of(teammateId: number): Promise<OpenSession[]> {
    return await rowsOf(this.database.unscoped(), 'session')
      .where('teammate_id', teammateId)
      .where('expires_at', '>', new Date())
      .where('seen_at', '>', new Date(Date.now() - this.idleMs))
      .orderBy('seen_at', 'desc')
      .select('id', 'network', 'browser', 'created_at', 'seen_at', 'token_hash');
  }

  /** Ends one of a teammate's sessions; false where there is none such. */
  async end(teammateId: number, id: number): Promise<boolean> {
    return (
      (await rowsOf(this.database.unscoped(), 'session').where({ id, teammate_id: teammateId }).delete()) > 0
    );
  }

  /** Ends all of a teammate's sessions, but for the one that is named. */
  async endAll(teammateId: number, except: string | null = null): Promise<void> {
    const all = rowsOf(this.database.unscoped(), 'session').where('teammate_id', teammateId);
    await (except === null ? all : all.whereNot('token_hash', except)).delete();
  }

  /** Takes away what has ended. */
  async sweep(): Promise<void> {
    await rowsOf(this.database.unscoped(), 'session')
      .where('expires_at', '<', new Date())
      .orWhere('seen_at', '<', new Date(Date.now() - this.idleMs))
      .delete();
  }
}

/**
 * Where a request works: a teammate bound to chapters never sees beyond them, whatever the session says, and
 * works in one at a time, the first until another is chosen; in none (0) where none is named.
 */
export function clientPlaceOf(
  own: readonly number[] | null,
  chosen: number | null,
): Pick<AccessScope, 'chapterId' | 'boundTo'> {
  if (own === null) return { chapterId: chosen, boundTo: null };
  const chapterId = own.find((id) => id === chosen) ?? own[0] ?? 0;
  return { chapterId, boundTo: chapterId };
}

function hash(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
