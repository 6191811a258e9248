import { Inject, Injectable } from '@nestjs/common';
import type {
  CheckedWords,
  MakeTemplateBody,
  Preview,
  SaveTemplateBody,
  StandTemplateBody,
  StarterView,
  TemplateLine,
  TemplatesQuery,
  TemplateUses,
  TemplateView,
} from '@goodword/core/contract';
import { NO_WORDS, readableLines, type WrittenWords } from '@goodword/core/letter';
import { CHANNELS } from '@goodword/core/permission';
import { findTemplates, mayChangeTemplate, maySayTeams, maySeeTemplate } from '@goodword/core/templates';
import { STARTERS } from '@goodword/core/words';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Conflict, Forbidden, Newer } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { stillAs } from '../platform/versions';
import { sentence } from '../platform/words';
import { TeamRepository } from '../team/team.repository';
import { ComposingService } from './composing.service';
import { MessagesRepository } from './messages.repository';
import { PreviewService } from './preview.service';
import { PublicListService } from './public-list.service';
import { TemplatesRepository, type TemplateRow } from './templates.repository';
import { LetterCheckService } from './letter-check.service';
import { WordVersionsRepository } from './word-versions.repository';
import {
  keptWords,
  mannerColumns,
  NO_MANNER,
  ownershipOf,
  readerOf,
  seenTemplate,
  starterWords,
  wordColumns,
  type WordManner,
} from './words-from';

/** How much of the words is told in a list, in letters. */
const BEGINNING = 140;

