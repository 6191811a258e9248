import { FALL_CAUSES, FALLS } from '../../campaigns';
import { CHANNELS } from '../../permission';
import { cause, VISIT_STATES, wait } from '../automations';
import { flag, listOf, number, oneOf, orNull, part, shape, text, told } from '../kinds';
import { MESSAGE_STATES } from '../messages';
import { ruleTree } from '../segments';

/** How many people are at which state of an automatic message. */
const visitCounts = told(
  'People who wait, who wait for a look, who had all of it, and who get no more.',
  part(Object.fromEntries(VISIT_STATES.map((state) => [state, number]))),
);

/** An automatic message in one line. */
export const automationView = shape('AutomationView', {
  id: number,
  name: text,
  on: flag,
  words: told('When it leaves, as a part of a sentence that begins with “When”.', text),
  messages: told('The names of its messages in their order.', listOf(text)),
  counts: visitCounts,
});

/** One message of it, with how long it waits. */
export const automationStep = shape('AutomationStep', {
  messageId: number,
  version: told('Of its time.', number),
  name: text,
  channel: oneOf(CHANNELS),
  state: oneOf(MESSAGE_STATES),
  wait,
  lacks: told('What keeps it from leaving; empty where it could.', listOf(text)),
  went: told('To how many it has gone.', number),
});

/** An automatic message, whole. */
export const automationWhole = shape('AutomationWhole', {
  id: number,
  version: number,
  name: text,
  on: flag,
  onSince: orNull(text),
  cause,
  words: text,
  again: told('Each time it happens, and not once for each person.', flag),
  stops: told('What ends it for somebody.', listOf(oneOf(FALL_CAUSES))),
  unless: orNull(ruleTree),
  unlessWords: text,
  steps: listOf(automationStep),
  counts: visitCounts,
});

/** What there is to see before it is switched on. */
export const automationLook = shape('AutomationLook', {
  lacks: told('What keeps it from being switched on.', listOf(text)),
  people: told('To how many it happened since the day that was asked for.', number),
  month: told('To how many it happened in the last thirty days.', number),
});

/** One person for whom it was set going. */
export const visitRow = shape('VisitRow', {
  id: number,
  supporterId: number,
  name: text,
  causedAt: told('When it happened.', text),
  dueAt: told('When the next message leaves.', orNull(text)),
  came: told('What became of the last message for them; null where there was none.', orNull(text)),
  next: told('Which message that is, or was to be.', orNull(text)),
  why: told('Why they get no more of it.', orNull(oneOf(FALLS))),
});
