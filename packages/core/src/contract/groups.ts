import Joi from 'joi';
import type { Rule } from '../segment';
import { id } from './common';
import { ruleTree } from './segments';

/** People by their ids, or everybody whom a rule takes in at the moment of asking, less some. */
export type PeopleGroup = { ids: number[] } | { tree: Rule; without: number[] };

/** A group that comes as ids is one that somebody ticked. */
export const peopleGroup = Joi.alternatives()
  .try(
    Joi.object({ ids: Joi.array().items(id).unique().min(1).max(10_000).required() }),
    Joi.object({ tree: ruleTree.required(), without: Joi.array().items(id).max(10_000).default([]) }),
  )
  .required();
