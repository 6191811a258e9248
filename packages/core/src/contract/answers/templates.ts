import { CHANNELS, PURPOSES } from '../../permission';
import { flag, listOf, number, oneOf, orNull, part, shape, text, told } from '../kinds';
import { askRule, letterDoc } from './letter';

const about = {
  id: number,
  name: text,
  folder: told('Where it lies; empty for none.', text),
  channel: oneOf(CHANNELS),
  purpose: orNull(oneOf(PURPOSES)),
  listId: orNull(number),
  note: told('When to use it.', text),
  isTeam: told("An organizer said that it is the team's.", flag),
  isOwn: told('The caller made it.', flag),
  owner: told('Whose it is; null where they are gone.', orNull(text)),
  uses: told('How many messages came from it.', number),
  archived: flag,
  updatedAt: text,
};

/** A template in a list: what it is called, what it is for, how it begins. */
export const templateLine = shape('TemplateLine', {
  ...about,
  beginning: told('The first words of it.', text),
});

/** Words of a message or a template. */
export const writtenWords = shape('Words', {
  subject: text,
  preheader: text,
  letter: orNull(letterDoc),
  text,
});

/** What a message or a template said at one time, and who wrote it. */
export const wordVersion = shape('WordVersion', {
  version: number,
  by: told('Who wrote it; null where they are gone.', orNull(text)),
  at: text,
  words: part({
    subject: text,
    preheader: text,
    letter: orNull(letterDoc),
    text,
    locale: orNull(text),
    ask: orNull(askRule),
    plainly: flag,
  }),
});

/** A template with its words. */
export const templateShown = shape('TemplateView', {
  ...about,
  subject: text,
  preheader: text,
  letter: orNull(letterDoc),
  text,
  locale: orNull(text),
  ask: orNull(askRule),
  plainly: flag,
  mayChange: told('Whether the caller may change, archive or delete it.', flag),
  version: told('Named by whoever saves: of two who save from one version the second is told.', number),
});

/** What was made of a template: drafts and planned ones by name, and how many have gone. */
export const templateUses = shape('TemplateUses', {
  open: listOf(shape('TemplateUse', { id: number, name: text })),
  gone: told('Messages that have left.', number),
});

/** Words to begin with that ship with the program. */
export const starterShown = shape('StarterView', {
  key: text,
  name: text,
  note: text,
  purpose: oneOf(PURPOSES),
  words: listOf(part({ channel: oneOf(CHANNELS), words: writtenWords })),
});
