import Joi from 'joi';
import { LABEL_KINDS, PRINT_FORMS, SHEET_COLUMNS } from '../print';
import { named, usually } from './kinds';
import { peopleGroup } from './groups';
import { id, name, pageSchema, purpose } from './common';

/** What can come of a call where no campaign gives its stages; with one, they stand behind these. */
export const CALL_OUTCOMES = ['no answer', 'call again', 'talked'] as const;

/** After these somebody is to be called once more: they were not reached, or had no time. */
export const CALL_AGAIN: readonly string[] = ['no answer', 'call again'];

/** Body: a list of calls made of a group, frozen in its order. */
export const makeCallList = Joi.object({
  name: name.required(),
  group: peopleGroup,
  campaignId: id.allow(null).default(null).meta(usually(null)),
  script: Joi.string().trim().max(4000).allow('').default('').meta(usually('')),
  purpose: purpose.default('appeals'),
});

/** Query: the people of a list of calls, all of them or whoever is still to be called. */
export const callPeople = Joi.object({
  ...pageSchema,
  after: Joi.number().integer().min(0).default(0).meta(usually(0)),
  who: Joi.string().valid('all', 'may', 'open', 'again').default('all'),
});
/**
 * Everybody on the list, those who may be called, those of them not called yet, or to be called once more.
 */
export type CallWho = 'all' | 'may' | 'open' | 'again';
/** Address of one person on a list: the list's id, and the position in it. */
export const callParams = Joi.object({ id: id.required(), position: id.required() });
const outcome = Joi.string().trim().min(1).max(60).allow(null).required();
const note = Joi.string().trim().max(4000).allow('');
/** Body: what came of a call, with a note and whether they want no more. */
export const answerCall = Joi.object({
  outcome,
  note: note.default('').meta(usually('')),
  /** As it was shown when the call was begun: two may call through one list. */
  was: Joi.object({ outcome, note: note.required() }).required(),
  /** They do not want to be called: kept in the ledger, for this number. */
  noMoreCalls: Joi.boolean().default(false),
});
/** Body: what is printed of whom. */
/** What can be printed of a group, with what each kind of sheet needs to know. */
export const printAct = named(
  'PrintAct',
  Joi.object({
    do: Joi.string().valid('print').required(),
    form: Joi.string()
      .valid(...PRINT_FORMS)
      .required(),
    paper: Joi.string().valid('A4', 'LETTER').default('LETTER'),
    title: Joi.string().trim().max(120).allow('').default('').meta(usually('')),
    purpose: purpose.default('appeals'),
    columns: Joi.array()
      .items(Joi.alternatives().try(id, Joi.string().valid(...SHEET_COLUMNS)))
      .max(8)
      .default([]),
    noteLines: Joi.number().integer().min(0).max(6).default(1),
    labels: Joi.string()
      .valid(...LABEL_KINDS)
      .default('letter-30'),
    used: Joi.number().integer().min(0).max(29).default(0).meta(usually(0)),
    together: Joi.boolean().default(true),
    callListId: id.allow(null).default(null).meta(usually(null)),
  }),
);
