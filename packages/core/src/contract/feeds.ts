import Joi from 'joi';
import { FEED_CLOCK } from '../feeds';
import { FILE_LIMITS, MATCH_KEYS, NO_CLOSES } from '../intake';
import { basedOn, id, name, scope } from './common';
import { columnChoice } from './intake';
import { ofCore, orNull } from './kinds';

/** Kinds of systems that a feed takes from. */
export const SOURCE_KINDS = ['desk', 'address'] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];

/** How a run of a feed stands. */
export const RUN_STATES = [
  'reading',
  'checking',
  'bringing',
  'done',
  'nothing',
  'tried',
  'held',
  'failed',
  'stopped',
  'taken-out',
] as const;
export type RunState = (typeof RUN_STATES)[number];

/** What set a run going. */
export const RUN_CAUSES = ['clock', 'hand', 'hook', 'trial'] as const;
export type RunCause = (typeof RUN_CAUSES)[number];

const minute = Joi.number().integer().min(0).max(1439).required();
const upTo = (most: number) => Joi.number().integer().min(1).max(most).required();

/** How often a feed looks by the clock. */
export const every = ofCore(
  'Every',
  'feeds',
  Joi.alternatives().try(
    Joi.object({ unit: Joi.string().valid('minutes').required(), n: upTo(FEED_CLOCK.minutes) }),
    Joi.object({ unit: Joi.string().valid('hours').required(), n: upTo(FEED_CLOCK.hours) }),
    Joi.object({ unit: Joi.string().valid('days').required(), n: upTo(FEED_CLOCK.days), at: minute }),
    Joi.object({
      unit: Joi.string().valid('weekdays').required(),
      days: Joi.array().items(Joi.number().integer().min(1).max(7)).min(1).unique().required(),
      at: minute,
    }),
  ),
);

const permission = Joi.alternatives().try(
  Joi.object({ said: Joi.string().valid('nothing').required() }),
  Joi.object({
    said: Joi.string().valid('yes').required(),
    from: Joi.string().valid('everyone', 'column').required(),
    scopes: Joi.array().items(scope).max(20).required(),
    words: Joi.string().trim().allow('').max(1000).required(),
    voucher: Joi.string().trim().allow('').max(120).required(),
  }),
);

const there = Joi.object({
  key: Joi.string().trim().min(1).max(100).required(),
  name: Joi.string().trim().min(1).max(200).required(),
});

/** Everything that a feed says; half of it may be missing. */
export const feedPlan = ofCore(
  'FeedPlan',
  'feeds',
  Joi.object({
    take: orNull(
      Joi.object({
        type: there.required(),
        filter: there.allow(null).required(),
      }),
    ).required(),
    columns: Joi.array()
      .items(Joi.object({ name: Joi.string().max(200).required(), choice: columnChoice.required() }))
      .unique('name')
      .max(FILE_LIMITS.columns - 1)
      .required(),
    key: Joi.string().max(200).allow(null).required(),
    matching: Joi.array()
      .items(Joi.string().valid(...MATCH_KEYS))
      .unique()
      .required(),
    existing: Joi.string().valid('update', 'fill', 'leave').required(),
    listIds: Joi.array().items(id).max(50).unique().required(),
    tagIds: Joi.array().items(id).max(50).unique().required(),
    roster: orNull(
      Joi.object({ campaignId: id.required(), stage: Joi.string().trim().min(1).max(60).required() }),
    ).required(),
    permission: orNull(Joi.object({ email: permission.required(), text: permission.required() })).required(),
    no: Joi.string()
      .valid(...NO_CLOSES)
      .required(),
    gone: Joi.alternatives()
      .try(
        Joi.object({ do: Joi.string().valid('stay').required() }),
        Joi.object({ do: Joi.string().valid('leave').required() }),
        Joi.object({ do: Joi.string().valid('tag').required(), tagId: id.required() }),
      )
      .required(),
    tell: Joi.boolean().required(),
    when: Joi.object({
      atOnce: Joi.boolean().required(),
      every: orNull(every).required(),
      zone: Joi.string().max(60).allow(null).required(),
    }).required(),
  }),
);

const url = Joi.string()
  .uri({ scheme: ['http', 'https'] })
  .max(500);
const token = Joi.string().trim().max(500);

/** Body: a system that feeds take from. */
export const makeFeedSource = Joi.object({
  name: name.required(),
  kind: Joi.string()
    .valid(...SOURCE_KINDS)
    .required(),
  url: url.required(),
  /** Kept encrypted, and never told again. */
  token: token.allow('').required(),
});
/** Body: a system as it is now; without a token the one of before stays. */
export const saveFeedSource = Joi.object({
  name: name.required(),
  url: url.required(),
  token: token.allow(''),
  basedOn: basedOn.required(),
});

/** Body: a new feed, of which nothing but its source is said. */
export const makeFeed = Joi.object({ name: name.required(), sourceId: id.required() });
/** Body: what it says now. */
export const saveFeed = Joi.object({
  name: name.required(),
  plan: feedPlan.required(),
  basedOn: basedOn.required(),
});
/** Body: turned on or off as it was seen. */
export const turnFeed = Joi.object({ basedOn: basedOn.required() });
/** Body: one run of it; a trial writes nothing. */
export const runFeed = Joi.object({
  trial: Joi.boolean().default(false),
  /** Whoever asks has seen how far from usual it is. */
  anyway: Joi.boolean().default(false),
});
/** Query: what is over there of a type, and of a filter. */
export const feedSample = Joi.object({
  type: Joi.string().trim().min(1).max(100).required(),
  filter: Joi.string().trim().max(100).allow('').default(''),
});
/** Address of one run. */
export const runParams = Joi.object({ id: id.required(), runId: id.required() });
/** Address that a source tells of changes at. */
export const feedHookParams = Joi.object({
  key: Joi.string()
    .pattern(/^[0-9a-f]{32}$/)
    .required(),
});
