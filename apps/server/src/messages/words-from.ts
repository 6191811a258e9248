import type { MakeMessageBody } from '@goodword/core/contract';
import type { AskRule, KeptWords, WrittenWords } from '@goodword/core/letter';
import type { Channel } from '@goodword/core/permission';
import { maySeeTemplate, type TemplateReader } from '@goodword/core/templates';
import { starterOf } from '@goodword/core/words';
import { Invalid, NotFound } from '../platform/errors';
import type { Bound, Scoped } from '../platform/scoped';
import { sentence } from '../platform/words';
import type { TemplateRow, TemplatesRepository } from './templates.repository';

/** Whoever asks for a template, as the core's rights know them. */
export const readerOf = (db: Scoped): TemplateReader => ({ id: db.scope.actorId, role: db.scope.role });

export const ownershipOf = (row: TemplateRow) => ({ ownerId: row.owner_id, isTeam: row.is_team === 1 });

/** A template that the caller may see; for others it is not there. */
export async function seenTemplate(
  db: Scoped,
  templates: TemplatesRepository,
  id: number,
): Promise<TemplateRow> {
  const row = await templates.need(db, id);
  if (!maySeeTemplate(ownershipOf(row), readerOf(db))) throw new NotFound('template');
  return row;
}

/** Words as the columns of a message or a template hold them. */
export const wordColumns = ({ subject, preheader, letter, text }: WrittenWords) => ({
  subject,
  preheader,
  letter: letter === null ? null : JSON.stringify(letter),
  body: text,
});

/** In which language words are written, and what they ask for; null for what is usual. */
export interface WordManner {
  locale: string | null;
  ask: AskRule | null;
  plainly: boolean | number;
}

export const NO_MANNER: WordManner = { locale: null, ask: null, plainly: false };

/** Likewise as columns. */
export const mannerColumns = ({ locale, ask, plainly }: WordManner) => ({
  locale,
  plainly: plainly ? 1 : 0,
  ask: ask === null ? null : JSON.stringify(ask),
});

/** Words as a version of them is kept, without what else is known of the thing. */
export const keptWords = ({
  subject,
  preheader,
  letter,
  text,
  locale,
  ask,
  plainly,
}: Omit<KeptWords, 'plainly'> & { plainly: boolean | number }): KeptWords => ({
  plainly: Boolean(plainly),
  subject,
  preheader,
  letter,
  text,
  locale,
  ask,
});

/** The words of a starter for a channel; refuses one that there is none of. */
export function starterWords(key: string, channel: Channel): WrittenWords {
  const words = starterOf(key)?.words[channel];
  if (!words)
    throw new Invalid([{ field: 'from', code: 'starter', message: sentence('template.no-starter') }]);
  return words;
}

/** What a new message begins with: a template's words with its public list, or a starter's. */
export async function wordsFrom(
  tx: Scoped,
  templates: TemplatesRepository,
  from: NonNullable<MakeMessageBody['from']>,
  channel: Channel,
): Promise<Record<string, Bound>> {
  if ('starter' in from) return wordColumns(starterWords(from.starter, channel));
  const template = await seenTemplate(tx, templates, from.templateId);
  if (template.channel !== channel) {
    const message = sentence('message.from-other-channel', { name: template.name });
    throw new Invalid([{ field: 'from', code: 'channel', message }]);
  }
  return {
    ...wordColumns({ ...template, text: template.body }),
    ...mannerColumns(template),
    template_id: template.id,
    template_version: template.version,
    ...(template.list_id === null ? {} : { list_id: template.list_id, purpose: null }),
  };
}
