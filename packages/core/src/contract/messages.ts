import Joi from 'joi';
import type { LetterDoc } from '../letter';
import {
  SUPPRESSION_REASONS,
  type SuppressionReason,
  type Hours,
  type Purpose,
  type SendingChannel,
} from '../permission';
import { peopleGroup, type PeopleGroup } from './groups';
import { id, name, pageSchema, purpose, sendingChannel, version } from './common';

/** Where a message stands, from draft to done. */
export const MESSAGE_STATES = [
  'draft',
  'scheduled',
  'preparing',
  'sending',
  'paused',
  'stopped',
  'done',
] as const;
export type MessageState = (typeof MESSAGE_STATES)[number];

/** What recipients can be taken from. */
export const GROUP_KINDS = ['segment', 'list', 'tag', 'batch', 'campaign', 'message', 'person'] as const;
export type GroupKind = (typeof GROUP_KINDS)[number];

/**
 * Whom of an earlier message: who got it, and what they did with it or did not. That they opened it is too
 * unsure.
 */
export const MESSAGE_GROUPS = ['got', 'clicked', 'not-clicked', 'replied', 'not-replied'] as const;
export type MessageGroup = (typeof MESSAGE_GROUPS)[number];

/** A group by its kind and id; of a campaign one stage, of a message what somebody did with it. */
export interface GroupRef {
  kind: GroupKind;
  id: number;
  /** Of a campaign's roster: at this stage alone. */
  stage?: string;
  /** Of a message: who did this; who got it where nothing is said. */
  did?: MessageGroup;
}

/** Most people who may be named one by one. */
export const MOST_CHOSEN = 10_000;

/** Any of these, and people who were chosen by hand; minus any of those, minus single people. */
export interface Recipients {
  from: GroupRef[];
  chosen?: number[];
  minus: GroupRef[];
  without: number[];
}

const groupRef = Joi.object({
  kind: Joi.string()
    .valid(...GROUP_KINDS)
    .required(),
  id: id.required(),
  stage: Joi.string().trim().max(60).when('kind', { is: 'campaign', otherwise: Joi.forbidden() }),
  did: Joi.string()
    .valid(...MESSAGE_GROUPS)
    .when('kind', { is: 'message', otherwise: Joi.forbidden() }),
});

/** What became of deliveries, as counted and opened. */
export const RESULT_KINDS = [
  'sent',
  'delivered',
  'bounced',
  'opened',
  'clicked',
  'replied',
  'left',
  'door',
  'unsure',
  'failed',
  'waiting',
  'suppressed',
] as const;
export type ResultKind = (typeof RESULT_KINDS)[number];

/** A message to a group that one looks at: begun with who gets it. */
export const beginTo = Joi.object({
  name: name.required(),
  channel: sendingChannel.required(),
  purpose: purpose.required(),
  to: Joi.alternatives()
    .try(
      Joi.object({ ref: groupRef.required() }),
      Joi.object({ group: peopleGroup }),
      Joi.object({
        result: Joi.object({
          messageId: id.required(),
          kind: Joi.string()
            .valid(...RESULT_KINDS)
            .required(),
        }).required(),
      }),
    )
    .required(),
});
/** Whom a message is begun to: a group, people by id, or a number of a result. */
export interface BeginTo {
  name: string;
  channel: SendingChannel;
  purpose: Purpose;
  to: { ref: GroupRef } | { group: PeopleGroup } | { result: { messageId: number; kind: ResultKind } };
}

/** Body: a new message; a channel and a purpose, the words later. */
export const makeMessage = Joi.object({
  name: name.required(),
  channel: sendingChannel.required(),
  purpose: purpose.required(),
});

/** Body: the words of a draft, with the version that they were begun from. */
export const saveMessage = Joi.object({
  name: name.required(),
  purpose: purpose.allow(null).required(),
  listId: id.allow(null).required(),
  subject: Joi.string().trim().max(200).allow('').required(),
  preheader: Joi.string().trim().max(200).allow('').required(),
  letter: Joi.object().unknown().allow(null).required(),
  text: Joi.string().max(2000).allow('').required(),
  /** The version of the words that were being changed. */
  basedOn: version,
})
  .custom((value: { purpose: unknown; listId: unknown }, helpers) =>
    (value.purpose === null) === (value.listId === null) ? helpers.error('any.invalid') : value,
  )
  .messages({ 'any.invalid': 'A message has either a purpose or a public list.' });

/** Body: from whom, without whom, and who was left out by hand. */
export const saveRecipients = Joi.object<Recipients & { basedOn: number }>({
  from: Joi.array().items(groupRef).max(50).required(),
  minus: Joi.array().items(groupRef).max(50).required(),
  chosen: Joi.array().items(id).unique().max(MOST_CHOSEN).default([]),
  without: Joi.array().items(id).max(5000).required(),
  /** The version of the group that was being changed. */
  basedOn: version,
});

/** What somebody can do with a message to get a tag for it. That they opened it is too unsure. */
export const TAG_TRIGGER_EVENTS = ['clicked', 'replied'] as const;
export type TagTriggerEvent = (typeof TAG_TRIGGER_EVENTS)[number];

