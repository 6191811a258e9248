import { Injectable } from '@nestjs/common';
import type { KeptWords } from '@goodword/core/letter';
import type { Scoped } from '../platform/scoped';
import type { Tables } from '../platform/tables/generated';

export interface WordVersionRow extends Pick<Tables['words_version'], 'id' | 'version' | 'changed_at'> {
  words: KeptWords;
  changed_by: number | null;
  /** What whoever wrote it is called; null where they are gone or it was the program. */
  name: string | null;
}

/** Whose words: a message's or a template's. */
export interface WordsOf {
  of: 'message' | 'template';
  id: number;
}

/** What one person saves within so many minutes is one version: words are saved as they are typed. */
const ONE_SITTING_MINUTES = 10;
/** So many are kept of one thing; the oldest go. */
const MOST = 100;

/** What messages and templates said before. Owns `words_version`. */
@Injectable()
export class WordVersionsRepository {
  /** At most a hundred, the newest first. */
  async all(db: Scoped, { of, id }: WordsOf): Promise<WordVersionRow[]> {
    return db.sql<WordVersionRow>(
      `SELECT v.id, v.version, v.words, v.changed_by, v.changed_at, t.name
        FROM words_version v
        LEFT JOIN teammate t ON t.organization_id = :org AND t.id = v.changed_by
        WHERE v.organization_id = :org AND v.of = :of AND v.of_id = :id
        ORDER BY v.id DESC
        LIMIT ${MOST}`,
      { of, id },
    );
  }

  /**
   * Keeps what is saved now. What the same person saved last goes into the same version, unless they paused.
   * The first time, what was there before is kept too.
   */
  async keep(
    tx: Scoped,
    thing: WordsOf,
    before: { version: number; words: KeptWords; by: number | null },
    now: { version: number; words: KeptWords },
  ): Promise<void> {
    const { actorId } = tx.scope;
    const [last] = await tx.sql<{ id: number; changed_by: number | null; is_fresh: 0 | 1 }>(
      `SELECT id, changed_by,
          changed_at > UTC_TIMESTAMP(3) - INTERVAL ${ONE_SITTING_MINUTES} MINUTE AS is_fresh
        FROM words_version
        WHERE organization_id = :org AND of = :of AND of_id = :id
        ORDER BY id DESC
        LIMIT 1`,
      { of: thing.of, id: thing.id },
    );
    if (!last) await this.insert(tx, thing, before.version, before.words, before.by);
    if (last && last.changed_by === actorId && Number(last.is_fresh) === 1) {
      const values = { version: now.version, words: JSON.stringify(now.words), changed_at: new Date() };
      await tx.table('words_version').where('words_version.id', last.id).update(values);
    } else {
      await this.insert(tx, thing, now.version, now.words, actorId);
      await this.forgetOldest(tx, thing);
    }
  }

  private async forgetOldest(tx: Scoped, { of, id }: WordsOf): Promise<void> {
    const [oldest] = await tx.sql<{ id: number }>(
      `SELECT id
        FROM words_version
        WHERE organization_id = :org AND of = :of AND of_id = :id
        ORDER BY id DESC
        LIMIT 1 OFFSET ${MOST - 1}`,
      { of, id },
    );
    if (!oldest) return;
    await tx
      .table('words_version')
      .where({ of, of_id: id })
      .where('words_version.id', '<', oldest.id)
      .delete();
  }

  async remove(tx: Scoped, { of, id }: WordsOf): Promise<void> {
    await tx.table('words_version').where({ of, of_id: id }).delete();
  }

  private async insert(
    tx: Scoped,
    { of, id }: WordsOf,
    version: number,
    words: KeptWords,
    by: number | null,
  ): Promise<void> {
    await tx.insert('words_version', {
      of,
      of_id: id,
      version,
      words: JSON.stringify(words),
      changed_by: by,
      changed_at: new Date(),
    });
  }
}
