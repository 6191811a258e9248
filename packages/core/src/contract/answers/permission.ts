import { CHANNELS } from '../../permission';
import { shape, text, oneOf, only, told, number, mapOf, listOf, part, orNull, flag } from '../kinds';
import { houseRules } from '../permission';

/** What the program texts back by itself: to HELP, STOP, START and all else. */
export const automaticAnswers = shape('TextAnswers', {
  stop: text,
  help: text,
  start: text,
});

/** How many people a change of rules opens and closes, for one channel and purpose. */
export const ruleEffect = shape('RuleEffect', {
  channel: oneOf(CHANNELS),
  askedFor: only('news', 'appeals', 'volunteering', 'service', 'lists'),
  opens: told('People who could not be written to before and can after; and the other way round.', number),
  closes: number,
});

/** The rules in force with who made them, and those that wait for a second owner. */
export const rulesView = shape('RulesView', {
  version: told('The version that these rules are, to be named when they are changed.', number),
  rules: houseRules,
  people: told(`How many supporters count to each place's rules.`, mapOf(number)),
  history: listOf(
    part({
      id: number,
      words: text,
      effects: listOf(ruleEffect),
      by: orNull(text),
      at: text,
    }),
  ),
  waiting: told(
    'A change that waits for a second owner.',
    orNull(
      part({
        words: text,
        loosens: listOf(text),
        by: text,
        mine: flag,
        at: text,
      }),
    ),
  ),
});

/** What a change of rules would do, counted over everybody on file. */
export const rulesWeighed = shape('RulesWeighed', {
  words: listOf(text),
  loosens: told('What it loosens, a sentence each, whether or not it opens anybody today.', listOf(text)),
  effects: listOf(ruleEffect),
  waits: told('It needs a second owner: saved, it waits for one.', flag),
});

/** One entry of do-not-contact; after an erasure only that there is one. */
export const dncRow = shape('DncRow', {
  id: number,
  kind: only('email', 'mobile', 'domain', 'range'),
  shown: told('Empty after erasure: only the keyed hash is left.', orNull(text)),
  how: text,
  note: text,
  by: orNull(text),
  at: text,
});

/** What came of lines to add: how many are new, were there, or could not be read. */
export const dncAdded = shape('DncAdded', {
  added: number,
  already: number,
  refused: told(
    'Lines that are none of the four kinds, with their number and why.',
    listOf(
      part({
        line: number,
        text: text,
        reason: text,
      }),
    ),
  ),
  closed: told('Addresses on file that are closed by this.', number),
});
