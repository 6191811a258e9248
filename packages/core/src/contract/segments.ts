import Joi from 'joi';
import { STATES } from '../permission';
import { FIELD_OPS, linesOf, isGroup, STANDARD_FIELDS, TREE_LIMITS, type Rule } from '../segment';
import { id, isoDay, name, page, scope, sendingChannel } from './common';

const value = Joi.alternatives().try(Joi.number(), Joi.string().max(200).allow(''));
const window = Joi.alternatives().try(
  Joi.object({ over: Joi.string().valid('ever', 'this-year', 'last-year', 'earlier-years').required() }),
  Joi.object({ over: Joi.string().valid('last-days').required(), days: Joi.number().integer().min(1).max(36500).required() }),
);

const line = Joi.alternatives().try(
  Joi.object({
    kind: Joi.string().valid('field').required(),
    field: Joi.alternatives()
      .try(id, Joi.string().valid(...STANDARD_FIELDS))
      .required(),
    op: Joi.string()
      .valid(...FIELD_OPS)
      .required(),
    value,
    to: value,
  }),
  Joi.object({ kind: Joi.string().valid('tag').required(), tagId: id.required(), has: Joi.boolean().required() }),
  Joi.object({ kind: Joi.string().valid('list').required(), listId: id.required(), on: Joi.boolean().required() }),
  Joi.object({ kind: Joi.string().valid('batch').required(), batchId: id.required(), in: Joi.boolean().required() }),
  Joi.object({
    kind: Joi.string().valid('permission').required(),
    channel: sendingChannel.required(),
    scope: scope.required(),
    states: Joi.array()
      .items(Joi.string().valid(...STATES))
      .min(1)
      .required(),
  }),
  Joi.object({
    kind: Joi.string().valid('may').required(),
    channel: sendingChannel.required(),
    scope: scope.required(),
    may: Joi.boolean().required(),
  }),
  Joi.object({
    kind: Joi.string().valid('lapses').required(),
    channel: sendingChannel.required(),
    scope: scope.required(),
    days: Joi.number().integer().min(1).max(3650).required(),
  }),
  Joi.object({
    kind: Joi.string().valid('gave').required(),
    did: Joi.boolean().required(),
    atLeast: Joi.number().integer().min(1).allow(null).required(),
    window: window.required(),
  }),
);

const group = Joi.object({
  kind: Joi.string().valid('all', 'any', 'none').required(),
  rules: Joi.array()
    .items(Joi.link('#rule').meta({ swagger: { type: 'object', description: 'A rule again: a line or a group' }, swaggerOverride: true }))
    .required(),
});

function depth(rule: Rule): number {
  return isGroup(rule) ? 1 + Math.max(0, ...rule.rules.map(depth)) : 0;
}

export const ruleTree = Joi.alternatives()
  .try(group, line)
  .id('rule')
  .custom((rule: Rule, helpers) => {
    if (depth(rule) > TREE_LIMITS.depth || linesOf(rule).length > TREE_LIMITS.lines) return helpers.error('any.invalid');
    return rule;
  });

export const countSegment = Joi.object({ tree: ruleTree.required() });
export const segmentPeople = Joi.object({ tree: ruleTree.required(), ...page });
export const saveSegment = Joi.object({ name: name.required(), tree: ruleTree.required() });
export const explainParams = Joi.object({ id: id.required(), supporterId: id.required() });
export { isoDay };

export interface SegmentCount {
  everybody: number;
  total: number;
  steps: { words: string; alone: number; left: number }[];
  reach: { email: number; text: number; neither: number };
}

export interface SegmentView {
  id: number;
  name: string;
  tree: Rule;
  words: string;
  usedBy: { id: number; name: string }[];
}
