import Joi from 'joi';
import { FIELD_TYPES } from '../fields';
import {
  BATCH_KINDS,
  BATCH_COLLECTION_METHODS,
  DAY_TARGETS,
  DELIMITERS,
  EMPTY_PLAN,
  ENCODINGS,
  FILE_LIMITS,
  MATCH_KEYS,
  NO_CLOSES,
  PLAIN_TARGETS,
  ROW_VERDICTS,
  REFUSAL_STATUSES,
  type ParseOptions,
  type IntakePlan,
} from '../intake';
import { ofCore, shape, usually } from './kinds';
import { CHANNELS } from '../permission';
import { basedOn, id, isoDaySchema, name, pageSchema, scope, sendingChannel } from './common';

const order = Joi.string().valid('day-first', 'month-first');
const type = Joi.string()
  .valid(...FIELD_TYPES)
  .required();

/** What a column of a file becomes. */
export const columnChoice = ofCore(
  'ColumnChoice',
  'intake',
  Joi.alternatives().try(
    Joi.object({
      to: Joi.string()
        .valid(...PLAIN_TARGETS)
        .required(),
    }),
    Joi.object({
      to: Joi.string()
        .valid(...DAY_TARGETS)
        .required(),
      order,
    }),
    Joi.object({ to: Joi.string().valid('field').required(), fieldId: id.required(), type, order }),
    Joi.object({
      to: Joi.string().valid('newField').required(),
      name: name.required(),
      type,
      order,
      section: Joi.string().trim().max(80),
      choices: Joi.array().items(Joi.string().trim().min(1).max(120)).max(200),
      fallback: Joi.string().trim().max(200).allow(''),
    }),
    Joi.object({ to: Joi.string().valid('consent').required(), channel: sendingChannel.required() }),
    Joi.object({
      to: Joi.string().valid('refusal').required(),
      channel: Joi.string()
        .valid(...CHANNELS, 'every')
        .required(),
    }),
  ),
);

/** Rows, columns, lines and sheets count from 1. */
const nth = Joi.number().integer().min(1);
const columnAt = nth.max(FILE_LIMITS.columns).required();
const cell = Joi.string().max(FILE_LIMITS.cell).allow('');
/** A correction of a cell, a column or two. */
export const mend = ofCore(
  'Mend',
  'intake',
  Joi.alternatives().try(
    Joi.object({
      kind: Joi.string().valid('edit').required(),
      row: nth.max(FILE_LIMITS.rows).required(),
      column: columnAt,
      value: cell.required(),
    }),
    Joi.object({ kind: Joi.string().valid('swap').required(), a: columnAt, b: columnAt }),
    Joi.object({
      kind: Joi.string().valid('write').required(),
      column: columnAt,
      from: Joi.array().items(cell).min(1).max(200).required(),
      to: cell.required(),
    }),
    Joi.object({ kind: Joi.string().valid('recase').required(), column: columnAt }),
    Joi.object({
      kind: Joi.string().valid('strip').required(),
      column: columnAt,
      text: Joi.string().min(1).max(200).required(),
    }),
  ),
);

const channelPermission = Joi.alternatives().try(
  Joi.object({ said: Joi.string().valid('nothing').required() }),
  Joi.object({
    said: Joi.string().valid('yes').required(),
    from: Joi.string().valid('everyone', 'column').required(),
    scopes: Joi.array().items(scope).min(1).max(20).required(),
    how: Joi.string()
      .valid(...BATCH_COLLECTION_METHODS, 'feed')
      .required(),
    on: isoDaySchema.required(),
    words: Joi.string().trim().min(10).max(2000).required(),
    voucher: Joi.string().trim().min(1).max(120).required(),
  }),
);

/**
 * How a file is to be read where a person chose: encoding, separator, line of the header, sheet; lines and
 * sheets from 1.
 */
export const fileReading = ofCore(
  'ParseOptions',
  'intake',
  Joi.object<ParseOptions>({
    encoding: Joi.string().valid(...ENCODINGS),
    delimiter: Joi.string().valid(...DELIMITERS),
    sheet: nth.max(200),
    headerLine: nth.max(30).allow(null),
    unscramble: Joi.boolean(),
    keepAside: Joi.boolean(),
  }),
);

const nothing = { said: 'nothing' };
const kind = Joi.string().valid(...BATCH_KINDS);

/**
 * What a batch is for: columns, where people go, permission, matching. Faults beyond its shape are told by
 * `permissionFaults` and its kin.
 */
