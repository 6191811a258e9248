export type { Brand, ContactPointId, Day, EntryId, Instant, MonthDay, SupporterId } from './brand';
export { Bits } from './bits';
export {
  addMonths,
  dateParts,
  dayInZone,
  dayOf,
  daysSinceBirthday,
  daysToBirthday,
  fiscalStart,
  isoDay,
  keptOn,
  monthStart,
  nextYearStart,
  parseIsoDay,
  startOfDay,
  yearStart,
} from './calendar';
export { distanceKm, parsePoint, type Point } from './distance';
export { editDistance, nearest } from './nearest';
export { said, type Code, type NamedPlace, type Said, type Value } from './said';
export { oneLine, seen, seenAll, visible } from './seen';
