import { SENDING_CHANNELS } from '../../permission';
import { THREAD_ITEMS } from '../inbox';
import { flag, listOf, number, oneOf, orNull, part, shape, told, text } from '../kinds';

const mate = part({ id: number, name: text });

/** What one person wrote back, as a line of the list. */
export const threadLine = shape('ThreadLine', {
  replyId: told('Their newest reply, by which the thread is named.', number),
  supporterId: told('Null where the address is nobody’s.', orNull(number)),
  name: text,
  channel: oneOf(SENDING_CHANNELS),
  words: told('The beginning of the newest.', text),
  at: text,
  waiting: told('So many of theirs are open.', number),
  unread: told('Nobody has read the newest yet.', flag),
  assignedTo: orNull(mate),
  asideUntil: orNull(text),
  message: told('The message that they answer.', orNull(text)),
});

/** Threads, newest first, and how many there are of each sort. */
export const threadsView = shape('ThreadsView', {
  threads: listOf(threadLine),
  counts: part({ open: number, mine: number, aside: number, unread: number }),
});

/** All that passed between somebody and us in words, the oldest first. */
export const threadView = shape('ThreadView', {
  replyId: number,
  supporterId: orNull(number),
  name: text,
  from: told('Where their newest came from, as it is on file: an answer goes there.', text),
  channel: oneOf(SENDING_CHANNELS),
  subject: text,
  message: orNull(text),
  open: told('So many of theirs are not done.', number),
  assignedTo: orNull(mate),
  asideUntil: orNull(text),
  question: told(
    'They seem to ask to stop, and what they wrote on is on hold until somebody says what was meant.',
    orNull(part({ taskId: number, words: text })),
  ),
  after: told('Our newest message to them alone: an answer names it.', orNull(number)),
  mates: told('Who may answer.', listOf(mate)),
  items: listOf(
    shape('ThreadItem', {
      kind: oneOf(THREAD_ITEMS),
      id: number,
      at: text,
      channel: orNull(oneOf(SENDING_CHANNELS)),
      by: told('Who of the team; of theirs the address that it says itself.', text),
      subject: text,
      words: text,
      message: told('Of theirs, the message that it answers.', orNull(part({ id: number, name: text }))),
      keyword: told(
        'Of theirs: `none` for words to us, `machine` for what a machine answered, else what it did.',
        text,
      ),
      state: told('Of ours, how its delivery stands; null before it has one.', orNull(text)),
      files: listOf(
        part({
          id: number,
          name: text,
          bytes: number,
          refused: told('Why it was not kept.', orNull(oneOf(['kind', 'many', 'empty']))),
        }),
      ),
    }),
  ),
});
