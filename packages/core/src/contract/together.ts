import Joi from 'joi';
import { GO_ACTS } from '../team';
import { id, version } from './common';
import { usually } from './kinds';

/** Body: what is done with a draft that somebody else should read, and of which version of its words. */
export const goOn = Joi.object({
  do: Joi.string()
    .valid(...GO_ACTS)
    .required(),
  note: Joi.string().trim().max(500).allow('').default('').meta(usually('')),
  version,
});

const body = Joi.string().trim().min(1).max(2000).required();
/** Body: a note to a place in a message, named by the words that it is about; or an answer to one. */
export const makeWordNote = Joi.object({
  quote: Joi.string().trim().max(300).allow('').default('').meta(usually('')),
  answersId: id.allow(null).default(null).meta(usually(null)),
  body,
});

/** Address of one note of a message. */
export const wordNoteParams = Joi.object({ id: id.required(), noteId: id.required() });

/** Body: whether a note is settled. */
export const settleWordNote = Joi.object({ settled: Joi.boolean().required() });
