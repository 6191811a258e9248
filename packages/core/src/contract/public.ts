import Joi from 'joi';

/** Address behind a signed token. */
export const tokenParams = Joi.object({ token: Joi.string().max(100).required() });

/** A button of the leave page, or the one body of RFC 8058 §3.2, which means "this". */
export const leaveBody = Joi.object({
  what: Joi.string().valid('this', 'all', 'back').default('this'),
  'List-Unsubscribe': Joi.string().valid('One-Click'),
});

/** What the text gateway posts: an incoming text, or what became of one of ours. Signed over the raw body. */
export const textHook = Joi.alternatives().try(
  Joi.object({
    type: Joi.string().valid('inbound').required(),
    id: Joi.string().max(100).required(),
    from: Joi.string().max(20).required(),
    to: Joi.string().max(20).required(),
    text: Joi.string().max(5000).allow('').required(),
    at: Joi.string().isoDate(),
  }),
  Joi.object({
    type: Joi.string().valid('receipt').required(),
    id: Joi.string().max(100).required(),
    key: Joi.string().max(100).required(),
    status: Joi.string().valid('delivered', 'failed').required(),
    reason: Joi.string().max(200).allow(''),
    code: Joi.string().max(20).allow(''),
  }),
);
