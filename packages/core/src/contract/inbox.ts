import Joi from 'joi';
import { usually } from './kinds';
import { id } from './common';

/** What stands in a thread: what came from them, what we wrote, what a teammate noted. */
export const THREAD_ITEMS = ['in', 'out', 'note'] as const;

/** Query: threads, by how they stand, and by words of who wrote them or what they said. */
export const threadsQuery = Joi.object({
  view: Joi.string().valid('open', 'mine', 'aside', 'done').default('open'),
  q: Joi.string().trim().max(100).allow('').default('').meta(usually('')),
});
/** Params: a file that came with a reply. */
export const replyFileParams = Joi.object({ id: id.required(), fileId: id.required() });
/** Body: whether a reply, and what came before it from the same person, is done. */
export const handled = Joi.object({ handled: Joi.boolean().required() });
/** Body: until when a thread is put aside; null takes it up again. */
export const putAside = Joi.object({ until: Joi.string().isoDate().allow(null).required() });
/** Body: the teammate whose a thread is to answer; null for nobody. */
export const assignThread = Joi.object({ to: id.allow(null).required() });
