export type { Brand, ContactPointId, Day, EntryId, Instant, MonthDay, SupporterId } from './brand';
export { Bits } from './bits';
export { dateParts, dayInZone, dayOf, daysToBirthday, isoDay, keptOn, nextYearStart, parseIsoDay, yearStart } from './calendar';
export { editDistance, nearest } from './nearest';
