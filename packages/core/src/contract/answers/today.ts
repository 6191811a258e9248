import { BATCH_STATES } from '../intake';
import { MESSAGE_STATES } from '../messages';
import { CHANNELS } from '../../permission';
import { shape, number, text, oneOf, told, orNull, listOf, part, only } from '../kinds';

/** A batch that somebody began and nobody ended. */
export const waitingBatch = shape('WaitingBatch', {
  id: number,
  name: text,
  state: oneOf(BATCH_STATES),
  rows: number,
  by: told('Who began it, and when.', text),
  at: text,
});

/** A message on its way. */
export const leavingMessage = shape('LeavingMessage', {
  id: number,
  name: text,
  state: oneOf(MESSAGE_STATES),
  channel: oneOf(CHANNELS),
  when: orNull(text),
  pausedWhy: told('Why it paused itself.', orNull(text)),
  people: told(
    'Whom the last look found for it; of one that leaves already, who is still to get it. Null before a look.',
    orNull(number),
  ),
});

/** A reply that says stop in its own words. */
export const stopTask = shape('StopTask', {
  taskId: number,
  supporterId: orNull(number),
  name: text,
  words: text,
  at: text,
});

/** What waits and what leaves; for a team in one chapter, of that chapter. */
export const todayView = shape('TodayView', {
  batches: listOf(waitingBatch),
  arrived: told(
    'Batches that came in lately and that nobody has looked at since.',
    listOf(
      part({
        id: number,
        name: text,
        at: text,
        people: number,
      }),
    ),
  ),
  messages: listOf(leavingMessage),
  piles: told(
    'Automatic messages that were set going for so many at once that they wait for a look.',
    listOf(part({ id: number, name: text, people: number, at: text })),
  ),
  feeds: told(
    'Feeds that stopped by themselves, and why.',
    listOf(part({ id: number, name: text, problem: text, at: text })),
  ),
  replies: told('How many people wait for an answer.', number),
  firstReply: told(
    'The one that waits longest.',
    orNull(
      part({
        name: text,
        words: text,
        message: orNull(text),
        at: text,
      }),
    ),
  ),
  unsure: number,
  unsureMessageId: told(
    'The newest message with an unsure mail, and since when the oldest is unsure.',
    orNull(number),
  ),
  unsureSince: orNull(text),
  onHold: number,
  goes: told(
    'Drafts that somebody handed over for a go, the longest waiting first.',
    listOf(part({ id: number, name: text, by: text, at: text, note: text })),
  ),
  drafts: number,
  draft: told(
    'The draft that was changed last.',
    orNull(
      part({
        id: number,
        name: text,
        at: text,
      }),
    ),
  ),
  sender: told('How many things are known to be wrong with as whom mail goes out.', number),
  lapsing: told(
    'People whose implied permission for appeals by email lapses within this many days.',
    part({
      people: number,
      days: number,
    }),
  ),
  stops: told('Texts that plainly ask to stop, held until a person has read them.', listOf(stopTask)),
  erasures: told(
    'People who asked to be erased; only owners see them.',
    listOf(
      part({
        taskId: number,
        supporterId: number,
        name: text,
        at: text,
      }),
    ),
  ),
});

/**
 * What the last seven days brought, today among them, and what a week brings usually (null where less than
 * four weeks lie behind). Money in minor units of the organization's currency.
 */
export const weekView = shape('WeekView', {
  figures: listOf(
    part({
      kind: only('replied', 'left', 'joined', 'gave'),
      now: number,
      usual: orNull(number),
    }),
  ),
  weeks: told('Over how many weeks "usually" is taken.', number),
});

/**
 * What was done since midnight where the organization is: replies settled, people brought in, messages handed
 * over.
 */
export const doneView = shape('DoneView', {
  answered: number,
  broughtIn: number,
  sent: number,
});
