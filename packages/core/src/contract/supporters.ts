import Joi from 'joi';
import { COLLECTION_METHODS } from '../permission';
import { FIELD_TYPES } from '../fields';
import type { NewPostal } from '../common';
import { named, ofCore, usually } from './kinds';
import { basedOn, channel, id, isoDaySchema, line, name, pageSchema, scope } from './common';

/** Query: a page of people by words, tag, list and permission. */
export const supporterQuery = Joi.object({
  ...pageSchema,
  search: Joi.string().trim().max(100).allow(''),
  tag: id,
  list: id,
  batch: id,
  hold: Joi.boolean(),
});

/** Names alone where nobody asks how many people each has. */
export const groupsQuery = Joi.object({ counted: Joi.boolean().default(true) });

/** Body: first and last name, with what they were. */
export const renameSupporter = Joi.object({
  firstName: line.trim().max(100).allow('').required(),
  lastName: line.trim().max(100).allow('').required(),
  was: Joi.string().max(210).allow(''),
});
/**
 * `was`: what stood there when this was begun; where it is something else now, the save is refused and says
 * so.
 */
export const setField = Joi.object({
  text: Joi.string().max(4000).allow('').required(),
  was: Joi.string().max(8000).allow(''),
});
/** Address of one field of one record. */
export const fieldParams = Joi.object({ id: id.required(), fieldId: id.required() });
/** Address of one tag of one record. */
export const tagParams = Joi.object({ id: id.required(), tagId: id.required() });
/** Address of one contact point of one record. */
export const pointParams = Joi.object({ id: id.required(), pointId: id.required() });
/** Address of one list of one record. */
export const listParams = Joi.object({ id: id.required(), listId: id.required() });

/** A postal address in its parts; without a street or a town it is none. */
const postal = ofCore(
  'NewPostal',
  'common',
  Joi.object({
    street: Joi.string().trim().max(200).allow('').required(),
    city: Joi.string().trim().max(100).allow('').required(),
    region: Joi.string().trim().max(100).allow('').required(),
    postcode: Joi.string().trim().max(20).allow('').required(),
    country: Joi.string().length(2).uppercase().allow('').required(),
  }).custom((value: NewPostal, helpers) =>
    value.street || value.city ? value : helpers.message({ custom: 'Expected a street or a town.' }),
  ),
);
const written = { is: 'post', then: Joi.forbidden(), otherwise: Joi.required() };
const contact = {
  kind: Joi.string().valid('email', 'mobile', 'post').required(),
  text: Joi.string().trim().max(254).when('kind', written),
  /**
   * Of a number: a landline is called and never texted. Where it is not said, whoever knows lines is asked.
   */
  line: Joi.string().valid('mobile', 'landline').when('kind', { is: 'mobile', otherwise: Joi.forbidden() }),
  post: postal.when('kind', { is: 'post', then: Joi.required(), otherwise: Joi.forbidden() }),
};
/** Body: another address, as it was typed. */
export const addContact = Joi.object(contact);
/** `was`: the address as it stood when this was begun. */
export const changeContact = Joi.object({ ...contact, was: Joi.string().max(300).required() });

/** Body: what somebody said, with how it is known and since when. */
export const addEntry = Joi.object({
  contactPointId: id.required(),
  channel: channel.required(),
  scope: scope.required(),
  state: Joi.string().valid('yes', 'no', 'implied', 'pause').required(),
  how: Joi.string()
    .valid(...COLLECTION_METHODS)
    .required(),
  on: isoDaySchema.required(),
  words: Joi.string().trim().max(2000).allow('').required(),
  /** Last day of a pause. */
  until: isoDaySchema,
  evidenceId: id,
});

/** Body: an objection to all marketing, with how it was made. */
export const objection = Joi.object({
  how: Joi.string().valid('phone', 'paper', 'in-person', 'reply').required(),
  on: isoDaySchema.required(),
  words: Joi.string().trim().min(3).max(2000).required(),
});

const place = {
  country: Joi.string()
    .pattern(/^[A-Z]{2}$/, 'two letters of ISO 3166-1')
    .allow(null)
    .required(),
  region: Joi.string()
    .pattern(/^[A-Z0-9]{1,3}$/, 'the part after the dash of ISO 3166-2')
    .allow(null)
    .required(),
};
/** `was`: as it was shown when the change was begun. */
export const setPlace = Joi.object({ ...place, was: Joi.object(place).required() });

