export { ENCODINGS, guessEncoding, type Encoding } from './encoding';
export { unscrambled } from './mojibake';
export {
  DELIMITERS,
  FILE_LIMITS,
  type Aside,
  type Delimiter,
  type ParseOptions,
  type FileFindings,
  type Workbook,
} from './reading';
export { RecordReader, Unreadable } from './records';
export { emptiness, FileReader, guessHeader, openFile, type TextLine, type Opening } from './shape';
export { defused, natureOf, notASheet, writeCsv, type FileNature } from './file';
export { CardReader, tableOfCards, type CardRow } from './vcard';
export { plainAmerican } from './plain-numbers';
export {
  cleanEmail,
  cleanMobile,
  cleanName,
  isOneCase,
  cleanPhone,
  cutAddresses,
  cutName,
  cutNameEmail,
  cutPhones,
  looseEmail,
  mailboxOf,
  nameMatchKey,
  type CleanAddress,
  type Cleaned,
} from './clean';
export { addressHint, isRoleAddress, meantDomain } from './health';
export {
  callingCodes,
  normalAddress,
  normalPostcode,
  PHONE_COUNTRIES,
  postalKey,
  shownAddress,
  type PostalAddress,
} from './places';
export { jaro, jaroWinkler, kinship, sameByShortForm, type NameKinship, type PersonName } from './names';
export { readStatus, REFUSAL_STATUSES, type RefusalStatus } from './statuses';
export {
  choiceKey,
  DAY_TARGETS,
  PLAIN_TARGETS,
  type ColumnChoice,
  type Constant,
  type DayTarget,
  type FieldToMake,
  type PlainTarget,
} from './columns';
export { isSwapped, menderOf, type Mend, type Mender } from './mends';
export {
  allColumns,
  BATCH_COLLECTION_METHODS,
  columnFaults,
  fileFaults,
  EMPTY_PLAN,
  permissionFaults,
  withKnownFields,
  withConstants,
  type ChannelPermission,
  type ConfirmRequest,
  type DraftPlan,
  type IntakePlan,
  type PlanFault,
} from './plan';
export { closedScopes, NO_CLOSES, type NoCloses } from './no-closes';
export { birthColumns, isBirth } from './births';
export { targetOf } from './headers';
export { consentHeader, refusedChannels, type ConsentHeader, type RefusedChannel } from './consents';
export { guessAll, usualIn, guessColumn, guessKind, guessType, type Guess, type KnownField } from './guess';
export { ColumnSampler, type ColumnProfile } from './column-profile';
export { ChapterFinder, readHomes, type ChapterHome } from './chapters';
export { ROW_VERDICTS, type RowVerdict } from './row-verdicts';
export { gatherSpellings, type SpellingGroup } from './spellings';
export { applyLayout, bestLayout, layoutKey, withFieldsNow, type Layout, type LayoutFit } from './layouts';
export { cutTags, joinTags } from './tags';
export {
  BATCH_KINDS,
  cleanRow,
  LONGEST,
  readsRefusals,
  serialDay,
  type BatchKind,
  type RowRules,
} from './row';
export { type CellFault, type CleanRow, type GiftCells } from './clean-row';
export {
  DOUBT_KINDS,
  MATCH_KEYS,
  matchRow,
  type Candidate,
  type FoundBy,
  type DoubtKind,
  type Match,
  type MatchKey,
  type Scored,
} from './match';
export { placeOfRow, type RowPlace } from './place';
export { refusalDomains, readRefusal, type Refusal } from './refusals';
export { domainsOfRow, withDomains, type DomainFacts } from './domains';
export { writeCard, type CardPerson } from './vcard-writer';
