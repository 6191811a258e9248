export { addressee, greetingOf, oneEach, type HouseholdMember } from './household';
