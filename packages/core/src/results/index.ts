export { differenceOf, peopleToTell, toldFrom, type Difference, type Share } from './difference';
export { wilson, type Rate } from './rates';
