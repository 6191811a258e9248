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
  PLAIN_TARGETS,
  ROW_VERDICTS,
  type RowVerdict,
  REFUSAL_STATUSES,
  type BatchKind,
  type ColumnChoice,
  type ParseOptions,
  type FileFindings,
  type Guess,
  type IntakePlan,
  type DoubtKind,
  type Mend,
} from '../intake';
import { CHANNELS, type Channel } from '../permission';
import { basedOn, id, isoDaySchema, name, pageSchema, scope, sendingChannel } from './common';

const order = Joi.string().valid('day-first', 'month-first');
const type = Joi.string()
  .valid(...FIELD_TYPES)
  .required();

const column = Joi.alternatives().try(
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
);

/** Rows, columns, lines and sheets count from 1. */
const nth = Joi.number().integer().min(1);
const columnAt = nth.max(FILE_LIMITS.columns).required();
const cell = Joi.string().max(FILE_LIMITS.cell).allow('');
const mend = Joi.alternatives().try(
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
);

const channelPermission = Joi.alternatives().try(
  Joi.object({ said: Joi.string().valid('nothing').required() }),
  Joi.object({
    said: Joi.string().valid('yes').required(),
    from: Joi.string().valid('everyone', 'column').required(),
    scopes: Joi.array().items(scope).min(1).max(20).required(),
    how: Joi.string()
      .valid(...BATCH_COLLECTION_METHODS)
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
export const fileReading = Joi.object<ParseOptions>({
  encoding: Joi.string().valid(...ENCODINGS),
  delimiter: Joi.string().valid(...DELIMITERS),
  sheet: nth.max(200),
  headerLine: nth.max(30).allow(null),
  unscramble: Joi.boolean(),
  keepAside: Joi.boolean(),
});

const nothing = { said: 'nothing' };
const kind = Joi.string().valid(...BATCH_KINDS);

/**
 * What a batch is for: columns, where people go, permission, matching. Faults beyond its shape are told by
 * `permissionFaults` and its kin.
 */
export const intakePlan = Joi.object<IntakePlan>({
  what: kind.default(EMPTY_PLAN.what),
  reading: fileReading,
  columns: Joi.array().items(column).min(1).max(FILE_LIMITS.columns).required(),
  constants: Joi.array()
    .items(Joi.object({ choice: column.required(), value: cell.required() }))
    .max(20)
    .default([]),
  mends: Joi.array().items(mend).max(5000).default([]),
  phoneCountry: Joi.string().length(2).uppercase().allow(null).default(null),
  chapterId: id.allow(null).default(null),
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
    .default(null),
  existing: Joi.string().valid('update', 'fill', 'leave').default('update'),
  tagIds: Joi.array().items(id).max(50).default([]),
  newTags: Joi.array().items(name).max(20).default([]),
  listIds: Joi.array().items(id).max(50).default([]),
  newLists: Joi.array()
    .items(Joi.object({ name: name.required(), folder: Joi.string().trim().max(80).allow('').default('') }))
    .max(20)
    .default([]),
  roster: Joi.object({ campaignId: id.required(), stage: Joi.string().trim().min(1).max(60).required() })
    .allow(null)
    .default(null),
  refusal: Joi.string()
    .valid(...REFUSAL_STATUSES)
    .allow(null)
    .default(null),
  strangers: Joi.string().valid('bring-in', 'leave').default('leave'),
  notify: Joi.array().items(id).max(20).default([]),
});

/** A half-done plan, kept as the page has it: nothing in it is acted on before it is fixed as a plan. */
export interface IntakeDraft {
  step: string;
  name: string;
  plan: Partial<Omit<IntakePlan, 'permission'>> & { permission?: Record<string, unknown> };
}

/** Body: a batch as far as it is decided, kept without being checked. */
export const keepDraft = Joi.object<IntakeDraft & { basedOn: number }>({
  step: Joi.string().max(40).required(),
  name: name.required(),
  plan: Joi.object().unknown(true).required(),
  basedOn: basedOn.required(),
});

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
  columns: Joi.array().items(column).min(1).max(FILE_LIMITS.columns),
  basedOn: basedOn.required(),
}).or('name', 'columns');
const days = Joi.number().integer().min(1).max(3650);
/** Body: for how many days files are kept. */
export const houseFiles = Joi.object({ days: days.required(), was: days.required() });

/** A remembered layout. */
export interface LayoutView {
  id: number;
  version: number;
  name: string;
  what: BatchKind;
  header: string[];
  columns: ColumnChoice[];
  usedAt: string;
  madeBy: string | null;
}

/** A piece of work in the background. */
export interface JobView {
  id: number;
  kind: string;
  state: 'waiting' | 'running' | 'done' | 'failed';
  subject: string;
  link: string | null;
  done: number | null;
  total: number | null;
  /** What these are counts of. */
  unit: 'rows' | 'people' | 'steps';
  rate: number | null;
  by: string;
  createdAt: string;
  beganAt: string | null;
  endedAt: string | null;
  attempts: number;
  error: string | null;
}

/** What a person decides about a row that may be somebody who is here. */
export const decideRows = Joi.object<DecideRows>({
  rows: Joi.array().items(id).max(1000),
  why: Joi.string().max(40),
  as: Joi.string().valid('merge', 'new', 'skip').required(),
  supporterId: Joi.number().integer(),
  keep: Joi.array().items(Joi.string().max(40)).max(200).default([]),
});
/** What a person decided of rows that may be somebody who is here. */
export interface DecideRows {
  /** These rows, or all of a kind. */
  rows?: number[];
  why?: DoubtKind;
  as: 'merge' | 'new' | 'skip';
  /**
   * Whom to merge with; the most likely where none is named. Minus its number for an earlier row of the file.
   */
  supporterId?: number;
  /** Fields that keep what is there: `firstName`, `lastName`, or `field:ID`. */
  keep: string[];
}

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

/** A batch with its plan, what was found in its file, its counts and what waits for a person. */
export interface BatchView {
  id: number;
  name: string;
  fileName: string;
  state: BatchState;
  what: BatchKind;
  /** The chapter that its new people go to. */
  chapterId: number;
  rows: number;
  createdAt: string;
  createdBy: string;
  /** What was found in the file; null while it is being read. */
  found: FileFindings | null;
  plan: IntakePlan | null;
  /** What the page keeps of a batch that is not settled. */
  draft: IntakeDraft | null;
  /** Which save of it that is. */
  draftVersion: number;
  counts: Partial<Record<RowVerdict, number>>;
  /** Rows to look at, by why. */
  looks: Partial<Record<DoubtKind, number>>;
  /** Rows that come in without one of their cells. */
  withFaults: number;
  /** Rows of which there is something to tell. */
  withHints: number;
  /** What will be written beside people; null before it is checked. */
  will: BatchWill | null;
  /** Rows whose address said no before, and stays no. */
  stayNo: number;
  done: number;
  total: number;
  /** Rows a second, while running. */
  rate: number | null;
  problem: string | null;
  canTakeOut: string | null;
  /** Whether the file is still kept; deleted after the time set in Setup. */
  fileKept: boolean;
  /** What of a batch taken out had to stay. */
  stayed: number;
}

/** What bringing in will write, counted over the checked rows. */
export interface BatchWill {
  entries: Partial<Record<Channel, { yes: number; no: number; asked: number }>>;
  /** Addresses that said no before, are on do-not-contact, or are held. */
  saidNo: number;
  doNotContact: number;
  onHold: number;
  alreadyYes: number;
  /** Values that change, and values that are new to people who are here. */
  changes: number;
  tags: number;
  lists: number;
  roster: number;
  /**
   * Signed longer ago than the house rule allows to ask for a confirmation, and before the months after which
   * evidence is old.
   */
  signedLongAgo: number;
  /** People by place with rules of its own. */
  places: Record<string, number>;
  giftsTotal: { currency: string; minor: number }[];
}

/** Somebody whom a row may be: how likely (0 to 100), and what they have in common, in words. */
export interface LikelyDouble {
  id: number;
  score: number;
  reasons: string[];
}

/** One row of a batch: what is in it, its verdict with the reason, whom it meets and by what. */
export interface BatchRowView {
  row: number;
  verdict: RowVerdict;
  firstName: string;
  lastName: string;
  email: string | null;
  mobile: string | null;
  reason: string;
  hint: string;
  why: DoubtKind | null;
  candidates: LikelyDouble[];
  supporterId: number | null;
  /**
   * Whom it meets, and by what: somebody who is here or an earlier row of the file. Null also where they are
   * of another chapter than the one in which the reader works.
   */
  meets: { supporterId: number | null; row: number | null; name: string; by: string } | null;
  /** What changes, for somebody who is here: from what to what, and addresses that are added. */
  changes: { what: string; from: string; to: string }[];
  /** All that it writes, or wrote; null for a row that writes nothing. */
  writes: RowWrites | null;
}

/** What a row writes, beside the name. */
export interface RowWrites {
  emails: string[];
  phones: string[];
  post: string | null;
  ownId: string | null;
  fields: { name: string; value: string }[];
  tags: string[];
  lists: string[];
  /** On the roster of the campaign. */
  stage: string | null;
  /** The chapter that somebody new joins; null of who is here already. */
  chapter: string | null;
  /** Entries of the ledger; `at` is the address, null for the person. `on` is a day. */
  permission: {
    channel: Channel;
    scope: string;
    state: 'yes' | 'no' | 'asked';
    at: string | null;
    on: string;
    words: string;
  }[];
  /** Hundredths of the currency; the day in days since 1970-01-01. */
  gift: { minor: number; currency: string; day: number; ownId: string | null; appeal: string | null } | null;
}

/** A row beside the people it may be, field by field. */
export interface DoubleView {
  row: number;
  why: DoubtKind | null;
  fields: { key: string; name: string; row: string; theirs: Record<string, string> }[];
  people: (LikelyDouble & { name: string; supporterId: number | null; rowNo: number | null })[];
}

/** The file as it is read, before anything is settled. */
export interface BatchPreview {
  found: FileFindings;
  guesses: Guess[];
  what: BatchKind;
  rows: string[][];
  mends: Mend[];
  columns: ColumnChoice[];
}
