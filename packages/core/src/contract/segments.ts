import Joi from 'joi';
import { STATES } from '../permission';
import { FIELD_OPS } from '../fields';
import {
  GIFT_MEASURES,
  isGroup,
  segmentLines,
  MESSAGE_EVENTS,
  STANDARD_FIELDS,
  STRETCHES,
  TREE_LIMITS,
  UNITS,
  type Line,
  type LineOf,
  type Rule,
} from '../segment';
import { again, ofCore } from './kinds';
import { basedOn, id, isoDaySchema, name, scope, channel } from './common';

const value = Joi.alternatives().try(Joi.number(), Joi.string().max(200).allow(''));
const day = Joi.string().pattern(/^\d{4}-\d{2}-\d{2}$/);
const many = Joi.number().integer().min(1).max(36500);
const window = Joi.alternatives().try(
  Joi.object({
    over: Joi.string()
      .valid('ever', 'earlier-years', ...STRETCHES)
      .required(),
  }),
  Joi.object({
    over: Joi.string().valid('last-days', 'last-weeks', 'last-months').required(),
    days: many.required(),
  }),
  Joi.object({ over: Joi.string().valid('between').required(), from: day.required(), to: day.required() }),
);

/**
 * What each kind of line must be. Which one it is meant to be is said by its kind, so that one is tried and
 * no other.
 */
const LINES: { [K in Line['kind']]: Record<Exclude<keyof LineOf<K>, 'kind'>, Joi.Schema> } = {
  field: {
    field: Joi.alternatives()
      .try(id, Joi.string().valid(...STANDARD_FIELDS))
      .required(),
    op: Joi.string()
      .valid(...FIELD_OPS)
      .required(),
    value,
    to: value,
    unit: Joi.string().valid(...UNITS),
  },
  tag: {
    tagId: id.required(),
    has: Joi.boolean().required(),
  },
  list: {
    listId: id.required(),
    on: Joi.boolean().required(),
  },
  batch: {
    batchId: id.required(),
    in: Joi.boolean().required(),
  },
  permission: {
    channel: channel.required(),
    scope: scope.required(),
    states: Joi.array()
      .items(Joi.string().valid(...STATES))
      .min(1)
      .required(),
  },
  may: {
    channel: channel.required(),
    scope: scope.required(),
    may: Joi.boolean().required(),
  },
  lapses: {
    channel: channel.required(),
    scope: scope.required(),
    days: Joi.number().integer().min(1).max(3650).required(),
  },
  gave: {
    did: Joi.boolean().required(),
    measure: Joi.string().valid(...GIFT_MEASURES),
    atLeast: Joi.number().integer().min(1).allow(null).required(),
    atMost: Joi.number().integer().min(1).allow(null),
    window: window.required(),
  },
  roster: {
    campaignId: id.required(),
    stages: Joi.array().items(Joi.string().max(60)).max(20).required(),
    on: Joi.boolean().required(),
  },
  chapter: {
    chapterId: id.required(),
    in: Joi.boolean().required(),
  },
  message: {
    event: Joi.string()
      .valid(...MESSAGE_EVENTS)
      .required(),
    did: Joi.boolean().required(),
    messageId: id.allow(null).required(),
    atLeast: Joi.number().integer().min(1).max(1000).required(),
    window: window.required(),
  },
  segment: {
    segmentId: id.required(),
    in: Joi.boolean().required(),
  },
};

const lineSchemas = Object.entries(LINES).map(([kind, shape]) =>
  Joi.object({ kind: Joi.string().valid(kind).required(), ...shape }),
);

const group = Joi.object({
  kind: Joi.string().valid('all', 'any', 'none').required(),
  rules: Joi.array().items(again('Rule')).required(),
});

function depth(rule: Rule): number {
  return isGroup(rule) ? 1 + Math.max(0, ...rule.rules.map(depth)) : 0;
}

/** A rule tree. */
export const ruleTree = ofCore(
  'Rule',
  'segment',
  Joi.alternatives()
    .conditional('.kind', {
      switch: [group, ...lineSchemas].map((schema) => ({ is: schema.extract('kind'), then: schema })),
      otherwise: Joi.forbidden(),
    })
    .id('Rule')
    .custom((rule: Rule, helpers) => {
      if (depth(rule) > TREE_LIMITS.depth || segmentLines(rule).length > TREE_LIMITS.lines)
        return helpers.error('any.invalid');
      return rule;
    }),
);

/** Body: a tree to count, and whether to say how many may be reached. */
export const countSegment = Joi.object({ tree: ruleTree.required(), reach: Joi.boolean().default(true) });
/** Body: a new segment. */
export const saveSegment = Joi.object({ name: name.required(), tree: ruleTree.required() });
/** Body: a segment changed, with the version that it was begun from. */
export const changeSegment = saveSegment.keys({ basedOn: basedOn.required() });
/** Address of one person in one segment. */
export const explainParams = Joi.object({ id: id.required(), supporterId: id.required() });
export { isoDaySchema };

/** Body: a list that keeps who is in a segment now. */
export const snapshotSegment = Joi.object({ name: name.required() });