/** Words that are kept and used again: made, found, changed, put away. */
@Injectable()
export class TemplatesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(TemplatesRepository) private readonly templates: TemplatesRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(WordVersionsRepository) private readonly versions: WordVersionsRepository,
    @Inject(PreviewService) private readonly previews: PreviewService,
    @Inject(LetterCheckService) private readonly letters: LetterCheckService,
    @Inject(PublicListService) private readonly publicLists: PublicListService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  /** Those that the caller may see, by words in name, folder and text, most used first. */
  async find(scope: AccessScope, { search, channel, archived }: TemplatesQuery): Promise<TemplateLine[]> {
    const db = this.database.read(scope);
    const [rows, uses] = [await this.templates.all(db), await this.templates.uses(db)];
    const seen = rows.filter(
      (row) =>
        maySeeTemplate(ownershipOf(row), readerOf(db)) &&
        (row.archived_at !== null) === archived &&
        (channel === undefined || row.channel === channel),
    );
    const findable = seen.map((row) => {
      const lines = readableLines({ ...row, text: row.body });
      return {
        row,
        id: row.id,
        name: row.name,
        folder: row.folder,
        words: [row.note, ...lines].join(' '),
        uses: uses.get(row.id) ?? 0,
        beginning: lines.join(' ').slice(0, BEGINNING),
      };
    });
    return findTemplates(findable, search).map(({ row, uses: used, beginning }) => ({
      ...aboutOf(row, db, used),
      beginning,
    }));
  }

  async show(scope: AccessScope, id: number): Promise<TemplateView> {
    const db = this.database.read(scope);
    const row = await seenTemplate(db, this.templates, id);
    const uses = await this.templates.uses(db);
    const { subject, preheader, letter, body, locale, ask, plainly } = row;
    return {
      ...aboutOf(row, db, uses.get(id) ?? 0),
      ...{
        subject,
        preheader,
        letter,
        text: body,
        locale,
        ask,
        plainly: plainly === 1,
        version: row.version,
      },
      mayChange: mayChangeTemplate(ownershipOf(row), readerOf(db)),
    };
  }

  starters(): StarterView[] {
    return STARTERS.map(({ key, name, note, purpose, words }) => ({
      ...{ key, name, note, purpose },
      words: CHANNELS.flatMap((channel) => {
        const own = words[channel];
        return own ? [{ channel, words: own }] : [];
      }),
    }));
  }

  async make(scope: AccessScope, { from, ...about }: MakeTemplateBody): Promise<{ id: number }> {
    return this.database.writeUnlogged(scope, async (tx) => {
      if (about.listId !== null) await this.publicLists.check(tx, about.listId);
      const words = from ? await this.beginning(tx, from, about) : { ...NO_WORDS, ...NO_MANNER };
      await this.letters.check(scope, words.letter);
      const id = await this.templates.make(tx, {
        ...wordColumns(words),
        ...mannerColumns(words),
        name: about.name,
        folder: about.folder,
        channel: about.channel,
        purpose: about.purpose,
        list_id: about.listId,
        note: about.note,
      });
      await audit(tx, 'make', { template: id }, `Template ${about.name} made`);
      return { id };
    });
  }

  /** Saves it; no message that came from it changes. Returns what is wrong with its words. */
  async save(
    scope: AccessScope,
    id: number,
    body: SaveTemplateBody,
  ): Promise<CheckedWords & { version: number }> {
    await this.letters.check(scope, body.letter);
    const version = await this.database.writeUnlogged(scope, async (tx) => {
      const row = await this.changeable(tx, id);
      if (row.archived_at !== null) throw new Conflict(sentence('template.archived', { name: row.name }));
      if (row.version !== body.basedOn)
        throw new Newer('this template', await this.team.nameOf(tx, row.changed_by));
      if (body.listId !== null && body.listId !== row.list_id) await this.publicLists.check(tx, body.listId);
      const now = {
        ...body,
        locale: body.locale ?? null,
        ask: body.ask ?? null,
        plainly: body.plainly ?? false,
      };
      await this.versions.keep(
        tx,
        { of: 'template', id },
        { version: row.version, words: keptWords({ ...row, text: row.body }), by: row.changed_by },
        { version: row.version + 1, words: keptWords(now) },
      );
      return this.templates.revise(tx, row, {
        ...wordColumns(body),
        ...mannerColumns(now),
        name: body.name,
        folder: body.folder,
        purpose: body.purpose,
        list_id: body.listId,
        note: body.note,
      });
    });
    return { version, ...(await this.checked(scope, id)) };
  }

  /** Says that it is the team's or not, puts it away or brings it back. */
  async stand(scope: AccessScope, id: number, { was, ...wanted }: StandTemplateBody): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const row = await this.changeable(tx, id);
      const now = { isTeam: row.is_team === 1, archived: row.archived_at !== null };
      stillAs(was, now, `how ${row.name} stands`);
      if (wanted.isTeam !== now.isTeam && !maySayTeams(readerOf(tx)))
        throw new Forbidden(sentence('template.teams'));
      const archivedAt = wanted.archived ? (row.archived_at ?? new Date()) : null;
      await this.templates.stand(tx, id, { is_team: wanted.isTeam, archived_at: archivedAt });
      const said = wanted.isTeam ? "the team's" : 'of its owner';
      const words = `Template ${row.name} is ${said}${wanted.archived ? ', and archived' : ''}`;
      await audit(tx, 'change', { template: id }, words);
    });
  }

  async remove(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const row = await this.changeable(tx, id);
      await this.templates.remove(tx, id);
      await this.versions.remove(tx, { of: 'template', id });
      await audit(tx, 'delete', { template: id }, `Template ${row.name} deleted`);
    });
  }

  async uses(scope: AccessScope, id: number): Promise<TemplateUses> {
    const db = this.database.read(scope);
    await seenTemplate(db, this.templates, id);
    return this.templates.usesOf(db, id);
  }

  async checked(scope: AccessScope, id: number): Promise<CheckedWords> {
    const row = await seenTemplate(this.database.read(scope), this.templates, id);
    return {
      faults: await this.composing.mergeFaults(scope, row),
      doubts: await this.composing.doubts(scope, row),
    };
  }

  /** As somebody would get it from whoever looks. */
  async preview(scope: AccessScope, id: number, supporterId: number | undefined): Promise<Preview> {
    const row = await seenTemplate(this.database.read(scope), this.templates, id);
    return this.previews.of(scope, row, scope.actorId, supporterId);
  }

  /** The words that a new one begins with. */
  private async beginning(
    tx: Scoped,
    from: NonNullable<MakeTemplateBody['from']>,
    about: Pick<MakeTemplateBody, 'channel'>,
  ): Promise<WrittenWords & WordManner> {
    if ('starter' in from) return { ...starterWords(from.starter, about.channel), ...NO_MANNER };
    if ('messageId' in from) {
      const message = await this.messages.need(tx, from.messageId);
      return { ...message, text: message.body };
    }
    if ('templateId' in from) {
      const template = await seenTemplate(tx, this.templates, from.templateId);
      return { ...template, text: template.body };
    }
    return { ...from, ...NO_MANNER };
  }

  private async changeable(tx: Scoped, id: number): Promise<TemplateRow> {
    await seenTemplate(tx, this.templates, id);
    const row = await this.templates.lock(tx, id);
    if (!mayChangeTemplate(ownershipOf(row), readerOf(tx)))
      throw new Forbidden(sentence('template.not-yours', { name: row.name }));
    return row;
  }
}

function aboutOf(row: TemplateRow, db: Scoped, uses: number) {
  return {
    id: row.id,
    name: row.name,
    folder: row.folder,
    channel: row.channel,
    purpose: row.purpose,
    listId: row.list_id,
    note: row.note,
    isTeam: row.is_team === 1,
    isOwn: row.owner_id !== null && row.owner_id === db.scope.actorId,
    owner: row.owner,
    uses,
    archived: row.archived_at !== null,
    updatedAt: row.updated_at.toISOString(),
  };
}
