import { Inject, Injectable } from '@nestjs/common';
import type { WordVersion } from '@goodword/core/contract';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { MessagesRepository } from './messages.repository';
import { TemplatesRepository } from './templates.repository';
import { WordVersionsRepository, type WordsOf } from './word-versions.repository';
import { seenTemplate } from './words-from';

/** What a message or a template said before, for whoever may see it. */
@Injectable()
export class WordVersionsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(TemplatesRepository) private readonly templates: TemplatesRepository,
    @Inject(WordVersionsRepository) private readonly versions: WordVersionsRepository,
  ) {}

  async of(scope: AccessScope, thing: WordsOf): Promise<WordVersion[]> {
    const db = this.database.read(scope);
    if (thing.of === 'message') await this.messages.need(db, thing.id);
    else await seenTemplate(db, this.templates, thing.id);
    return (await this.versions.all(db, thing)).map((row) => ({
      version: row.version,
      by: row.name,
      at: row.changed_at.toISOString(),
      words: row.words,
    }));
  }
}
