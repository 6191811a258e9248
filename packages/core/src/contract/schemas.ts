export { idParams } from './common';
export { addressQuery } from './evidence';
export {
  addAutomationStep,
  automationLookQuery,
  changeAutomationStep,
  heldVisits,
  makeAutomation,
  onAutomation,
  saveAutomation,
  someVisits,
  switchOn,
  visitsQuery,
} from './automations';
export { chooseWording, saveComparison } from './comparisons';
export {
  feedHookParams,
  feedSample,
  makeFeed,
  makeFeedSource,
  runFeed,
  runParams,
  saveFeed,
  saveFeedSource,
  turnFeed,
} from './feeds';
export { assignThread, handled, putAside, replyFileParams, threadsQuery } from './inbox';
export { saveMailLimits, saveTextNumber } from './sender';
export {
  beginHouse,
  changePassword,
  changeTeammate,
  chooseChapter,
  forgotten,
  invite,
  linkParams,
  makeChapter,
  saveChapter,
  saveOrganization,
  saveProfile,
  saveStyle,
  signIn,
  takeOutTeammate,
  useLink,
} from './team';
export {
  addContact,
  changeContact,
  addEntry,
  addGift,
  EVIDENCE_LIMIT,
  FIELD_FILE_LIMIT,
  regionsQuery,
  evidenceParams,
  fieldParams,
  listParams,
  changeField,
  fieldType,
  makeField,
  orderFields,
  renameChoice,
  changeList,
  makeList,
  makeTag,
  changeTag,
  groupsQuery,
  joinTag,
  moveLists,
  orderLists,
  objection,
  pointParams,
  renameSupporter,
  setField,
  setPlace,
  supporterQuery,
  tagParams,
  timelineQuery,
} from './supporters';
export {
  batchesQuery,
  batchRow,
  batchRowsQuery,
  batchSheet,
  changeLayout,
  decideRows,
  houseFiles,
  keepDraft,
  intakePlan,
  readAgain,
  sheetForm,
} from './intake';
export { goOn, makeWordNote, settleWordNote, wordNoteParams } from './together';
export { letterFileParams, letterPageQuery, makeLetters, postedLetters } from './letters';
export {
  addStep,
  changeCampaign,
  changeStep,
  makeCampaign,
  pathQuery,
  rosterOff,
  rosterPut,
  rosterQuery,
  savePlan,
  setGoing,
  stepParams,
} from './campaigns';
export {
  householdGreeting,
  joinHousehold,
  mergeQuery,
  mergeRecords,
  noteBody,
  changeNote,
  noteParams,
  personalMessage,
  personalQuery,
  personExport,
  undoParams,
  unmergeParams,
} from './record';
export { answerCall, callParams, callPeople, makeCallList } from './calls';
export { beginBulk, finderQuery, listPeople, savePeopleView } from './bulk';
export {
  countSegment,
  ruleTree,
  explainParams,
  changeSegment,
  saveSegment,
  snapshotSegment,
} from './segments';
export {
  suppressedQuery,
  beginTo,
  makeMessage,
  changeImage,
  mediaParams,
  previewQuery,
  readersQuery,
  resultPeople,
  saveMessage,
  saveRecipients,
  saveTagTriggers,
  agreeToLook,
  aheadQuery,
  ownTimesQuery,
  sendMessage,
  sendTest,
  settle,
  tryAsk,
} from './messages';
export { makeTemplate, saveTemplate, standTemplate, templatesQuery } from './templates';
export { leaveBody, textHook, tokenParams } from './public';
export { addDnc, dncQuery, saveRules, settleRules, settleTask, textAnswers, weighRules } from './permission';
export {
  makeForm,
  openFormSchema,
  pageQuery,
  postedPreferences,
  postedForm,
  saveForm,
  slugParams,
} from './forms';
