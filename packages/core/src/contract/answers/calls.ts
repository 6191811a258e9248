import { MESSAGE_STATES } from '../messages';
import { PURPOSES } from '../../permission';
import { shape, number, text, orNull, part, oneOf, told, listOf } from '../kinds';

/** A list to call through, with how many are called, passed over and left. */
export const callListView = shape('CallListView', {
  id: number,
  name: text,
  campaign: orNull(
    part({
      id: number,
      name: text,
    }),
  ),
  script: text,
  purpose: oneOf(PURPOSES),
  people: number,
  called: told('Of whom it is known what came of a call, `again` included.', number),
  again: told('Who was not reached or had no time, and may be called once more.', number),
  suppressed: told('Who may not be called for this, and is passed over.', number),
  outcomes: listOf(
    part({
      outcome: text,
      people: number,
    }),
  ),
  options: told('What can be answered, in the order of the keys 1 to 9.', listOf(text)),
  madeBy: text,
  madeAt: text,
  step: told(
    'The step of a campaign whose calls these are, and how it stands.',
    orNull(part({ messageId: number, state: oneOf(MESSAGE_STATES) })),
  ),
});

/** The hours of somebody's place, in words, and when they begin; null while they last. */
export const hoursOfCall = shape('CallHours', {
  words: text,
  from: orNull(text),
});

/** One person of a list of calls: the number that permission chose, its hours, what came of it. */
export const callRow = shape('CallRow', {
  position: told('The number on the printed sheet.', number),
  supporterId: number,
  name: text,
  phone: told('The number that permission chose; left out while it is no decent hour there.', orNull(text)),
  hours: hoursOfCall,
  suppressed: told('Why this person is not to be called; null where they may be.', orNull(text)),
  stage: orNull(text),
  outcome: orNull(text),
  note: text,
  lastGift: orNull(
    part({
      amount: number,
      on: text,
    }),
  ),
  script: told(`The script with this person's values.`, text),
});

/** The calls of a step of a campaign: its lists, each with how far it is. */
export const stepCalls = shape('StepCalls', {
  lists: listOf(
    part({
      id: number,
      name: text,
      people: number,
      called: number,
      again: number,
      suppressed: number,
    }),
  ),
  waiting: told('How many are still to be called, or to be called once more.', number),
});
