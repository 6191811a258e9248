import Joi from 'joi';
import { CAUSE_LIMITS, GIFT_WHICH, SERIES_LIMITS, WAIT_UNITS, type CauseKind } from '../automations';
import { FALL_CAUSES } from '../campaigns';
import { basedOn, channel, id, name, pageSchema, scope, sendingChannel } from './common';
import { ofCore, orNull } from './kinds';
import { messageFrom } from './messages';
import { ruleTree } from './segments';

const days = (least: number) => Joi.number().integer().min(least).max(CAUSE_LIMITS.days).required();

/** What each kind of cause says beside its kind. */
const CAUSE_PARTS: Record<CauseKind, Record<string, Joi.Schema>> = {
  list: { listId: id.required() },
  form: { formId: id.required() },
  gift: {
    which: Joi.string()
      .valid(...GIFT_WHICH)
      .required(),
    atLeast: Joi.number().integer().min(1).max(1e13).allow(null).required(),
  },
  tag: { tagId: id.required(), by: id.allow(null).required() },
  date: { fieldId: id.required(), days: days(-CAUSE_LIMITS.days), yearly: Joi.boolean().required() },
  lapses: { channel: channel.required(), scope: scope.required(), days: days(1) },
  stage: { campaignId: id.required(), stage: Joi.string().trim().min(1).max(60).required() },
  quiet: { months: Joi.number().integer().min(1).max(CAUSE_LIMITS.months).required() },
  keyword: {
    word: Joi.string()
      .trim()
      .pattern(/^[A-Za-z0-9]+$/)
      .max(CAUSE_LIMITS.word)
      .required(),
  },
  click: { messageId: id.required() },
};

/** What sets an automatic message going. */
export const cause = ofCore(
  'Cause',
  'automations',
  Joi.alternatives().try(
    ...Object.entries(CAUSE_PARTS).map(([kind, parts]) =>
      Joi.object({ kind: Joi.string().valid(kind).required(), ...parts }),
    ),
  ),
);

/** How long after the cause, or the message before, one leaves. */
export const wait = ofCore(
  'Wait',
  'automations',
  Joi.object({
    n: Joi.number().integer().min(0).max(SERIES_LIMITS.wait).required(),
    unit: Joi.string()
      .valid(...WAIT_UNITS)
      .required(),
    at: Joi.number().integer().min(0).max(1439).allow(null).required(),
  }),
);

const automation = {
  name: name.required(),
  cause: cause.required(),
  again: Joi.boolean().required(),
  stops: Joi.array()
    .items(Joi.string().valid(...FALL_CAUSES))
    .unique()
    .required(),
  unless: orNull(ruleTree).required(),
};
/** Body: a new automatic message, without its words. */
export const makeAutomation = Joi.object({ name: name.required(), cause: cause.required() });
/** Body: what it says of when it leaves, and to whom it does not. */
export const saveAutomation = Joi.object({ ...automation, basedOn: basedOn.required() });
/** Body: one message more of it, with a draft of its own. */
export const addAutomationStep = Joi.object({
  name: name.required(),
  channel: sendingChannel.required(),
  wait: wait.required(),
  from: messageFrom.optional(),
});
/** Body: how long one of its messages waits. */
export const changeAutomationStep = Joi.object({ wait: wait.required(), basedOn: basedOn.required() });
/** Body: based on which of its versions something is done to it. */
export const onAutomation = Joi.object({ basedOn: basedOn.required() });

const lookBack = Joi.number().integer().min(0).max(CAUSE_LIMITS.days);
/** Query: from how many days ago what happened would be taken up. */
export const automationLookQuery = Joi.object({ days: lookBack.default(0) });
/** Body: switched on, with so many of whom it happened to since so many days ago. */
export const switchOn = Joi.object({
  basedOn: basedOn.required(),
  days: lookBack.required(),
  people: Joi.number().integer().min(0).required(),
});

/** How it stands with somebody in an automatic message. */
export const VISIT_STATES = ['waiting', 'held', 'done', 'ended'] as const;
export type VisitState = (typeof VISIT_STATES)[number];
/** Query: a page of the people of one state. */
export const visitsQuery = Joi.object({
  ...pageSchema,
  state: Joi.string()
    .valid(...VISIT_STATES)
    .required(),
});
/** Body: those of whom something is said who wait. */
export const someVisits = Joi.object({ ids: Joi.array().items(id).min(1).max(1000).unique().required() });
/** Body: all who wait for a look, as many as were seen. */
export const heldVisits = Joi.object({ people: Joi.number().integer().min(1).required() });
