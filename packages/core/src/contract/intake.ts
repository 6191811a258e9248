import Joi from 'joi';
import { FIELD_TYPES } from '../fields';
import { BATCH_ROADS, DELIMITERS, ENCODINGS, FILE_LIMITS, type IntakePlan } from '../intake';
import { id, isoDay, name, page, scope, sendingChannel } from './common';

const order = Joi.string().valid('day-first', 'month-first');
const type = Joi.string()
  .valid(...FIELD_TYPES)
  .required();

const column = Joi.alternatives().try(
  Joi.object({ to: Joi.string().valid('leave', 'email', 'mobile', 'firstName', 'lastName').required() }),
  Joi.object({ to: Joi.string().valid('field').required(), fieldId: id.required(), type, order }),
  Joi.object({ to: Joi.string().valid('newField').required(), name: name.required(), type, order }),
  Joi.object({ to: Joi.string().valid('consent').required(), channel: sendingChannel.required() }),
);

const channelPermission = Joi.alternatives().try(
  Joi.object({ said: Joi.string().valid('nothing').required() }),
  Joi.object({
    said: Joi.string().valid('yes').required(),
    from: Joi.string().valid('everyone', 'column').required(),
    scopes: Joi.array().items(scope).min(1).max(20).required(),
    how: Joi.string()
      .valid(...BATCH_ROADS)
      .required(),
    on: isoDay.required(),
    words: Joi.string().trim().min(10).max(2000).required(),
    voucher: Joi.string().trim().min(1).max(120).required(),
  }),
);

export const intakePlan = Joi.object<IntakePlan>({
  reading: Joi.object({ encoding: Joi.string().valid(...ENCODINGS), delimiter: Joi.string().valid(...DELIMITERS) }),
  columns: Joi.array().items(column).min(1).max(FILE_LIMITS.columns).required(),
  permission: Joi.object({ email: channelPermission.required(), text: channelPermission.required() }).required(),
  existing: Joi.string().valid('update', 'leave').required(),
  tagIds: Joi.array().items(id).max(50).required(),
  newTags: Joi.array().items(name).max(20).required(),
  listId: id.allow(null).required(),
  newList: name.allow(null).required(),
});

export const startBatch = Joi.object({ name: name.required() });
export const batchRowsQuery = Joi.object({ ...page, verdict: Joi.string().valid('new', 'shares', 'update', 'here', 'look', 'failed') });

export const BATCH_STATES = ['draft', 'checking', 'checked', 'bringing', 'stopped', 'done', 'taking-out', 'taken-out', 'failed'] as const;
export type BatchState = (typeof BATCH_STATES)[number];

/** What becomes of a row: a new person, a new person at a shared address, an update, nothing, a doubt, or a fault. */
export const ROW_VERDICTS = ['new', 'shares', 'update', 'here', 'look', 'failed'] as const;
export type RowVerdict = (typeof ROW_VERDICTS)[number];

export interface BatchView {
  id: number;
  name: string;
  fileName: string;
  state: BatchState;
  rows: number;
  createdAt: string;
  createdBy: string;
  plan: IntakePlan | null;
  counts: Partial<Record<RowVerdict, number>>;
  /** Rows that come in without one of their cells. */
  withFaults: number;
  /** Rows whose address said no before, and stays no. */
  stayNo: number;
  done: number;
  total: number;
  /** Rows a second, while running. */
  rate: number | null;
  problem: string | null;
  canTakeOut: string | null;
}

export interface BatchRowView {
  row: number;
  verdict: RowVerdict;
  firstName: string;
  lastName: string;
  email: string | null;
  mobile: string | null;
  reason: string;
  supporterId: number | null;
}
