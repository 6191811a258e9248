import Joi from 'joi';
import { ASK_BASES, type AskRule } from '../letter';
import { SUPPRESSION_REASONS } from '../permission';
import { MOST_SPREAD_HOURS } from '../schedule';
import { KEPT_LIMITS } from '../wordings';
import { isLocale } from '../team';
import { ofCore, oneOf, orNull, shape, usually } from './kinds';
import { peopleGroup } from './groups';
import { id, line, name, pageSchema, purpose, loneChannel, version } from './common';

/** Where a message stands, from draft to done. */
export const MESSAGE_STATES = [
  'draft',
  'scheduled',
  'preparing',
  'posting',
  'calling',
  'standing',
  'sending',
  'paused',
  'stopped',
  'done',
] as const;
export type MessageState = (typeof MESSAGE_STATES)[number];

/** States of what is set going and not over: it waits, leaves, is posted or called through, or is paused. */
export const GOING_STATES = [
  'scheduled',
  'preparing',
  'posting',
  'calling',
  'sending',
  'paused',
] as const satisfies readonly MessageState[];

/** What recipients can be taken from. */
export const GROUP_KINDS = ['segment', 'list', 'tag', 'batch', 'campaign', 'message', 'person'] as const;
export type GroupKind = (typeof GROUP_KINDS)[number];

/**
 * Whom of an earlier message: who got it, and what they did with it or did not. That they opened it is too
 * unsure.
 */
export const MESSAGE_GROUPS = ['got', 'clicked', 'not-clicked', 'replied', 'not-replied'] as const;
export type MessageGroup = (typeof MESSAGE_GROUPS)[number];

/** Most people who may be named one by one. */
export const MOST_CHOSEN = 10_000;

/** A group by its kind and id; of a campaign one stage, of a message what somebody did with it. */
export const groupRef = shape('GroupRef', {
  kind: Joi.string()
    .valid(...GROUP_KINDS)
    .required(),
  id: id.required(),
  /** Of a campaign's roster: at this stage alone. */
  stage: Joi.string().trim().max(60).when('kind', { is: 'campaign', otherwise: Joi.forbidden() }).optional(),
  /** Of a message: who did this; who got it where nothing is said. */
  did: Joi.string()
    .valid(...MESSAGE_GROUPS)
    .when('kind', { is: 'message', otherwise: Joi.forbidden() })
    .optional(),
});

/** What became of deliveries, as counted and opened. */
export const RESULT_KINDS = [
  'sent',
  'delivered',
  'bounced',
  'opened',
  'clicked',
  'replied',
  'left',
  'door',
  'unsure',
  'failed',
  'waiting',
  'kept',
  'suppressed',
] as const;
export type ResultKind = (typeof RESULT_KINDS)[number];

/** The key of one of the starters that ship with the program. */
export const starterKey = Joi.string()
  .pattern(/^[a-z-]{1,40}$/)
  .required();

/** Where the words of a new message come from; a blank sheet where nothing is said. */
export const messageFrom = Joi.alternatives().try(
  Joi.object({ templateId: id.required() }),
  Joi.object({ starter: starterKey }),
);

/** A message to a group that one looks at: begun with who gets it. */
export const beginTo = Joi.object({
  from: messageFrom.optional(),
  name: name.required(),
  channel: loneChannel.required(),
  purpose: purpose.required(),
  to: Joi.alternatives()
    .try(
      Joi.object({ ref: groupRef.required() }),
      Joi.object({ group: peopleGroup }),
      Joi.object({
        result: Joi.object({
          messageId: id.required(),
          kind: Joi.string()
            .valid(...RESULT_KINDS)
            .required(),
        }).required(),
      }),
    )
    .required(),
});
/** Body: a new message; a channel and a purpose, the words from a template or later. */
export const makeMessage = Joi.object({
  from: messageFrom.optional(),
  name: name.required(),
  channel: loneChannel.required(),
  purpose: purpose.required(),
});

/** A letter as it was typed: what is wrong in it is told by the letter's own reading. */
export const typedLetter = ofCore('LetterDoc', 'letter', Joi.object().unknown());
/** An amount in hundredths of the currency. */
const amount = Joi.number().integer().min(100).max(100_000_000).required();
const share = Joi.number().min(0.01).max(20).required();

/** How amounts are asked for: three rising shares of a gift within bounds, or three amounts of one's own. */
export const typedAsk = ofCore(
  'AskRule',
  'letter',
  Joi.object({
    shares: Joi.array().ordered(share, share, share).length(3).required(),
    of: Joi.string()
      .valid(...ASK_BASES)
      .required(),
    months: Joi.number().integer().min(1).max(600).allow(null).required(),
    friendly: Joi.boolean().required(),
    least: amount,
    most: amount,
    otherwise: Joi.array().ordered(amount, amount, amount).length(3).required(),
  })
    .custom((value: AskRule, helpers) =>
      value.least <= value.most && rises(value.shares) && rises(value.otherwise)
        ? value
        : helpers.error('any.invalid'),
    )
    .messages({
      'any.invalid': 'Amounts rise from the first to the third, and the least is not above the most.',
    }),
);

const rises = ([first, second, third]: readonly number[]) => first! < second! && second! < third!;

/** Body: the rule whose amounts are to be seen. */
export const tryAsk = Joi.object({ ask: typedAsk.required() });

/** A language with a country (BCP 47) that dates and amounts can be written for. */
export const typedLocale = Joi.string().custom((value: string, helpers) =>
  isLocale(value) ? value : helpers.error('any.invalid'),
);

