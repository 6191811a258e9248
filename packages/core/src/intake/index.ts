export { decodeFile, FILE_LIMITS, readSheet, writeCsv, type Read, type Sheet } from './file';
export { cleanEmail, cleanMobile, cleanName, nameMatchKey, type Cleaned } from './clean';
export { BATCH_ROADS, permissionFaults, type ChannelPermission, type ColumnChoice, type IntakePlan } from './plan';
export { choiceKey, guessColumn, guessColumns, guessType, profileColumn, type ColumnProfile, type KnownField } from './guess';
export { cleanRow, type CellFault, type CleanRow } from './row';
export { matchRow, type Candidate, type Match } from './match';
export { readRefusal, type Refusal } from './refusals';
