export { differenceOf, peopleToTell, toldFrom, type Difference, type Share } from './difference';
export { liftOf } from './lift';
export { wilson, type Rate } from './rates';
