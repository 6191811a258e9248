export { idParams } from './common';
export { chooseChapter, signIn } from './team';
export {
  addContact,
  addEntry,
  addGift,
  fieldParams,
  listParams,
  makeField,
  makeList,
  makeTag,
  pointParams,
  renameSupporter,
  setField,
  supporterQuery,
  tagParams,
} from './supporters';
export { batchRowsQuery, intakePlan, startBatch } from './intake';
export { countSegment, explainParams, saveSegment, segmentPeople } from './segments';
export { handled, heldQuery, makeMessage, previewQuery, resultPeople, saveMessage, saveRecipients, sendMessage, settle } from './messages';
export { leaveBody, textHook, tokenParams } from './public';
