import { GO_STATES } from '../../team';
import { listOf, number, oneOf, orNull, part, shape, text, told } from '../kinds';

/** What was said last of a draft that was handed over for a go. */
export const goView = shape('GoView', {
  state: oneOf(GO_STATES),
  version: told('The version of the words that it was said of.', number),
  askedBy: orNull(number),
  by: told('Who said it, by id; null where they are gone.', orNull(number)),
  at: text,
  note: text,
});

const said = { id: number, by: told('What they are called.', orNull(text)), at: text, body: text };

/** A note to a place in a message, with what was answered to it. */
export const wordNoteView = shape('WordNoteView', {
  ...said,
  quote: told('The words that it is about; empty for all of it.', text),
  answers: listOf(part(said)),
  settledBy: orNull(text),
  settledAt: orNull(text),
});
