export { pressing, WITHIN_HOURS, type Waiting, type WaitingKind } from './pressing';
export { USUAL_WEEKS, usualWeek, weekOf } from './weeks';
