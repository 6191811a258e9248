export { BASIC, EXTENSION, septets } from './gsm7';
export { askingIn, ASKING_WORDS } from './asking';
export { aroundText } from './around';
export { countParts, ROOM, straighten, type Alphabet, type Parts } from './parts';
export { TextCrowd, type TextsOfCrowd } from './crowd';
export { ownWords } from './own-words';
export { isConfirmWord, keywordKey, readIntent, type ReplyIntent } from './reading';
export { PLAIN_STOPS, WHOLE_STOPS } from './stop-words';
export { textAskFaults } from './wording';
