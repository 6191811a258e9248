import Joi from 'joi';
import { isoDaySchema } from './common';
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

const most = Joi.number().integer().min(1).max(10_000_000);

/** Body: how much mail the provider takes, and how a new domain is made known. */
export const saveMailLimits = Joi.object({
  perHour: most.allow(null).required(),
  perDay: most.allow(null).required(),
  warmUp: Joi.object({
    from: isoDaySchema.required(),
    amounts: Joi.array().items(Joi.number().integer().min(0).max(10_000_000)).min(1).max(60).required(),
  })
    .allow(null)
    .required(),
});
