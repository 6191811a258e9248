export { askWords } from './ask';
export { everyWords, feedWords } from './feeds';
export { causeWords, type CauseNames } from './automations';
export { describe, describeWindow, explained, type Explanation } from './segment';
export { FIELD_TYPE_WORDS, STANDARD_FIELD_WORDS } from './fields';
export {
  ENCODING_WORDS,
  DOUBT_WORDS,
  MATCH_KEY_WORDS,
  REFUSAL_WORDS,
  TARGET_WORDS,
  verdictSentence,
} from './intake';
export {
  rulePurposeWords,
  CHANNEL_WORDS,
  ENTRY_WORDS,
  explain,
  FALL_WORDS,
  heldBackWords,
  hoursWords,
  REQUIRED_CONSENT_WORDS,
  PRESET_WORDS,
  PURPOSE_WORDS,
  RELATIONSHIP_WORDS,
  COLLECTION_METHOD_WORDS,
  ruleWords,
  scopeWords,
  STATE_WORDS,
  verdictWords,
} from './permission';
export { placeWords } from './places';
export { LABEL_WORDS } from './print';
export { say, speak, speaker, spoken, type Spoken } from './speak';
export { standardTextAsk } from './text';
export { STARTERS, starterOf, type Starter } from './starters';
export { whyWords, type Basis } from './why';
