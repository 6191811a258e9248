export * as answers from './answers';
export * as schema from './schemas';
export type * from './generated';
export type { PeopleColumns } from './columns';
export { TIMELINE_KINDS } from './supporters';
export { roleReaches, ROLES, type Role } from '../team';
export type { Page } from './common';
export type { TimelineKind } from './supporters';
export type { EvidenceDelivery, EvidenceEntry, PermissionReport } from './evidence';
export type { PersonForm, UndoStep } from './record';
export { VISIT_STATES, type VisitState } from './automations';
export { BATCH_STATES, type BatchState, type RowsOnly } from './intake';
export { type BulkState, type ExportForm } from './bulk';
export { RUN_CAUSES, RUN_STATES, SOURCE_KINDS, type RunCause, type RunState, type SourceKind } from './feeds';
export { CALL_AGAIN, CALL_OUTCOMES, type CallWho } from './calls';
export {
  GROUP_KINDS,
  GOING_STATES,
  MESSAGE_STATES,
  RESULT_KINDS,
  type GroupKind,
  MESSAGE_GROUPS,
  type MessageGroup,
  MOST_CHOSEN,
  type MessageState,
  type ResultKind,
  type TagTriggerEvent,
} from './messages';
