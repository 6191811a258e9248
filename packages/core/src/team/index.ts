export { ROLES, roleReaches, type Role } from './roles';
export { imprintOf, isCurrency, isLocale, isTimeZone } from './organization';
