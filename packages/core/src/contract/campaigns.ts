import Joi from 'joi';
import { CAMPAIGN_KINDS } from '../campaigns';
import { named } from './kinds';
import { basedOn, id, name, pageSchema } from './common';

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
