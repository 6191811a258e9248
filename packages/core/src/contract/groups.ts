import Joi from 'joi';
import { named } from './kinds';
import { id } from './common';
import { ruleTree } from './segments';

/** A group that comes as ids is one that somebody ticked. */
export const peopleGroup = named(
  'PeopleGroup',
  Joi.alternatives().try(
    Joi.object({ ids: Joi.array().items(id).unique().min(1).max(10_000).required() }),
    Joi.object({ tree: ruleTree.required(), without: Joi.array().items(id).max(10_000).default([]) }),
  ),
).required();
