import { LIMITS_BY } from '../../delivery';
import { PROOF_KINDS } from '../../proofs';
import { CHANNELS, PURPOSES, SUPPRESSION_REASONS } from '../../permission';
import { MESSAGE_STATES, RESULT_KINDS, groupRef, tagTrigger } from '../messages';
import { shape, listOf, number, text, oneOf, orNull, told, only, part, flag } from '../kinds';
import { askRule, letterDoc } from './letter';
import { goView } from './together';
import { hours } from './of-core';

/** Any of these, and people who were chosen by hand; minus any of those, minus single people. */
export const recipients = shape('Recipients', {
  from: listOf(groupRef),
  chosen: listOf(number).optional(),
  minus: listOf(groupRef),
  without: listOf(number),
  apart: told('By post: one letter each, also to people of one household.', flag.optional()),
});

/** A message as its writer sees it, with its version and what it needs before it can go. */
export const messageShown = shape('MessageView', {
  id: number,
  name: text,
  channel: oneOf(CHANNELS),
  purpose: orNull(oneOf(PURPOSES)),
  listId: orNull(number),
  state: oneOf(MESSAGE_STATES),
  subject: text,
  preheader: text,
  letter: orNull(letterDoc),
  text: text,
  template: told(
    'The template whose words it began with; its name is null where it has been deleted.',
    orNull(shape('TemplateOrigin', { id: number, version: number, name: orNull(text) })),
  ),
  locale: told(
    'The language and country that it is written for (BCP 47); null for the organization’s.',
    orNull(text),
  ),
  ask: told('The amounts that it asks for; null where it says none of its own.', orNull(askRule)),
  plainly: told('Of a text: values are written in the letters that cost least.', flag),
  senderId: told('The teammate as whom it goes out.', orNull(number)),
  go: told('What was said of it since it was handed over for a go; null where nobody asked.', orNull(goView)),
  recipients: recipients,
  scheduledAt: orNull(text),
  updatedAt: text,
  testedAt: orNull(text),
  tagTriggers: listOf(tagTrigger),
  ownTime: told('At that time where each of them is.', flag),
  spreadHours: told('Over so many hours from then on; null for all at once.', orNull(number)),
  keptShare: told('Of a hundred so many are kept without it, by lot; null for none.', orNull(number)),
  campaignId: told('The campaign that it is a step of, and leaves with.', orNull(number)),
  automationId: told('The automatic message that it is one of.', orNull(number)),
  wordingOf: told('The message that it is another wording of, and leaves with.', orNull(number)),
  leavesAt: told('Sent "now": until when it is taken back without a trace.', orNull(text)),
  version: told('Named by whoever saves: of two who save from one version the second is told.', number),
  groupVersion: number,
});

/** What is wrong in the words of a message: where, and what to do. */
export const messageFault = shape('MessageFault', {
  where: only('text', 'message', 'subject', 'preheader', 'letter'),
  message: text,
  suggestion: orNull(text),
  excerpt: told('The words at fault, as typed.', orNull(text)),
});

const doubts = told('Worth a second look; nothing is held back for it.', listOf(text));

/** What is wrong with the words of a message, and what is worth a second look. */
export const checkedWords = shape('CheckedWords', { faults: listOf(messageFault), doubts });

/** What came of a save: the version that it made, and what its words were found to be. */
export const savedWords = shape('SavedWords', { version: number, faults: listOf(messageFault), doubts });

/** A message as somebody will get it, made safe to show. */
export const preview = shape('Preview', {
  supporter: part({
    id: number,
    name: text,
  }),
  subject: text,
  preheader: text,
  headers: told(
    'The headers that a mail leaves with, links of one’s own left out.',
    listOf(part({ name: text, value: text })),
  ),
  html: text,
  text: text,
  parts: number,
  holes: listOf(text),
});

/** Whom a message is worth reading as before it leaves, as far as it is looked through. */
export const proofsShown = shape('ProofsView', {
  state: only('none', 'waiting', 'running', 'done', 'failed'),
  isCurrent: told('Found for the words and the group of today.', flag),
  done: number,
  total: number,
  seconds: orNull(number),
  found: listOf(
    part({
      kind: oneOf(PROOF_KINDS),
      people: number,
      measure: told('How long, how many, how much, of those shown.', orNull(number)),
      readers: listOf(part({ id: number, name: text })),
    }),
  ),
});

/** A picture of the library, with its words for those who do not see it. */
export const imageView = shape('ImageView', {
  id: number,
  name: text,
  alt: text,
  folder: told('Where it lies; empty for none.', text),
  width: number,
  height: number,
  bytes: number,
  src: text,
  usedBy: told('What has not left and shows it, by name.', listOf(text)),
});

const giving = part({
  people: number,
  gave: told('How many of them have given since it began to leave.', number),
  given: told('How much, in hundredths.', number),
});