/** Address of a picture or PDF that an entry rests on. */
export const evidenceParams = Joi.object({ id: id.required(), evidenceId: id.required() });
/** Bytes that a picture or PDF of evidence may have. */
export const EVIDENCE_LIMIT = 10 * 1024 * 1024;

/** Body: a gift by hand; minor units of the currency. */
export const addGift = Joi.object({
  amount: Joi.number().integer().positive().max(1e11).required(),
  on: isoDaySchema.required(),
  note: Joi.string().trim().max(200).allow('').default('').meta(usually('')),
});

/** Body: a new field. */
export const makeField = Joi.object({
  name: name.required(),
  type: Joi.string()
    .valid(...FIELD_TYPES)
    .required(),
  fallback: Joi.string().max(200).allow('', null).default(null).meta(usually(null)),
  section: Joi.string().trim().max(80).allow('').default('').meta(usually('')),
  choices: Joi.array().items(Joi.string().trim().min(1).max(120)).unique().max(200).default([]),
});
const fieldParts = {
  name: name.required(),
  section: Joi.string().trim().min(1).max(80).required(),
  fallback: Joi.string().max(200).allow('', null).required(),
  help: Joi.string().trim().max(300).allow('').required(),
  sensitive: Joi.boolean().required(),
  required: Joi.boolean().default(false),
  choices: Joi.array().items(Joi.string().trim().min(1).max(120)).unique().max(200).allow(null).required(),
};
/** A field changed: what it is called, where it stands, its choices, who may see it. */
const changedField = named('ChangeField', Joi.object(fieldParts));
/** `was`: as the field was shown when the change was begun; of two who change it the second is told. */
export const changeField = Joi.object({
  ...fieldParts,
  was: changedField.required(),
});
/** Body: all fields in their order, section by section. */
export const orderFields = Joi.object({ ids: Joi.array().items(id).unique().max(1000).required() });
const type = Joi.string().valid(...FIELD_TYPES);
/** A kind of field. */
export const fieldType = Joi.object({ type: type.required() });
/** Query: the regions of a country. */
export const regionsQuery = Joi.object({
  country: Joi.string()
    .pattern(/^[A-Z]{2}$/, 'two letters of ISO 3166-1')
    .required(),
});
/** Bytes that a file in a field may have. */
export const FIELD_FILE_LIMIT = 10 * 1024 * 1024;
/** Body: a choice of a field renamed, or made one with another. */
export const renameChoice = Joi.object({
  from: Joi.string().max(500).required(),
  to: Joi.string().trim().min(1).max(120).required(),
});
/** Body: a new tag. */
export const makeTag = Joi.object({ name: name.required(), handedDown: Joi.boolean() });
/** Body: a tag renamed, or handed down to chapters or not. */
export const changeTag = makeTag.keys({
  was: Joi.object({ name: name.required(), handedDown: Joi.boolean().required() }).required(),
});
/** Body: the tag that another becomes. */
export const joinTag = Joi.object({ intoId: id.required() });
/** Body: the lists of a folder in their order. */
export const orderLists = Joi.object({ ids: Joi.array().items(id).unique().max(1000).required() });
/** Body: lists that go into a folder. */
export const moveLists = Joi.object({
  ids: Joi.array().items(id).unique().min(1).max(1000).required(),
  folder: Joi.string().trim().max(80).allow('').required(),
});
/** Body: a new list; a public one with its public name and why it is written to. */
export const makeList = Joi.object({
  name: name.required(),
  isPublic: Joi.boolean().default(false),
  description: Joi.string().trim().max(500).allow('').default('').meta(usually('')),
  why: Joi.string().trim().max(600).allow('').default('').meta(usually('')),
  folder: Joi.string().trim().max(80).allow(''),
  onPreferences: Joi.boolean(),
  byForm: Joi.boolean(),
});
/** Body: a list changed. */
export const changeList = makeList.keys({ basedOn: basedOn.required() });

/** What the timeline can be narrowed to. */
export const TIMELINE_KINDS = ['delivery', 'permission', 'gift', 'edit', 'reply', 'batch', 'note'] as const;
export type TimelineKind = (typeof TIMELINE_KINDS)[number];
/** Query: a page of what passed, newest first, of the kinds that were chosen. */
export const timelineQuery = Joi.object({
  kinds: Joi.string()
    .pattern(/^[a-z,]+$/)
    .max(100),
});
