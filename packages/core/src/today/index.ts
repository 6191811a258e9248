export { pressing, WITHIN_HOURS, type WaitingItem, type WaitingKind } from './pressing';
export { USUAL_WEEKS, usualWeek, weekOf } from './weeks';