/** What came of a message: counts, rates with their intervals, links, hours. */
export const messageResults = shape('MessageResults', {
  message: part({
    id: number,
    name: text,
    channel: oneOf(CHANNELS),
    state: oneOf(MESSAGE_STATES),
    startedAt: orNull(text),
    pausedWhy: told('Why it paused itself; null where a person did, or it is not paused.', orNull(text)),
  }),
  counts: part({
    opened: number,
    clicked: number,
    replied: number,
    failed: number,
    left: number,
    bounced: number,
    door: number,
    waiting: number,
    kept: number,
    sent: number,
    delivered: number,
    unsure: number,
    suppressed: number,
  }),
  without: told(
    'Those who were kept without it beside those whom it has gone to; null where nobody was.',
    orNull(
      part({
        kept: giving,
        meant: giving,
        more: told(
          'How much larger the share of givers is, 0 to 1, with its range at 95 % confidence.',
          number,
        ),
        low: number,
        high: number,
        differs: told('Whether a difference is seen.', flag),
      }),
    ),
  ),
  rates: listOf(
    part({
      kind: oneOf(RESULT_KINDS),
      of: number,
      rate: number,
      low: number,
      high: number,
    }),
  ),
  overTime: listOf(
    part({
      at: text,
      sent: number,
      opened: number,
      clicked: number,
      replied: number,
      left: number,
    }),
  ),
  links: listOf(
    part({
      url: text,
      people: number,
    }),
  ),
  pace: told(
    'Messages a second in the last ten seconds, and seconds left at that rate; null when nothing is under way.',
    orNull(
      part({
        rate: number,
        secondsLeft: orNull(number),
      }),
    ),
  ),
  limited: told('Which limit of the house holds the rest of a mailing back now.', orNull(oneOf(LIMITS_BY))),
  turn: told(
    'Those whose own time has not come, by their clock or as it is spread, and when the last of them gets it.',
    orNull(
      part({
        people: number,
        until: text,
      }),
    ),
  ),
  night: told(
    'Texts that wait for a decent hour where their people are, and when the first of them leaves.',
    orNull(
      part({
        people: number,
        until: text,
      }),
    ),
  ),
});

/** One person behind a number of a result, with the detail that bears on it. */
export const resultPerson = shape('ResultPerson', {
  supporterId: number,
  name: text,
  address: text,
  at: orNull(text),
  detail: text,
  deliveryId: number,
});

/** Somebody whom a message can be read as: the address, or why it would not reach them. */
export const readerView = shape('ReaderView', {
  id: number,
  name: text,
  address: told('Where it would go; null where there is no such address.', orNull(text)),
  note: told('Why they would not get it; null of those who would.', orNull(text)),
});

/** Who would get a message now and who not, by reason, with the digest that sending must name. */
/** When a time comes to people where they are, the earliest first. */
export const ownTimesView = shape('OwnTimesView', {
  zones: listOf(
    part({
      zone: told('IANA.', text),
      people: number,
      at: text,
      change: told(
        'Where clocks are put forward or back then: the time is left out there, or comes twice.',
        orNull(only('left-out', 'twice')),
      ),
    }),
  ),
  over: told('For so many it is over already: they get it as soon as it begins.', number),
});

/** Another message that is planned, and how many of those reached are to get it too. */
export const overlap = shape('Overlap', {
  messageId: number,
  name: text,
  channel: oneOf(CHANNELS),
  at: told('When that one leaves.', text),
  people: number,
});

/** What is to come for those whom a message reaches, until the last of them has it. */
export const aheadView = shape('AheadView', {
  at: told('When it would leave.', text),
  lapses: told('Who may be written to now and not by then.', number),
  enough: told('Who will have had enough by then, with what is planned before it.', number),
  gave: told('Of an appeal: who gave since the day that is named.', number),
  gaveSince: told('As YYYY-MM-DD.', text),
  waits: told(
    'Of a text: who waits for a decent hour where they are, the soonest first.',
    listOf(part({ zone: text, at: text, people: number })),
  ),
  domains: told(
    'Of an email: where most of it goes, and for how long at the pace of the mailing before.',
    listOf(part({ domain: text, people: number, seconds: orNull(number) })),
  ),
  lastLeaves: told('About when the last one leaves; null where nothing tells it.', orNull(text)),
});

/** Who will get a message and who will not, with everything to know before it leaves. */
export const lastLook = shape('LastLook', {
  group: number,
  suppressed: listOf(
    part({
      reason: oneOf(SUPPRESSION_REASONS),
      people: number,
    }),
  ),
  reached: number,
  parts: orNull(number),
  texts: told(
    'Of a text: how many get how many parts, which fields make it longer, and what it costs.',
    orNull(
      part({
        byParts: listOf(part({ parts: number, people: number })),
        costly: listOf(part({ name: text, people: number })),
        saved: told('Parts saved where values are written plainly.', number),
        cost: told('In units of the currency; null where no price is set.', orNull(number)),
      }),
    ),
  ),
  holes: listOf(
    part({
      name: text,
      people: number,
    }),
  ),
  faults: listOf(messageFault),
  doubts,
  inOrder: listOf(text),
  asks: told('Words of a service message that ask: it needs a second reader.', listOf(text)),
  second: told(
    'Where somebody else has to agree: why, above how many, and what was agreed to.',
    orNull(
      part({
        why: only('asks', 'many'),
        above: number,
        by: told('Who agreed last; null where nobody did.', orNull(text)),
        own: told('That was whoever asks: another may send it.', flag),
        reached: told('To so many it was agreed.', number),
        holds: told('Whoever asks may send it as it is now.', flag),
      }),
    ),
  ),
  /** Of a text: when it may arrive where the organization is; null where it may at any time. */
  hours: orNull(hours),
  digest: told('Says who, what and by which rules: sending names it, and any other is refused.', text),
});
