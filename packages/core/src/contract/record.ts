import Joi from 'joi';
import type { FieldValue } from '../fields';
import { orNull } from './kinds';
import { typedLetter } from './messages';
import { id, purpose, sendingChannel } from './common';

/**
 * How an edit of a record is taken back: what it was before, and what it was made, so that a later edit is
 * not lost.
 */
export type UndoStep =
  | { kind: 'name'; before: PersonName; after: PersonName }
  | { kind: 'field'; fieldId: number; before: FieldValue | null; after: FieldValue | null }
  | { kind: 'place'; before: KnownPlace; after: KnownPlace }
  | { kind: 'group'; group: 'tag' | 'list'; id: number; on: boolean }
  | { kind: 'contact'; pointId: number; on: boolean }
  | { kind: 'contact-changed'; from: number; to: number }
  /** Where somebody stands on a campaign's roster; null where they are not on it. */
  | { kind: 'roster'; campaignId: number; before: string | null; after: string | null }
  | { kind: 'household'; before: number | null; after: number | null }
  | { kind: 'merging'; mergingId: number };

interface PersonName {
  firstName: string;
  lastName: string;
}

interface KnownPlace {
  country: string | null;
  region: string | null;
}

/** Body: a note. */
export const noteBody = Joi.object({ body: Joi.string().trim().min(1).max(4000).required() });
/** `was`: the words that the change was begun from; of two who change them the second is told. */
export const changeNote = noteBody.keys({ was: Joi.string().max(4000).allow('').required() });
/** Address of a note on a record. */
export const noteParams = Joi.object({ id: id.required(), noteId: id.required() });
/** Address of an edit that can be undone. */
export const undoParams = Joi.object({ id: id.required(), auditId: id.required() });
/** Body: with whom somebody lives. */
export const joinHousehold = Joi.object({ withId: id.required() });
/** Body: words of a household's own; empty for those of first names. */
export const householdGreeting = Joi.object({
  greeting: Joi.string().trim().max(200).allow('', null).required(),
  was: Joi.string().max(200).allow('').required(),
});
/** Query: the other of two records. */
export const mergeQuery = Joi.object({ withId: id.required() });
/** Body: two records become one; of each line that differs which side stays. */
export const mergeRecords = Joi.object({
  goneId: id.required(),
  /** Where the other record's value stays, by key. */
  keep: Joi.object()
    .pattern(/^(name|place|externalId|field:\d+)$/, Joi.string().valid('kept', 'gone'))
    .max(500)
    .default({}),
});
/** Address of a merge that is to be parted again. */
export const unmergeParams = Joi.object({ id: id.required(), mergingId: id.required() });
/** What everything about one person can be had as. */
export const PERSON_FORMS = ['json', 'csv', 'vcf'] as const;
export type PersonForm = (typeof PERSON_FORMS)[number];
/** Query: everything about one person, in one form. */
export const personExport = Joi.object({
  as: Joi.string()
    .valid(...PERSON_FORMS)
    .default('json'),
});
/** Query: what the ledger says to a message of this channel and purpose. */
export const personalQuery = Joi.object({ channel: sendingChannel.required(), purpose: purpose.required() });
/** Body: a message to one person alone. */
export const personalMessage = Joi.object({
  channel: sendingChannel.required(),
  purpose: purpose.required(),
  subject: Joi.string().trim().max(200).allow('').required(),
  letter: orNull(typedLetter).required(),
  text: Joi.string().max(2000).allow('').required(),
  /** The template that its words began with. */
  templateId: id.allow(null).optional(),
  /** The reply that it answers, and the newest message of ours to them that the writer had seen. */
  answers: Joi.object({ replyId: id.required(), after: id.allow(null).required() }).optional(),
});