export const intakePlan = ofCore(
  'IntakePlan',
  'intake',
  Joi.object<IntakePlan>({
    what: kind.default(EMPTY_PLAN.what),
    reading: fileReading,
    columns: Joi.array().items(columnChoice).min(1).max(FILE_LIMITS.columns).required(),
    constants: Joi.array()
      .items(Joi.object({ choice: columnChoice.required(), value: cell.required() }))
      .max(20)
      .default([]),
    mends: Joi.array().items(mend).max(5000).default([]),
    phoneCountry: Joi.string().length(2).uppercase().allow(null).default(null).meta(usually(null)),
    chapterId: id.allow(null).default(null).meta(usually(null)),
    byPlace: Joi.boolean().default(false),
    matching: Joi.array()
      // Plans of before may name a key that decides no longer.
      .items(Joi.string().valid('namePostcode').strip(), Joi.string().valid(...MATCH_KEYS))
      .unique()
      .max(MATCH_KEYS.length)
      .default([...MATCH_KEYS]),
    // There is no way past this step for people who are brought in; the other kinds of files give nobody
    // permission.
    permission: Joi.object({ email: channelPermission.required(), text: channelPermission.required() }).when(
      'what',
      {
        is: 'people',
        then: Joi.required(),
        otherwise: Joi.any().default({ email: nothing, text: nothing }),
      },
    ),
    confirm: Joi.object({
      subject: Joi.string().trim().min(1).max(200).required(),
      body: Joi.string().trim().min(1).max(5000).required(),
    })
      .allow(null)
      .default(null)
      .meta(usually(null)),
    existing: Joi.string().valid('update', 'fill', 'leave').default('update'),
    tagIds: Joi.array().items(id).max(50).default([]),
    newTags: Joi.array().items(name).max(20).default([]),
    listIds: Joi.array().items(id).max(50).default([]),
    newLists: Joi.array()
      .items(
        Joi.object({
          name: name.required(),
          folder: Joi.string().trim().max(80).allow('').default('').meta(usually('')),
        }),
      )
      .max(20)
      .default([]),
    roster: Joi.object({ campaignId: id.required(), stage: Joi.string().trim().min(1).max(60).required() })
      .allow(null)
      .default(null)
      .meta(usually(null)),
    refusal: Joi.string()
      .valid(...REFUSAL_STATUSES)
      .allow(null)
      .default(null)
      .meta(usually(null)),
    strangers: Joi.string().valid('bring-in', 'leave').default('leave'),
    notify: Joi.array().items(id).max(20).default([]),
    // Kept of what a feed made; nobody gives it to a file.
    feed: Joi.object({
      no: Joi.string()
        .valid(...NO_CLOSES)
        .required(),
    }),
  }),
);

const draftParts = {
  step: Joi.string().max(40).required(),
  name: name.required(),
  plan: ofCore('DraftPlan', 'intake', Joi.object().unknown(true)).required(),
};
/** A half-done plan, kept as the page has it: nothing in it is acted on before it is fixed as a plan. */
export const intakeDraft = shape('IntakeDraft', draftParts);
/** Body: a batch as far as it is decided, kept without being checked. */
export const keepDraft = Joi.object({ ...draftParts, basedOn: basedOn.required() });

/** Body: the file read anew, as a person chose. */
export const readAgain = Joi.object({ reading: fileReading.required(), what: kind });

/** Query: a blank sheet to fill in, as CSV or workbook. */
export const sheetForm = Joi.object({ form: Joi.string().valid('csv', 'xlsx').required() });
/** Query: which rows of a batch, in which form. */
export const batchSheet = Joi.object({
  id: id.required(),
  form: Joi.string().valid('csv', 'xlsx').required(),
});
/** Address of one row of a batch; rows from 1. */
export const batchRow = Joi.object({ id: id.required(), row: id.required() });
/** Body: a remembered layout under another name. */
export const changeLayout = Joi.object({
  name,
  columns: Joi.array().items(columnChoice).min(1).max(FILE_LIMITS.columns),
  basedOn: basedOn.required(),
}).or('name', 'columns');
const days = Joi.number().integer().min(1).max(3650);
/** Body: for how many days files are kept. */
export const houseFiles = Joi.object({ days: days.required(), was: days.required() });

/** What a person decides about a row that may be somebody who is here. */
export const decideRows = Joi.object({
  rows: Joi.array().items(id).max(1000),
  why: Joi.string().max(40),
  as: Joi.string().valid('merge', 'new', 'skip').required(),
  supporterId: Joi.number().integer(),
  keep: Joi.array().items(Joi.string().max(40)).max(200).default([]),
});
/** Parts of a batch's rows that its counts open, beside the verdicts. */
export const ROWS_ONLY = [
  'faults',
  'hints',
  'strangers',
  'email',
  'text',
  'refusing',
  'groups',
  'changes',
  'saidNo',
  'doNotContact',
  'onHold',
  'alreadyYes',
] as const;
/** Rows of one kind: with errors, to look at, of one verdict. */
export type RowsOnly = (typeof ROWS_ONLY)[number];

/** Query: a page of a batch's rows. */
export const batchRowsQuery = Joi.object({
  ...pageSchema,
  verdict: Joi.string().valid(...ROW_VERDICTS),
  why: Joi.string().max(40),
  only: Joi.string().valid(...ROWS_ONLY),
});
/** Query: batches by who made them, when, name and file. */
export const batchesQuery = Joi.object({
  state: Joi.string().valid('open', 'done', 'all').default('all'),
  by: id,
  from: isoDaySchema,
  to: isoDaySchema,
  source: Joi.string().trim().max(120).allow(''),
});

/** Where a batch stands, from reading to taken out. */
export const BATCH_STATES = [
  'reading',
  'unreadable',
  'draft',
  'checking',
  'checked',
  'bringing',
  'stopped',
  'done',
  'taking-out',
  'taken-out',
  'failed',
] as const;
export type BatchState = (typeof BATCH_STATES)[number];
