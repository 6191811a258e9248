import Joi from 'joi';
import type { LabelKind, Paper, PrintForm } from '../print';
import { LABEL_KINDS, PRINT_FORMS, SHEET_COLUMNS } from '../print';
import type { Purpose } from '../permission';
import { peopleGroup, type PeopleGroup } from './groups';
import { id, name, pageSchema, purpose } from './common';

/** What can come of a call where no campaign gives its stages; with one, they stand behind these. */
export const CALL_OUTCOMES = ['no answer', 'call again', 'talked'] as const;

/** After these somebody is to be called once more: they were not reached, or had no time. */
export const CALL_AGAIN: readonly string[] = ['no answer', 'call again'];

/** Whom to call, for what, with what to say; with a campaign its stages are the answers. */
export interface MakeCallList {
  name: string;
  group: PeopleGroup;
  campaignId: number | null;
  /** What to say, with merge fields. */
  script: string;
  purpose: Purpose;
}

/** A list to call through, with how many are called, passed over and left. */
export interface CallListView {
  id: number;
  name: string;
  campaign: { id: number; name: string } | null;
  script: string;
  purpose: Purpose;
  people: number;
  /** Of whom it is known what came of a call, `again` included. */
  called: number;
  /** Who was not reached or had no time, and may be called once more. */
  again: number;
  /** Who may not be called for this, and is passed over. */
  suppressed: number;
  outcomes: { outcome: string; people: number }[];
  /** What can be answered, in the order of the keys 1 to 9. */
  options: string[];
  madeBy: string;
  madeAt: string;
}

/** The hours of somebody's place, in words, and when they begin; null while they last. */
export interface CallHours {
  words: string;
  from: string | null;
}

/** One person of a list of calls: the number that permission chose, its hours, what came of it. */
export interface CallRow {
  /** The number on the printed sheet. */
  position: number;
  supporterId: number;
  name: string;
  /** The number that permission chose; left out while it is no decent hour there. */
  phone: string | null;
  hours: CallHours;
  /** Why this person is not to be called; null where they may be. */
  suppressed: string | null;
  stage: string | null;
  outcome: string | null;
  note: string;
  lastGift: { amount: number; on: string } | null;
  /** The script with this person's values. */
  script: string;
}

/** Body: a list of calls made of a group, frozen in its order. */
export const makeCallList = Joi.object({
  name: name.required(),
  group: peopleGroup,
  campaignId: id.allow(null).default(null),
  script: Joi.string().trim().max(4000).allow('').default(''),
  purpose: purpose.default('appeals'),
});

/** Query: the people of a list of calls, all of them or whoever is still to be called. */
export const callPeople = Joi.object({
  ...pageSchema,
  after: Joi.number().integer().min(0).default(0),
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
  note: note.default(''),
  /** As it was shown when the call was begun: two may call through one list. */
  was: Joi.object({ outcome, note: note.required() }).required(),
  /** They do not want to be called: kept in the ledger, for this number. */
  noMoreCalls: Joi.boolean().default(false),
});
/** What came of one call. */
export interface CallAnswer {
  outcome: string | null;
  note: string;
  was: { outcome: string | null; note: string };
  noMoreCalls: boolean;
}

/** How people are printed. */
export interface PrintAct {
  do: 'print';
  form: PrintForm;
  paper: Paper;
  title: string;
  purpose: Purpose;
  /** What of a person stands on a call or door sheet: names of columns, or numbers of fields. */
  columns: (string | number)[];
  /** Empty lines for notes under each person. */
  noteLines: number;
  labels: LabelKind;
  /** Labels of the first sheet that were used before. */
  used: number;
  /** One letter or label for each household. */
  together: boolean;
  /** The message whose words are the letter. */
  messageId: number | null;
  /** The calls that the sheet is of: their people, their order, their numbers. */
  callListId: number | null;
}

/** What can be printed of a group, with what each kind of sheet needs to know. */
export const printAct = Joi.object({
  do: Joi.string().valid('print').required(),
  form: Joi.string()
    .valid(...PRINT_FORMS)
    .required(),
  paper: Joi.string().valid('A4', 'LETTER').default('LETTER'),
  title: Joi.string().trim().max(120).allow('').default(''),
  purpose: purpose.default('appeals'),
  columns: Joi.array()
    .items(Joi.alternatives().try(id, Joi.string().valid(...SHEET_COLUMNS)))
    .max(8)
    .default([]),
  noteLines: Joi.number().integer().min(0).max(6).default(1),
  labels: Joi.string()
    .valid(...LABEL_KINDS)
    .default('letter-30'),
  used: Joi.number().integer().min(0).max(29).default(0),
  together: Joi.boolean().default(true),
  messageId: id.allow(null).default(null),
  callListId: id.allow(null).default(null),
});
