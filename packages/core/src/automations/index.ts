export {
  CAUSES,
  CAUSE_KINDS,
  CAUSE_LIMITS,
  comesAgain,
  GIFT_WHICH,
  type Cause,
  type CauseKind,
  type CauseOf,
  type GiftWhich,
} from './causes';
export { firstMoment, MORNING } from './first';
export { occurrenceKey, takeUp, type Occurrence, type TakenBefore } from './taking-up';
export { endOf, type VisitFacts } from './visits';
export { momentAfter, SERIES_LIMITS, WAIT_UNITS, type Wait, type WaitUnit } from './waits';
