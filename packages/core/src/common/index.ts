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
  noonOf,
  keptOn,
  monthStart,
  nextYearStart,
  parseIsoDay,
  startOfDay,
  yearStart,
} from './calendar';
export { distanceKm, parsePoint, type GeoPoint } from './distance';
export { editDistance, nearest } from './nearest';
export { said, type Code, type NamedPlace, type Said, type SaidValue } from './said';
export { oneLine, seen, seenAll, visible } from './seen';
export type { NewAddress, NewPostal } from './new-address';
export { mixed } from './mixed';
