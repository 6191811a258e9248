import Joi from 'joi';
import { channel, id, line, name, purpose, version } from './common';
import { orNull, usually } from './kinds';
import { starterKey, typedAsk, typedLetter, typedLocale } from './messages';

/** Where templates lie; none where it is empty. */
const folder = line.trim().max(60).allow('');

/** Words as they were typed; a script is longer than a text may be. */
const words = {
  subject: Joi.string().trim().max(200).allow('').required(),
  preheader: Joi.string().trim().max(200).allow('').required(),
  letter: orNull(typedLetter).required(),
  text: Joi.string().max(4000).allow('').required(),
};

/** What a template is called, where it lies, what for and when. */
const about = {
  name: name.required(),
  folder: folder.required(),
  purpose: purpose.allow(null).required(),
  listId: id.allow(null).required(),
  note: Joi.string().trim().max(500).allow('').required(),
};

const eitherPurposeOrList = (schema: Joi.ObjectSchema) =>
  schema
    .custom((value: { purpose: unknown; listId: unknown }, helpers) =>
      (value.purpose === null) === (value.listId === null) ? helpers.error('any.invalid') : value,
    )
    .messages({ 'any.invalid': 'A template has either a purpose or a public list.' });

/** Body: a new template, and the words that it begins with; blank where nothing is said. */
export const makeTemplate = eitherPurposeOrList(
  Joi.object({
    ...about,
    channel: channel.required(),
    from: Joi.alternatives()
      .try(
        Joi.object({ starter: starterKey }),
        Joi.object({ messageId: id.required() }),
        Joi.object({ templateId: id.required() }),
        Joi.object(words),
      )
      .optional(),
  }),
);

/** Body: a template as it was changed, with the version that it was begun from. */
export const saveTemplate = eitherPurposeOrList(
  Joi.object({
    ...about,
    ...words,
    locale: orNull(typedLocale).optional(),
    ask: orNull(typedAsk).optional(),
    plainly: Joi.boolean().optional(),
    basedOn: version,
  }),
);

const standing = { isTeam: Joi.boolean().required(), archived: Joi.boolean().required() };
/** Body: whether it is the team's, and whether it is put away; and what it was when that was chosen. */
export const standTemplate = Joi.object({ ...standing, was: Joi.object(standing).required() });

/** Query: templates by words in their name, folder and text. */
export const templatesQuery = Joi.object({
  search: Joi.string().trim().max(120).allow('').default('').meta(usually('')),
  channel: channel.optional(),
  archived: Joi.boolean().default(false),
});
