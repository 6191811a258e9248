export { ENCODING_WORDS, ENCODINGS, guessEncoding, type Encoding } from './encoding';
export { decodeFile, DELIMITERS, FILE_LIMITS, readFile, readSheet, writeCsv, type Delimiter, type FileReading, type Read, type Sheet } from './file';
export { cleanEmail, cleanMobile, cleanName, nameMatchKey, type Cleaned } from './clean';
export { BATCH_ROADS, permissionFaults, type ChannelPermission, type ColumnChoice, type IntakePlan } from './plan';
export { choiceKey, guessColumn, guessColumns, guessType, profileColumn, type ColumnProfile, type KnownField } from './guess';
export { cleanRow, type CellFault, type CleanRow } from './row';
export { matchRow, type Candidate, type Match } from './match';
export { readRefusal, type Refusal } from './refusals';
