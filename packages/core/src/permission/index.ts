export * from './vocabulary';
export { foldEntry, joinMarks, MARK_KINDS, marksFor, type Mark, type MarkKind, type Marks } from './fold';
export {
  ASKED_FOR,
  askedFor,
  changedQuestions,
  lapseOf,
  mayWrite,
  NEEDS,
  PRESET_NAMES,
  placeKeyOf,
  ruleFaults,
  rulesFor,
  type AskedFor,
  type Cap,
  type Hours,
  type HouseRules,
  type Need,
  type PlaceRules,
  type PresetName,
} from './house-rules';
export { askedForWords, clockWords, NEED_WORDS, ruleChangeWords } from './rule-words';
export { ELSEWHERE, isPlaceKey, keysFor, UNION, UNION_COUNTRIES, type Place, type PlaceKey } from './places';
export { PRESETS, startingRules, withOption, type Preset, type PresetOption } from './presets';
export {
  decide,
  decideBy,
  HELD_REASONS,
  isPaused,
  mayAskToConfirm,
  mustConfirm,
  oneCopyPerAddress,
  standing,
  type Address,
  type Decision,
  type HeldReason,
  type Question,
  type Standing,
  type Verdict,
} from './decide';
export {
  CHANNEL_WORDS,
  ENTRY_WORDS,
  explain,
  placeWords,
  PURPOSE_WORDS,
  RELATIONSHIP_WORDS,
  ROAD_WORDS,
  scopeWords,
  STATE_WORDS,
  VERDICT_WORDS,
} from './words';
