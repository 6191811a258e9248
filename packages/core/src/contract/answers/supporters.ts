import { FIELD_TYPES } from '../../fields';
import { TIMELINE_KINDS } from '../supporters';
import { STATES, ADDRESS_KINDS, CHANNELS, RECORDED_STATES, COLLECTION_METHODS } from '../../permission';
import { shape, text, number, told, oneOf, orNull, listOf, flag, part, only, mapOf } from '../kinds';
import { noteView, householdView } from './record';
import { scope } from '../common';
import { fieldValue } from './of-core';

/** A choice that people have, and how many. */
export const choiceUse = shape('ChoiceUse', {
  choice: text,
  people: number,
});

/** A field with what hangs on it, as its page in Setup shows it. */
export const fieldAdminView = shape('FieldAdminView', {
  people: told('How many people have a value.', number),
  mergeName: told('As it is written in a message.', text),
  id: number,
  name: text,
  type: oneOf(FIELD_TYPES),
  section: text,
  fallback: orNull(text),
  choices: told('What a choice field offers; null where it takes what people have.', orNull(listOf(text))),
  help: told('What is told beside it, where it is filled in.', text),
  sensitive: told('For owners and organizers alone.', flag),
  required: told('Whoever is asked for it on a form has to answer.', flag),
});

/** Whether every value of a field converts to another type, and which would not. */
export const conversion = shape('Conversion', {
  values: number,
  wont: number,
  examples: told(
    'Some of those that would not.',
    listOf(
      part({
        supporterId: number,
        name: text,
        value: text,
        reason: text,
      }),
    ),
  ),
  preview: told(
    'Some of those that would, as they are and as they would be.',
    listOf(
      part({
        from: text,
        to: text,
      }),
    ),
  ),
});

/** What goes with a field, and what uses it and so stands in the way. */
export const fieldDeletion = shape('FieldDeletion', {
  values: number,
  blocked: orNull(text),
});

/** One thing that passed between a person and the house. */
export const timelineItem = shape('TimelineItem', {
  at: text,
  kind: oneOf(TIMELINE_KINDS),
  tone: only('good', 'plain', 'bad'),
  title: text,
  detail: text,
  link: orNull(text),
  undo: told('The entry of the history that can be undone here.', orNull(number)),
  /** The note that it is, with its whole words. */
  note: orNull(noteView),
});

/** One person in a table. */
export const supporterRow = shape('SupporterRow', {
  id: number,
  firstName: text,
  lastName: text,
  chapter: text,
  email: orNull(text),
  mobile: orNull(text),
  tags: number,
  lastGift: orNull(
    part({
      amount: number,
      on: text,
    }),
  ),
  values: told('Custom fields that were asked for, formatted, by their id.', mapOf(text)),
  may: part({
    email: oneOf(STATES),
    text: oneOf(STATES),
  }),
});

/** An address of a record: which is written to first, on hold or not, who else has it. */
export const contactPointView = shape('ContactPointView', {
  id: number,
  kind: oneOf(ADDRESS_KINDS),
  shown: text,
  line: told(
    'Of a number, where anybody knows: a landline is called and never texted.',
    orNull(only('mobile', 'landline', 'voip', 'other')),
  ),
  parts: told(
    'Of a postal address.',
    orNull(
      part({
        street: text.optional(),
        city: text.optional(),
        region: text.optional(),
        postcode: text.optional(),
        country: told('ISO 3166-1; empty where it is not said.', text).optional(),
      }),
    ),
  ),
  onHold: flag,
  holdReason: orNull(text),
  sharedWith: listOf(
    part({
      id: number,
      name: text,
    }),
  ),
});

/** A tag or list that a person has, and how they came by it. */
export const membershipView = shape('MembershipView', {
  id: number,
  name: text,
  since: text,
  how: told('"by Rosa Oduya", "with the batch Spring fair".', text),
});

/** What stands of a person on a channel for a scope, with the entry that it rests on. */
export const consentStatusView = shape('ConsentStatusView', {
  channel: oneOf(CHANNELS),
  scope: scope,
  scopeName: text,
  state: oneOf(STATES),
  entryId: orNull(number),
  until: told('Last moment of an implied permission.', orNull(text)),
  pausedUntil: orNull(text),
});

/** One entry of the ledger as it is shown. */
export const ledgerEntry = shape('EntryView', {
  id: number,
  channel: oneOf(CHANNELS),
  scope: scope,
  scopeName: text,
  state: oneOf(RECORDED_STATES),
  at: text,
  until: orNull(text),
  how: oneOf(COLLECTION_METHODS),
  words: text,
  source: text,
  recordedBy: orNull(text),
  address: told('Null where it was said without one, and holds at every address.', orNull(text)),
  takenBack: flag,
  old: told(`Older than the house rules of the person's place want evidence to be.`, flag),
  evidence: orNull(
    part({
      id: number,
      name: text,
    }),
  ),
});

/** All that is known of one person. */
export const recordView = shape('RecordView', {
  id: number,
  firstName: text,
  lastName: text,
  chapter: part({
    id: number,
    name: text,
  }),
  createdAt: text,
  place: part({
    country: orNull(text),
    region: orNull(text),
    rulesOf: text,
  }),
  contactPoints: listOf(contactPointView),
  fields: listOf(
    part({
      id: number,
      name: text,
      type: oneOf(FIELD_TYPES),
      section: text,
      fallback: orNull(text),
      choices: told(
        'What a choice field offers; null where it takes what people have.',
        orNull(listOf(text)),
      ),
      help: told('What is told beside it, where it is filled in.', text),
      sensitive: told('For owners and organizers alone.', flag),
      required: told('Whoever is asked for it on a form has to answer.', flag),
      value: orNull(fieldValue),
      shown: text,
    }),
  ),
  tags: listOf(membershipView),
  lists: listOf(
    part({
      id: number,
      name: text,
      since: text,
      how: told('"by Rosa Oduya", "with the batch Spring fair".', text),
      isPublic: flag,
    }),
  ),
  segments: listOf(
    part({
      id: number,
      name: text,
    }),
  ),
  rosters: told(
    'Campaigns that they are on the roster of, with where they stand and where they could.',
    listOf(
      part({
        id: number,
        name: text,
        stage: text,
        stages: listOf(text),
      }),
    ),
  ),
  gifts: listOf(
    part({
      id: number,
      amount: number,
      on: text,
      note: text,
    }),
  ),
  consent: listOf(consentStatusView),
  entries: listOf(ledgerEntry),
  household: orNull(householdView),
  greeting: told('As the person is greeted, with whoever they live with.', text),
  mergedFrom: told(
    'Records that were brought into this one and could be parted again.',
    listOf(
      part({
        mergingId: number,
        name: text,
        at: text,
      }),
    ),
  ),
});

/** How a chapter uses a tag. */
export const tagUse = shape('TagUse', {
  chapter: text,
  people: number,
});

/** What goes when something is deleted, said before it is done. */
export const deletionNotice = shape('DeletionNotice', {
  blocked: told(`Why it can't go at all, with the way out.`, orNull(text)),
  takes: text,
});

/** A field with its value on a record. */
export const fieldView = shape('FieldView', {
  id: number,
  name: text,
  type: oneOf(FIELD_TYPES),
  section: text,
  fallback: orNull(text),
  choices: told('What a choice field offers; null where it takes what people have.', orNull(listOf(text))),
  help: told('What is told beside it, where it is filled in.', text),
  sensitive: told('For owners and organizers alone.', flag),
  required: told('Whoever is asked for it on a form has to answer.', flag),
});
