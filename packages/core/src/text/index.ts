export { BASIC, EXTENSION, septets } from './gsm7';
export { countParts, ROOM, straighten, type Alphabet, type Parts } from './parts';
export { readKeyword, STOP_WORDS, type Keyword } from './keywords';
