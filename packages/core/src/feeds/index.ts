export { RecordComparison, type ChangedRecord, type KnownRecord, type SeenCounts } from './changes';
export {
  EMPTY_FEED,
  feedFaults,
  FIRST_CAME,
  intakePlanOf,
  permissionColumns,
  type FeedColumn,
  type FeedFault,
  type FeedBasis,
  type FeedPlan,
  type FeedSentence,
  type Gone,
  type NamedThere,
} from './plan';
export { MOST_FAILURES, NEVER_UNUSUAL, TRY_AGAIN_MINUTES, unusual, type RunSize } from './usual';
export { FEED_CLOCK, nextRun, type Every, type FeedWhen } from './when';