/** Body: the words of a draft, with the version that they were begun from. */
export const saveMessage = Joi.object({
  name: name.required(),
  purpose: purpose.allow(null).required(),
  listId: id.allow(null).required(),
  subject: Joi.string().trim().max(200).allow('').required(),
  preheader: Joi.string().trim().max(200).allow('').required(),
  letter: orNull(typedLetter).required(),
  text: Joi.string().max(2000).allow('').required(),
  locale: orNull(typedLocale).optional(),
  ask: orNull(typedAsk).optional(),
  /** Of a text: values written in the letters that cost least. */
  plainly: Joi.boolean().optional(),
  /** The teammate as whom it goes out; whoever it was where nothing is said. */
  senderId: id.allow(null),
  /** The version of the words that were being changed. */
  basedOn: version,
})
  .custom((value: { purpose: unknown; listId: unknown }, helpers) =>
    (value.purpose === null) === (value.listId === null) ? helpers.error('any.invalid') : value,
  )
  .messages({ 'any.invalid': 'A message has either a purpose or a public list.' });

/** Body: from whom, without whom, and who was left out by hand. */
export const saveRecipients = Joi.object({
  from: Joi.array().items(groupRef).max(50).required(),
  minus: Joi.array().items(groupRef).max(50).required(),
  chosen: Joi.array().items(id).unique().max(MOST_CHOSEN).default([]),
  without: Joi.array().items(id).max(5000).required(),
  /** By post: one letter each, also to people of one household. */
  apart: Joi.boolean(),
  /** The version of the group that was being changed. */
  basedOn: version,
});

/** What somebody can do with a message to get a tag for it. That they opened it is too unsure. */
export const TAG_TRIGGER_EVENTS = ['clicked', 'replied'] as const;
export type TagTriggerEvent = (typeof TAG_TRIGGER_EVENTS)[number];

/** Whoever does this with the message gets the tag. */
export const tagTrigger = shape('TagTrigger', { on: oneOf(TAG_TRIGGER_EVENTS), tagId: id });
const tagTriggers = Joi.array().items(tagTrigger).unique().max(6).required();
/** Body: what puts which tag on, and what it was before, so that of two who save the second is told. */
export const saveTagTriggers = Joi.object({
  tagTriggers,
  was: tagTriggers,
});

const imageWords = {
  name: line.trim().min(1).max(200).required(),
  alt: Joi.string().trim().max(300).allow('').required(),
  folder: line.trim().max(60).allow('').required(),
};
/** Body: what a picture is called, what is on it and where it lies; and what it was when that was begun. */
export const changeImage = Joi.object({ ...imageWords, was: Joi.object(imageWords).required() });

/** Address of a picture of the library in one of its sizes. */
export const mediaParams = Joi.object({
  id: id.required(),
  width: Joi.number().integer().multiple(100).min(100).max(1200).required(),
});

/** Query: the message as one person will get it; nobody in particular without an id. */
export const previewQuery = Joi.object({ supporterId: id });
/** Query: whom a message can be read as, by parts of a name. */
export const readersQuery = Joi.object({
  search: Joi.string().trim().max(120).allow('').default('').meta(usually('')),
});
/** Body: whom a test is filled for, and the list whose people get it; to oneself without one. */
export const sendTest = Joi.object({
  asId: id.allow(null).default(null).meta(usually(null)),
  listId: id.allow(null).default(null).meta(usually(null)),
});
/** Body: the last look that one agrees to. */
export const agreeToLook = Joi.object({ digest: Joi.string().hex().length(64).required() });
/** Query: when a message is to leave, and whether by the clock of each; left out: now. */
export const aheadQuery = Joi.object({
  at: Joi.string().isoDate(),
  ownTime: Joi.boolean().default(false),
  spreadHours: Joi.number().integer().min(1).max(MOST_SPREAD_HOURS),
});
/** Query: when a time of the house's clock comes to people where they are. */
export const ownTimesQuery = Joi.object({ at: Joi.string().isoDate().required() });
/**
 * `digest` is that of the last look that was seen; with `ownTime` each gets it when their own clock shows
 * what the house's shows at `at`.
 */
export const sendMessage = Joi.object({
  at: Joi.string().isoDate().allow(null).default(null).meta(usually(null)),
  ownTime: Joi.boolean().default(false).meta(usually(false)),
  spreadHours: Joi.number()
    .integer()
    .min(1)
    .max(MOST_SPREAD_HOURS)
    .allow(null)
    .default(null)
    .meta(usually(null)),
  /** Of a hundred so many are kept without it, by lot. */
  keptShare: Joi.number()
    .integer()
    .min(KEPT_LIMITS.least)
    .max(KEPT_LIMITS.most)
    .allow(null)
    .default(null)
    .meta(usually(null)),
  digest: Joi.string().hex().length(64).required(),
});
/** Query: a page of those of one verdict at the last look. */
export const suppressedQuery = Joi.object({
  ...pageSchema,
  verdict: Joi.string()
    .valid('send', ...SUPPRESSION_REASONS)
    .required(),
});

/** Query: a page of the people behind one number of a result. */
export const resultPeople = Joi.object({
  ...pageSchema,
  kind: Joi.string()
    .valid(...RESULT_KINDS)
    .required(),
});
/** Body: what became of deliveries of which nobody knows. */
export const settle = Joi.object({ as: Joi.string().valid('sent', 'again').required() });
