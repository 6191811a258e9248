import Joi from 'joi';
import { oneLine } from '../common';
import { ofCore } from './kinds';
import { CHANNELS, isScope, LONE_CHANNELS, PURPOSES, SENDING_CHANNELS } from '../permission';

/** The version that a save was begun from. */
export const basedOn = Joi.number().integer().min(0);
/** An id: a whole number of 1 and more. */
export const id = Joi.number().integer().positive();
/** Text on one line: a name can not bring lines of its own into a header or a table. */
export const line = Joi.string().custom((value: string) => oneLine(value));
/** A name of a thing of ours: 1 to 120 characters, trimmed. */
export const name = line.trim().min(1).max(120);
/** Of something that is saved again and again: the one that was changed. */
export const version = Joi.number().integer().min(0).required();
/** A day as YYYY-MM-DD (ISO 8601) that the calendar has. */
export const isoDaySchema = Joi.string().pattern(/^\d{4}-\d\d-\d\d$/, 'YYYY-MM-DD');
/** A channel of permission: email, text, call, post. */
export const channel = Joi.string().valid(...CHANNELS);
/** A channel that something is sent on by the program: email, text. */
export const sendingChannel = Joi.string().valid(...SENDING_CHANNELS);
/** A channel that a message goes out on by itself: email, text, post. */
export const loneChannel = Joi.string().valid(...LONE_CHANNELS);
/** What a message is for, which is what permission is asked by. */
export const purpose = Joi.string().valid(...PURPOSES);
/** What an entry is about: a purpose, `list:<id>`, `marketing` or `all`. */
export const scope = ofCore(
  'Scope',
  'permission',
  Joi.string().custom((value: string, helpers) => (isScope(value) ? value : helpers.error('any.invalid'))),
);

/** Address of one thing by its id. */
export const idParams = Joi.object({ id: id.required() });

/** Key-set paging: `after` is the opaque cursor of the page before. */
export const pageSchema = {
  after: Joi.string().max(400),
  limit: Joi.number().integer().min(1).max(200).default(100),
};

/** A page of rows, where the next one begins, and how many there are in all where that is counted. */
export interface Page<Row> {
  rows: Row[];
  /** Cursor of the next page; null at the end. */
  next: string | null;
  /** How many there are in all pages, exact. */
  total: number;
}
