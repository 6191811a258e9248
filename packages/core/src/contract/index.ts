export * as schema from './schemas';
export { TIMELINE_KINDS } from './supporters';
export { roleReaches, ROLES, type Role } from '../team';
export type {
  LinkView,
  OrganizationView,
  Profile,
  SessionLine,
  SessionView,
  TeammateView,
  WaitingFor,
} from './team';
export type { Page } from './common';
export type {
  ContactPointView,
  DeletionNotice,
  EntryView,
  ChangeField,
  ChoiceUse,
  Conversion,
  FieldAdminView,
  FieldDeletion,
  FieldView,
  ListView,
  NewAddress,
  NewPostal,
  RecordView,
  ConsentStatusView,
  SupporterRow,
  MembershipView,
  TagUse,
  TagView,
  TimelineItem,
  TimelineKind,
} from './supporters';
export type { AddressHolder, EvidenceDelivery, EvidenceEntry, PermissionReport } from './evidence';
export type {
  HouseholdView,
  MergeLine,
  MergePreview,
  NoteView,
  PersonalMessage,
  PersonalVerdict,
  PersonForm,
  UndoStep,
} from './record';
export type { DncAdded, DncRow, RuleEffect, RulesView, RulesWeighed, TextAnswers } from './permission';
export type { FormCounts, FormView } from './forms';
export {
  BATCH_STATES,
  type BatchPreview,
  type BatchRowView,
  type RowWrites,
  type BatchState,
  type BatchView,
  type BatchWill,
  type DecideRows,
  type IntakeDraft,
  type JobView,
  type LayoutView,
  type DoubleView,
  type RowsOnly,
  type LikelyDouble,
} from './intake';
export { type CampaignView, type MakeCampaign, type RosterGroup, type RosterRow } from './campaigns';
export type { TextHook } from './public';
export type { BulkAct, BulkState, BulkView, ExportForm, FinderHit, PeopleColumns, PeopleView } from './bulk';
export type { PeopleGroup } from './groups';
export {
  CALL_AGAIN,
  CALL_OUTCOMES,
  type CallAnswer,
  type CallListView,
  type CallHours,
  type CallRow,
  type CallWho,
  type MakeCallList,
  type PrintAct,
} from './calls';
export type { CountedStep, SegmentCount, SegmentSize, SegmentVersion, SegmentView } from './segments';
export {
  GROUP_KINDS,
  MESSAGE_STATES,
  RESULT_KINDS,
  type GroupKind,
  type BeginTo,
  type GroupRef,
  MESSAGE_GROUPS,
  type MessageGroup,
  MOST_CHOSEN,
  type LastLook,
  type MessageFault,
  type SavedWords,
  type MessageResults,
  type MessageState,
  type MessageView,
  type Preview,
  type Recipients,
  type ReplyView,
  type ResultKind,
  type ResultPerson,
  type TagTrigger,
  type TagTriggerEvent,
  type ReaderView,
} from './messages';

/** RFC 9457 problem details, with the faults of each field. */
export interface ProblemDetails {
  type: string;
  title: string;
  status: number;
  detail: string;
  faults?: { field: string; code: string; message: string }[];
  /** The supporter whose record stands in the place of the one asked for. */
  instead?: number;
  /** Somebody saved it meanwhile: what is there now is newer than what was changed. */
  newer?: boolean;
  /** What stands there now, where that is one value. */
  now?: string;
}

export type { DoneView, LeavingMessage, StopTask, TodayView, WaitingBatch, WeekView } from './today';
