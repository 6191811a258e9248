import Joi from 'joi';
import { PEOPLE_ORDERS } from '../segment';
import { basedOn, id, isoDaySchema, pageSchema, scope, sendingChannel } from './common';
import { printAct } from './calls';
import { named } from './kinds';
import { peopleGroup } from './groups';
import { ruleTree } from './segments';

/** What a download of many people can be. */
export const EXPORT_FORMS = ['csv', 'xlsx', 'vcard', 'json'] as const;
export type ExportForm = (typeof EXPORT_FORMS)[number];

/** What is done to many. */
const bulkAct = named(
  'BulkAct',
  Joi.alternatives().try(
    Joi.object({
      do: Joi.string().valid('tag').required(),
      tagId: id.required(),
      on: Joi.boolean().required(),
    }),
    Joi.object({
      do: Joi.string().valid('list').required(),
      listId: id.required(),
      on: Joi.boolean().required(),
    }),
    Joi.object({
      do: Joi.string().valid('roster').required(),
      campaignId: id.required(),
      stage: Joi.string().trim().max(60).allow(null).required(),
    }),
    Joi.object({
      do: Joi.string().valid('field').required(),
      fieldId: id.required(),
      text: Joi.string().max(4000).allow('').required(),
    }),
    Joi.object({
      do: Joi.string().valid('permission').required(),
      channel: sendingChannel.required(),
      scopes: Joi.array().items(scope).min(1).max(20).required(),
      how: Joi.string().valid('paper', 'phone', 'in-person', 'form').required(),
      on: isoDaySchema.required(),
      words: Joi.string().trim().min(3).max(1000).required(),
      voucher: Joi.string().trim().min(1).max(120).required(),
    }),
    Joi.object({
      do: Joi.string().valid('export').required(),
      form: Joi.string()
        .valid(...EXPORT_FORMS)
        .required(),
      fields: Joi.array().items(id).max(100).default([]),
    }),
    printAct,
    Joi.object({ do: Joi.string().valid('erase').required() }),
  ),
);

/** Body: an act, and the group that it goes to as it is now. */
export const beginBulk = Joi.object({ group: peopleGroup, act: bulkAct.required() });

/** How far an act on many has come; `undone` also of one that was undone in part. */
export const BULK_STATES = ['waiting', 'running', 'done', 'stopped', 'undoing', 'undone', 'failed'] as const;
export type BulkState = (typeof BULK_STATES)[number];

/** A few letters of a name, the beginning of an email, or last digits of a number. */
export const finderQuery = Joi.object({ text: Joi.string().trim().min(2).max(100).required() });

/** The order of a table: something of each person, or a field by its id. */
export const peopleOrder = Joi.alternatives().try(id, Joi.string().valid(...PEOPLE_ORDERS));
/** Body: whom a table shows, in which columns and order, from where on. */
export const listPeople = Joi.object({
  tree: ruleTree.required(),
  by: peopleOrder.default('name'),
  descending: Joi.boolean().default(false),
  fields: Joi.array().items(id).max(20).default([]),
  ...pageSchema,
});

/** Body: a view of the table, new or over the one of that name. */
export const savePeopleView = Joi.object({
  name: Joi.string().trim().min(1).max(120).required(),
  tree: ruleTree.required(),
  by: peopleOrder.required(),
  descending: Joi.boolean().required(),
  fields: Joi.array().items(id).max(20).required(),
  /** The version of the one of that name that is replaced; null where there is to be none yet. */
  basedOn: basedOn.allow(null).required(),
});
