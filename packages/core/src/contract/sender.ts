import Joi from 'joi';
import { NUMBER_KINDS, REGISTRATIONS } from '../delivery';

/** Body: what kind of number texts come from, how it is registered, and how many texts it takes a second. */
export const saveTextNumber = Joi.object({
  kind: Joi.string()
    .valid(...NUMBER_KINDS)
    .allow(null)
    .required(),
  registration: Joi.string()
    .valid(...REGISTRATIONS)
    .allow(null)
    .required(),
  perSecond: Joi.number().integer().min(1).max(1000).allow(null).required(),
});
