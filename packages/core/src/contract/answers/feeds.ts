import { feedPlan, RUN_CAUSES, RUN_STATES, SOURCE_KINDS } from '../feeds';
import { flag, listOf, number, oneOf, orNull, part, shape, text, told } from '../kinds';
import { guess } from './of-core';

/** A system that feeds take from; its token is never told. */
export const feedSourceView = shape('FeedSourceView', {
  id: number,
  version: number,
  name: text,
  kind: oneOf(SOURCE_KINDS),
  url: text,
  hasToken: flag,
  feeds: told('How many feeds take from it.', number),
});

/** One run of a feed, with its counts. */
export const feedRunView = shape('FeedRunView', {
  id: number,
  cause: oneOf(RUN_CAUSES),
  state: oneOf(RUN_STATES),
  batchId: told('The batch that it is; null where nothing came.', orNull(number)),
  looksBatchId: told('The batch of those that wait for a look.', orNull(number)),
  beganAt: text,
  endedAt: orNull(text),
  beganBy: orNull(text),
  fresh: number,
  changed: number,
  same: number,
  gone: number,
  looks: told('Rows that wait for a look.', number),
  notTaken: number,
  problem: orNull(text),
});

/** A feed in one line. */
export const feedView = shape('FeedView', {
  id: number,
  name: text,
  source: text,
  on: flag,
  words: told('What it takes and when, as a sentence.', text),
  lacks: told('How much is missing before it can be turned on.', number),
  problem: told('Why it stopped by itself; null where it did not.', orNull(text)),
  nextRunAt: orNull(text),
  last: orNull(feedRunView),
});

/** What is missing, by sentence. */
const lack = part({ sentence: text, words: text });

/** A feed, whole. */
export const feedWhole = shape('FeedWhole', {
  id: number,
  version: number,
  name: text,
  source: feedSourceView,
  plan: feedPlan,
  on: flag,
  onSince: orNull(text),
  nextRunAt: orNull(text),
  problem: orNull(text),
  lacks: listOf(lack),
  records: told('How many records over there it knows.', number),
  runs: told('Its last runs, newest first.', listOf(feedRunView)),
  telling: told(
    'Noes that its source is told of, and what keeps the first that waits.',
    part({ told: number, waiting: number, problem: orNull(text) }),
  ),
});

/** A no that its source is still to be told of. */
export const feedNotice = shape('FeedNotice', {
  id: number,
  supporterId: number,
  name: text,
  record: text,
  words: told('What it is a no to.', text),
  at: text,
  attempts: number,
  problem: orNull(text),
});

const named = part({ key: text, name: text });

/** What a source has to take. */
export const feedOffer = shape('FeedOffer', {
  types: listOf(part({ key: text, name: text, filters: listOf(named) })),
  tells: told('It can tell of changes as they happen.', flag),
  takes: told('It can be told of a no.', flag),
});

/** The first rows over there as they come, and what each column may become. */
export const feedRows = shape('FeedRows', {
  header: listOf(text),
  rows: listOf(listOf(text)),
  guesses: listOf(guess),
  key: told('The column that most likely tells one record from another.', orNull(text)),
});
