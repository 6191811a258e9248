export { MOST_SPREAD_HOURS, spreadOf } from './spread';
export { localTime, nextDecentMoment, spanOf, withinHours, type IsHoliday } from './hours';
export { ZONED_REGIONS, zonesOf } from './zones';
export {
  MAIN_ZONES,
  momentFor,
  momentOf,
  wallTimeOf,
  zoneOf,
  type ClockChange,
  type WallTime,
} from './own-time';
