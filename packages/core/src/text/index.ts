export { BASIC, EXTENSION, septets } from './gsm7';
export { countParts, ROOM, straighten, type Alphabet, type Parts } from './parts';
export { isConfirmWord, isStopMail, keywordKey, ownWords, plainlySaysStop, readKeyword, STOP_WORDS, type Keyword } from './keywords';
export { standardTextAsk, textAskFaults } from './wording';
