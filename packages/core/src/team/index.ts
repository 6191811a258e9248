export { ROLES, roleReaches, type Role } from './roles';
export {
  GO_ACTS,
  GO_STATES,
  goStanding,
  hasItsGo,
  mayGo,
  type Go,
  type GoAct,
  type GoStanding,
  type GoState,
} from './go';
export { imprintOf, isCurrency, isLocale, isTimeZone } from './organization';
export { hasSecond, wantsSecond, type SecondAsked, type SecondSaid } from './second';
