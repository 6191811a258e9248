import Joi from 'joi';
import { LETTER_FORMS } from '../print';
import { id, isoDaySchema } from './common';

/** The kinds of files that letters come in: to print, and their addresses for a print house. */
export const LETTER_FILES = ['pdf', 'csv'] as const;

/** Body: the form in which letters are laid out anew. */
export const makeLetters = Joi.object({
  form: Joi.string()
    .valid(...LETTER_FORMS)
    .required(),
});

/** Body: the day on which letters were posted. */
export const postedLetters = Joi.object({ on: isoDaySchema.required() });

/** Address of one file of a message's letters. */
export const letterFileParams = Joi.object({ id: id.required(), fileId: id.required() });

/** Query: whose letter is looked at; that of nobody in particular without one. */
export const letterPageQuery = Joi.object({
  supporterId: id,
  form: Joi.string().valid(...LETTER_FORMS),
});