/** Whoever does this with the message gets the tag. */
export interface TagTrigger {
  on: TagTriggerEvent;
  tagId: number;
}

const tagTriggers = Joi.array()
  .items(
    Joi.object({
      on: Joi.string()
        .valid(...TAG_TRIGGER_EVENTS)
        .required(),
      tagId: id.required(),
    }),
  )
  .unique()
  .max(6)
  .required();
/** Body: what puts which tag on, and what it was before, so that of two who save the second is told. */
export const saveTagTriggers = Joi.object<{ tagTriggers: TagTrigger[]; was: TagTrigger[] }>({
  tagTriggers,
  was: tagTriggers,
});

/** Query: the message as one person will get it; nobody in particular without an id. */
export const previewQuery = Joi.object({ supporterId: id });
/** Query: whom a message can be read as, by parts of a name. */
export const readersQuery = Joi.object({ search: Joi.string().trim().max(120).allow('').default('') });
/** Somebody whom a message can be read as: the address, or why it would not reach them. */
export interface ReaderView {
  id: number;
  name: string;
  /** Where it would go; null where there is no such address. */
  address: string | null;
  /** Why they would not get it; null of those who would. */
  note: string | null;
}

/** `digest` is that of the last look that was seen. */
export const sendMessage = Joi.object({
  at: Joi.date().iso().allow(null).default(null),
  digest: Joi.string().hex().length(64).required(),
});
/** Query: a page of those of one verdict at the last look. */
export const suppressedQuery = Joi.object({
  ...pageSchema,
  verdict: Joi.string()
    .valid('send', ...SUPPRESSION_REASONS)
    .required(),
});

/** A message as its writer sees it, with its version and what it needs before it can go. */
export interface MessageView {
  id: number;
  name: string;
  channel: SendingChannel;
  purpose: Purpose | null;
  listId: number | null;
  state: MessageState;
  subject: string;
  preheader: string;
  letter: LetterDoc | null;
  text: string;
  recipients: Recipients;
  scheduledAt: string | null;
  updatedAt: string;
  testedAt: string | null;
  tagTriggers: TagTrigger[];
  /** Sent "now": until when it is taken back without a trace. */
  leavesAt: string | null;
  /** Named by whoever saves: of two who save from one version the second is told. */
  version: number;
  groupVersion: number;
}

/** What is wrong in the words of a message: where, and what to do. */
export interface MessageFault {
  where: 'subject' | 'preheader' | 'letter' | 'text' | 'message';
  message: string;
  suggestion: string | null;
  /** The words at fault, as typed. */
  excerpt: string | null;
}

/** What came of a save: the version that it made, and what is wrong with the words. */
export interface SavedWords {
  version: number;
  faults: MessageFault[];
}

/** A message as somebody will get it, made safe to show. */
export interface Preview {
  supporter: { id: number; name: string };
  subject: string;
  html: string;
  text: string;
  parts: number;
  holes: string[];
}

/** Who would get a message now and who not, by reason, with the digest that sending must name. */
export interface LastLook {
  group: number;
  suppressed: { reason: SuppressionReason; people: number }[];
  reached: number;
  parts: number | null;
  holes: { name: string; people: number }[];
  faults: MessageFault[];
  inOrder: string[];
  /** Words of a service message that ask: it needs a second reader. */
  asks: string[];
  /** Somebody else has read it as it is and let it go. */
  seconded: boolean;
  /** Of a text: when it may arrive where the organization is; null where it may at any time. */
  hours: Hours | null;
  /** Says who, what and by which rules: sending names it, and any other is refused. */
  digest: string;
}

/** Query: a page of the people behind one number of a result. */
export const resultPeople = Joi.object({
  ...pageSchema,
  kind: Joi.string()
    .valid(...RESULT_KINDS)
    .required(),
});
/** Body: whether a reply is done. */
export const handled = Joi.object({ handled: Joi.boolean().required() });
/** Body: what became of deliveries of which nobody knows. */
export const settle = Joi.object({ as: Joi.string().valid('sent', 'again').required() });

/** What came of a message: counts, rates with their intervals, links, hours. */
export interface MessageResults {
  message: {
    id: number;
    name: string;
    channel: SendingChannel;
    state: MessageState;
    startedAt: string | null;
  };
  counts: Record<ResultKind, number>;
  rates: { kind: ResultKind; of: number; rate: number; low: number; high: number }[];
  overTime: { at: string; sent: number; opened: number; clicked: number; replied: number; left: number }[];
  links: { url: string; people: number }[];
  /**
   * Messages a second in the last ten seconds, and seconds left at that rate; null when nothing is under way.
   */
  pace: { rate: number; secondsLeft: number | null } | null;
  /** Texts that wait for a decent hour where their people are, and when the first of them leaves. */
  night: { people: number; until: string } | null;
}

/** One person behind a number of a result, with the detail that bears on it. */
export interface ResultPerson {
  supporterId: number;
  name: string;
  address: string;
  at: string | null;
  detail: string;
  deliveryId: number;
}

/** A reply with the message that it answers and who wrote it. */
export interface ReplyView {
  id: number;
  supporterId: number | null;
  name: string;
  from: string;
  channel: SendingChannel;
  body: string;
  at: string;
  handled: boolean;
  message: string | null;
}
