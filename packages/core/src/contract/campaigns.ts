import Joi from 'joi';
import { CAMPAIGN_KINDS, FALL_CAUSES, GOAL_KINDS, STEP_LIMITS } from '../campaigns';
import { named, orNull } from './kinds';
import { basedOn, id, isoDaySchema, channel, name, pageSchema } from './common';
import { messageFrom } from './messages';
import { ruleTree } from './segments';

const stage = Joi.string().trim().min(1).max(60);

const campaign = {
  name: name.required(),
  kind: Joi.string()
    .valid(...CAMPAIGN_KINDS)
    .required(),
  appealCode: Joi.string().trim().max(60).allow(null).required(),
  stages: Joi.array().items(stage).unique().min(1).max(20).required(),
};
/** Body: a new campaign. */
export const makeCampaign = Joi.object(campaign);
/** Body: a campaign changed; `renamed` tells which stage is which, so that people keep theirs. */
export const changeCampaign = Joi.object({
  ...campaign,
  isOpen: Joi.boolean().required(),
  renamed: Joi.object().pattern(stage, stage).default({}),
  basedOn: basedOn.required(),
});

/** Whom: people by id, or a group. */
const group = named(
  'RosterGroup',
  Joi.alternatives().try(
    Joi.object({ ids: Joi.array().items(id).min(1).max(10_000).required() }),
    Joi.object({ kind: Joi.string().valid('list', 'tag', 'segment', 'batch').required(), id: id.required() }),
  ),
);
/** Body: a group put on the roster at a stage, or moved there. */
export const rosterPut = Joi.object({ group: group.required(), stage: stage.required() });
/** Body: a group taken off the roster. */
export const rosterOff = Joi.object({ group: group.required() });
/** Query: a page of the roster, of one stage or of all. */
export const rosterQuery = Joi.object({ ...pageSchema, stage });

/** Body: how a campaign is to go, but for its steps. */
export const savePlan = Joi.object({
  firstDay: isoDaySchema.allow(null).required(),
  goal: Joi.object({
    kind: Joi.string()
      .valid(...GOAL_KINDS)
      .required(),
    amount: Joi.number().integer().min(1).max(1e13).required(),
    by: isoDaySchema.allow(null).required(),
  })
    .allow(null)
    .required(),
  endsFor: Joi.array()
    .items(Joi.string().valid(...FALL_CAUSES))
    .unique()
    .required(),
  endsAt: Joi.array().items(stage).unique().max(20).required(),
  joinsFrom: id.allow(null).required(),
  basedOn: basedOn.required(),
});

const when = {
  day: Joi.number().integer().min(0).max(STEP_LIMITS.days).required(),
  minutes: Joi.number().integer().min(0).max(1439).required(),
  ownTime: Joi.boolean().required(),
};
/** Body: a step added, with a draft of its own. */
export const addStep = Joi.object({
  ...when,
  name: name.required(),
  channel: channel.required(),
  from: messageFrom.optional(),
});
/** Body: when a step leaves, and for whom of the roster. */
export const changeStep = Joi.object({
  ...when,
  rule: orNull(ruleTree).required(),
  basedOn: basedOn.required(),
});
/** Address of a step: its campaign, and its message. */
export const stepParams = Joi.object({ id: id.required(), stepId: id.required() });
/** Query: the person whose path through a campaign is looked at. */
export const pathQuery = Joi.object({ supporterId: id.required() });
/** Body: the looks that were seen, of each step that is set going. */
export const setGoing = Joi.object({
  looks: Joi.array()
    .items(Joi.object({ messageId: id.required(), digest: Joi.string().hex().length(64).required() }))
    .min(1)
    .max(STEP_LIMITS.steps)
    .unique('messageId')
    .required(),
});
