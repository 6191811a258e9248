import { STANDARD_FIELDS } from './standard-fields';

const isName = (field: (typeof STANDARD_FIELDS)[number]) => field === 'firstName' || field === 'lastName';

/** What people can be in order of, beside their fields: names as one, then what everybody has. */
export const PEOPLE_ORDERS = [
  'name',
  ...STANDARD_FIELDS.filter(
    (field): field is Exclude<typeof field, 'firstName' | 'lastName'> => !isName(field),
  ),
] as const;
