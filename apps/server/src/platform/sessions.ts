import { createHash, randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { Role } from '@goodword/core/contract';
import type { Session } from './api';
import { Database } from './database';

const DAYS = 14;

interface SessionRow {
  token_hash: string;
  csrf: string;
  organization_id: number;
  teammate_id: number;
  chapter_id: number | null;
  own_chapter: number | null;
  role: Role;
}

/** Sessions of teammates: the cookie holds a random token, the database only its hash. */
@Injectable()
export class Sessions {
  constructor(@Inject(Database) private readonly database: Database) {}

  async open(teammate: { id: number; organizationId: number; chapterId: number | null }): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    await this.database
      .unscoped()('session')
      .insert({
        token_hash: hash(token),
        organization_id: teammate.organizationId,
        teammate_id: teammate.id,
        chapter_id: teammate.chapterId,
        csrf: randomBytes(32).toString('base64url'),
        expires_at: new Date(Date.now() + DAYS * 86_400_000),
      });
    return token;
  }

  async find(token: string | undefined): Promise<Session | null> {
    if (!token) return null;
    const row = (await this.database
      .unscoped()('session')
      .join('teammate', 'teammate.id', 'session.teammate_id')
      .where('session.token_hash', hash(token))
      .where('session.expires_at', '>', new Date())
      .first('session.*', 'teammate.role', 'teammate.chapter_id as own_chapter')) as SessionRow | undefined;
    if (!row) return null;
    // A teammate bound to a chapter never sees beyond it, whatever the session says.
    const chapterId = row.own_chapter ?? row.chapter_id;
    const scope = { organizationId: row.organization_id, chapterId, actorId: row.teammate_id, role: row.role };
    return { tokenHash: row.token_hash, csrf: row.csrf, teammateId: row.teammate_id, scope };
  }

  async chooseChapter(tokenHash: string, chapterId: number | null): Promise<void> {
    await this.database.unscoped()('session').where('token_hash', tokenHash).update({ chapter_id: chapterId });
  }

  async close(tokenHash: string): Promise<void> {
    await this.database.unscoped()('session').where('token_hash', tokenHash).delete();
  }
}

function hash(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
