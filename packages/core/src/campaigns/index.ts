export { CAMPAIGN_KINDS, FIRST_STAGES, GOAL_KINDS, type CampaignKind, type GoalKind } from './kinds';
export {
  FALLS,
  FALL_CAUSES,
  FELL_OUT,
  fallOf,
  usualEnds,
  type CampaignEnds,
  type Fall,
  type FallCause,
  type RosterFacts,
} from './falling-out';
export { isAskedElsewhere, type Claim } from './one-at-a-time';
export { howManyGet, momentOfStep, STEP_LIMITS, stepsInOrder, type StepTime } from './steps';
