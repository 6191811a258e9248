import Joi from 'joi';
import { CAMPAIGN_KINDS, type CampaignKind } from '../campaigns';
import { basedOn, id, name, pageSchema } from './common';

const stage = Joi.string().trim().min(1).max(60);

/** A campaign as it is made: its name, kind, code and stages, the first of which people begin at. */
export interface MakeCampaign {
  name: string;
  kind: CampaignKind;
  appealCode: string | null;
  stages: string[];
}

const campaign = {
  name: name.required(),
  kind: Joi.string()
    .valid(...CAMPAIGN_KINDS)
    .required(),
  appealCode: Joi.string().trim().max(60).allow(null).required(),
  stages: Joi.array().items(stage).unique().min(1).max(20).required(),
};
/** Body: a new campaign. */
export const makeCampaign = Joi.object<MakeCampaign>(campaign);
/** Body: a campaign changed; `renamed` tells which stage is which, so that people keep theirs. */
export const changeCampaign = Joi.object({
  ...campaign,
  isOpen: Joi.boolean().required(),
  renamed: Joi.object().pattern(stage, stage).default({}),
  basedOn: basedOn.required(),
});

/** People by their ids, or everybody in a group. */
export type RosterGroup = { ids: number[] } | { kind: 'list' | 'tag' | 'segment' | 'batch'; id: number };
const group = Joi.alternatives().try(
  Joi.object({ ids: Joi.array().items(id).min(1).max(10_000).required() }),
  Joi.object({ kind: Joi.string().valid('list', 'tag', 'segment', 'batch').required(), id: id.required() }),
);
/** Body: a group put on the roster at a stage, or moved there. */
export const rosterPut = Joi.object({ group: group.required(), stage: stage.required() });
/** Body: a group taken off the roster. */
export const rosterOff = Joi.object({ group: group.required() });
/** Query: a page of the roster, of one stage or of all. */
export const rosterQuery = Joi.object({ ...pageSchema, stage });

/** A campaign with how many people are at each of its stages. */
export interface CampaignView {
  id: number;
  version: number;
  name: string;
  kind: CampaignKind;
  appealCode: string | null;
  stages: string[];
  isOpen: boolean;
  madeAt: string;
  madeBy: string;
  people: number;
  /** People at each stage. */
  counts: Record<string, number>;
}

/** One person on a roster: the stage, since when, and who put them there. */
export interface RosterRow {
  supporterId: number;
  firstName: string;
  lastName: string;
  stage: string;
  putAt: string;
  by: string;
}
