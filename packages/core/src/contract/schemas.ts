export { idParams } from './common';
export { chooseChapter, signIn } from './team';
export {
  addContact,
  addEntry,
  addGift,
  EVIDENCE_LIMIT,
  evidenceParams,
  fieldParams,
  listParams,
  changeField,
  fieldType,
  makeField,
  orderFields,
  renameChoice,
  makeList,
  makeTag,
  objection,
  pointParams,
  renameSupporter,
  setField,
  setPlace,
  supporterQuery,
  tagParams,
} from './supporters';
export {
  batchesQuery,
  batchRow,
  batchRowsQuery,
  batchSheet,
  changeLayout,
  decideRows,
  houseFiles,
  intakeDraft,
  intakePlan,
  readAgain,
  sheetForm,
} from './intake';
export { changeCampaign, makeCampaign, rosterOff, rosterPut, rosterQuery } from './campaigns';
export { beginBulk, find, listPeople, savePeopleView } from './bulk';
export { countSegment, explainParams, saveSegment } from './segments';
export { handled, heldQuery, makeMessage, previewQuery, resultPeople, saveMessage, saveRecipients, sendMessage, settle } from './messages';
export { leaveBody, textHook, tokenParams } from './public';
export { addDnc, dncQuery, saveRules, settleTask, textAnswers, weighRules } from './permission';
export { makeForm, openForm, pageQuery, postedChoices, postedForm, saveForm, slugParams } from './forms';
