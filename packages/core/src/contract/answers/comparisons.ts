import { COMPARE_MEASURES } from '../../wordings';
import { listOf, number, oneOf, orNull, part, shape, told, text, flag } from '../kinds';
import { MESSAGE_STATES } from '../messages';

/** The wordings of a message, how they are compared, and what came of it so far. */
export const comparisonView = shape('ComparisonView', {
  messageId: told('The message whose wordings they are: its own is the first.', number),
  version: number,
  share: told('Of a hundred people so many get one of them first.', number),
  measure: oneOf(COMPARE_MEASURES),
  hours: told('So many after the last of those has left it is decided.', number),
  wordings: told(
    'The first is the message itself; none at all where there is no other.',
    listOf(
      part({
        id: number,
        name: text,
        subject: text,
        sender: told('Another name than that of the first, where it has one.', orNull(text)),
        state: oneOf(MESSAGE_STATES),
        came: told('To how many of those who were drawn it came.', number),
        did: told('How many of them did what counts.', number),
        gone: told('To how many it has gone in all, the rest among them.', number),
        beside: told(
          'How much more than of the first, with the range that it is in with 95 % confidence; 0 to 1.',
          orNull(part({ more: number, low: number, high: number })),
        ),
      }),
    ),
  ),
  better: told(
    'Which it would be now, and whether a difference is seen.',
    part({ id: number, differs: flag }),
  ),
  rest: told('How many wait for the better one.', number),
  leaving: told('How many of those who were drawn have not left yet.', number),
  decidesAt: told('When it is decided, by now; null before it can be said, and after.', orNull(text)),
  decided: orNull(
    part({
      id: number,
      at: text,
      by: told('The teammate who chose it; null where it was decided by what people did.', orNull(text)),
    }),
  ),
});
