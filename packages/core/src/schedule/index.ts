export { localTime, nextDecentMoment, withinHours } from './hours';
export { ZONED_REGIONS, zonesOf } from './zones';
