export { localTime, nextDecentMoment, spanOf, withinHours, type IsHoliday } from './hours';
export { ZONED_REGIONS, zonesOf } from './zones';
