import Joi from 'joi';
import {
  RULE_PURPOSES,
  CHANNELS,
  isPlaceKey,
  REQUIRED_CONSENTS,
  PRESET_NAMES,
  RELATIONSHIPS,
  WEEKDAYS,
} from '../permission';
import { ofCore, usually } from './kinds';
import { isoDaySchema, pageSchema } from './common';

const need = Joi.string().valid(...REQUIRED_CONSENTS);
const each = <K extends string>(keys: readonly K[], value: Joi.Schema) =>
  Joi.object(Object.fromEntries(keys.map((key) => [key, value.required()]))).required();
const ends = {
  from: Joi.number().integer().min(0).max(1439).required(),
  to: Joi.number().integer().min(0).max(1440).required(),
};
const span = Joi.object(ends).allow(null);
const hours = Joi.object({
  ...ends,
  days: Joi.object(Object.fromEntries(WEEKDAYS.map((day) => [day, span]))),
  holidays: span,
}).allow(null);
const cap = Joi.object({
  messages: Joi.number().integer().min(1).max(1000).required(),
  days: Joi.number().integer().min(1).max(366).required(),
}).allow(null);

const placeRules = Joi.object({
  preset: Joi.string()
    .valid(...PRESET_NAMES)
    .required(),
  options: Joi.array().items(Joi.string().max(60)).max(20).required(),
  needs: each(CHANNELS, each(RULE_PURPOSES, need)),
  lasts: each(RELATIONSHIPS, Joi.number().integer().min(1).max(120).allow(null)),
  charityOnly: Joi.array().items(Joi.string().valid(...RELATIONSHIPS)),
  offerNeeded: Joi.boolean(),
  impliedFrom: isoDaySchema.allow(null).required(),
  hours: Joi.object({ call: hours.required(), text: hours.required(), email: hours }).required(),
  caps: each(CHANNELS, cap),
  track: Joi.object({ opens: Joi.boolean().required(), links: Joi.boolean().required() }).required(),
  confirm: Joi.object({
    email: Joi.boolean().required(),
    text: Joi.boolean().required(),
    call: Joi.boolean().default(true),
    withinDays: Joi.number().integer().min(1).max(365).required(),
  }).required(),
  oldAfterMonths: Joi.number().integer().min(1).max(240).required(),
});

const placeKey = Joi.string().custom((key: string, helpers) =>
  isPlaceKey(key) ? key : helpers.error('any.invalid'),
);

/** The rules of the house, a set for each place. */
export const houseRules = ofCore(
  'HouseRules',
  'permission',
  Joi.object({
    home: placeKey.required(),
    charityIn: Joi.array()
      .items(Joi.string().pattern(/^[A-Z]{2}$/))
      .max(250),
    refusalOfferedSince: isoDaySchema.allow(null),
    secondPair: Joi.boolean(),
    askingWords: Joi.array().items(Joi.string().trim().min(2).max(60)).max(200),
    textEndDays: Joi.number().integer().min(0).max(90),
    undoSeconds: Joi.number().integer().min(0).max(600),
    secondAbove: Joi.number().integer().min(0).max(100_000_000),
    oneAppeal: Joi.boolean(),
    pile: Joi.number().integer().min(0).max(100_000_000),
    brake: Joi.object({
      unknown: Joi.number().min(0).max(100).required(),
      complaints: Joi.number().min(0).max(100).required(),
    }),
    places: Joi.object().pattern(placeKey, placeRules).min(1).max(300).required(),
  }),
);

/** Body: rules as somebody would have them, to see whom they change. */
export const weighRules = Joi.object({ rules: houseRules.required() });
/** `basedOn` is the version that was being changed: somebody else's change in between is not overwritten. */
export const saveRules = Joi.object({
  rules: houseRules.required(),
  basedOn: Joi.number().integer().min(0).required(),
});

/** What an owner says to a change that waits; whoever asked for it can only take it back. */
export const settleRules = Joi.object({ agrees: Joi.boolean().required() });

/** Query: a page of do-not-contact, narrowed by what is typed. */
export const dncQuery = Joi.object({ ...pageSchema, search: Joi.string().trim().max(100).allow('') });
/**
 * One entry a line: an address, a domain (`@example.org`), a number, or a range of numbers (`+12065550100 -
 * +12065550199`).
 */
export const addDnc = Joi.object({
  lines: Joi.string().trim().min(3).max(2_000_000).required(),
  note: Joi.string().trim().max(300).allow('').default('').meta(usually('')),
});

const answer = Joi.string().trim().min(5).max(320).required();
const answerBefore = Joi.string().max(1000).allow('').required();
/** Body: what the program texts back by itself, a language each. */
export const textAnswers = Joi.object({
  stop: answer,
  help: answer,
  start: answer,
  was: Joi.object({ stop: answerBefore, help: answerBefore, start: answerBefore }).required(),
});

/** Body: what a person says of a reply that plainly asks to stop. */
export const settleTask = Joi.object({
  outcome: Joi.string().valid('meant', 'not-meant', 'done', 'declined').required(),
});
