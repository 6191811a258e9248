export {
  reportedRecipients,
  returnedMail,
  type ReportedRecipient,
  type ReturnedMail,
  type ReturnPathMail,
} from './reports';
export { brakeAt, USUAL_BRAKE, type BrakeCounts, type BrakeLimits } from './brake';
export {
  DELIVERY_FAULTS,
  deliveryFault,
  enhancedStatus,
  FULL_MAILBOX,
  PAUSE_AT_POLICY,
  RETRY_MINUTES,
  retryAfter,
  type DeliveryFault,
  type EnhancedStatus,
  type MailRefusal,
} from './faults';
export {
  alignmentOf,
  checkRecord,
  DEMANDS,
  isAligned,
  metDemands,
  MOST_COMPLAINTS,
  RECORD_FAULTS,
  SENDER_RECORDS,
  wantedRecords,
  type CheckedRecord,
  type Demand,
  type RecordFault,
  type RecordKind,
  type SenderFacts,
  type SenderRecord,
  type SigningKey,
  type WantedRecord,
} from './sender';
export { NUMBER_KINDS, REGISTRATIONS, type TextNumber } from './numbers';
export { DomainRests, PUT_OFF_IN_A_ROW, REST_MINUTES } from './domain-rest';
export {
  lastLeaves,
  LIMITS_BY,
  mailsLeft,
  USUAL_WARM_UP,
  warmUpOf,
  type LimitedBy,
  type MailingBegun,
  type MailLimits,
  type MailsSent,
} from './limits';
export { textFault, type TextRefusal } from './text-faults';
export { otherSmppIds, readSmppReceipt, smppId, type ReceiptSaid, type SmppReceipt } from './smpp-receipts';
