import Joi from 'joi';
import type { Rule } from '../segment';
import { basedOn, id, isoDaySchema, pageSchema, scope, sendingChannel } from './common';
import { printAct, type PrintAct } from './calls';
import { peopleGroup } from './groups';
import { ruleTree } from './segments';

/** What a download of many people can be. */
export const EXPORT_FORMS = ['csv', 'xlsx', 'vcard', 'json'] as const;
export type ExportForm = (typeof EXPORT_FORMS)[number];

/** What is done to everybody in a group. */
export type BulkAct =
  | { do: 'tag'; tagId: number; on: boolean }
  | { do: 'list'; listId: number; on: boolean }
  | { do: 'roster'; campaignId: number; stage: string | null }
  | { do: 'field'; fieldId: number; text: string }
  | {
      do: 'permission';
      channel: 'email' | 'text';
      scopes: string[];
      how: string;
      on: string;
      words: string;
      voucher: string;
    }
  | { do: 'export'; form: ExportForm; fields: number[] }
  | PrintAct
  | { do: 'erase' };

const act = Joi.alternatives().try(
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
);

/** Body: an act, and the group that it goes to as it is now. */
export const beginBulk = Joi.object({ group: peopleGroup, act: act.required() });

/** How far an act on many has come; `undone` also of one that was undone in part. */
export const BULK_STATES = ['waiting', 'running', 'done', 'stopped', 'undoing', 'undone', 'failed'] as const;
export type BulkState = (typeof BULK_STATES)[number];

/** An act on many as it is shown: how far it is, what it came to, and whether it can be undone. */
export interface BulkView {
  id: number;
  /** What it does, as a sentence: "Put the tag plank menders on 4,793 people". */
  words: string;
  state: BulkState;
  people: number;
  /** How many it has come to so far. */
  done: number;
  /** How many of them were changed; the others were so already. */
  changed: number;
  by: string;
  madeAt: string;
  endedAt: string | null;
  canUndo: boolean;
  /** A download waits. */
  file: string | null;
  problem: string | null;
  /** What there is to say of those who were left out: "3 people are not on it: no street on file (3)." */
  told: string;
}

/** A few letters of a name, the beginning of an email, or last digits of a number. */
export const finderQuery = Joi.object({ text: Joi.string().trim().min(2).max(100).required() });

/** One thing that the finder found, with where it stands. */
export interface FinderHit {
  kind: 'supporter' | 'list' | 'tag' | 'segment' | 'campaign' | 'message';
  id: number;
  name: string;
  note: string;
}

/** A table of people: what is shown of them, in which order, of whom. */
export interface PeopleColumns {
  fields: number[];
  by: string | number;
  descending: boolean;
}

const by = Joi.alternatives().try(
  id,
  Joi.string().valid(
    'name',
    'created',
    'updated',
    'country',
    'region',
    'postcode',
    'externalId',
    'household',
  ),
);
/** Body: whom a table shows, in which columns and order, from where on. */
export const listPeople = Joi.object({
  tree: ruleTree.required(),
  by: by.default('name'),
  descending: Joi.boolean().default(false),
  fields: Joi.array().items(id).max(20).default([]),
  ...pageSchema,
});

/** A table kept under a name: who is in it, its columns and order. */
export interface PeopleView extends PeopleColumns {
  id: number;
  version: number;
  name: string;
  tree: Rule;
  madeBy: string;
}

/** Body: a view of the table, new or over the one of that name. */
export const savePeopleView = Joi.object({
  name: Joi.string().trim().min(1).max(120).required(),
  tree: ruleTree.required(),
  by: by.required(),
  descending: Joi.boolean().required(),
  fields: Joi.array().items(id).max(20).required(),
  /** The version of the one of that name that is replaced; null where there is to be none yet. */
  basedOn: basedOn.allow(null).required(),
});
