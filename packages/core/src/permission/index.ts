export * from './vocabulary';
export { foldEntry, joinMarks, marksFor, type Mark, type Marks } from './fold';
export { DEFAULT_RULES, mayWrite, type HouseRules } from './house-rules';
export {
  decide,
  HELD_REASONS,
  oneCopyPerAddress,
  standing,
  type Address,
  type Decision,
  type HeldReason,
  type Standing,
  type Verdict,
} from './decide';
export { CHANNEL_WORDS, PURPOSE_WORDS, ROAD_WORDS, STATE_WORDS, VERDICT_WORDS } from './words';
