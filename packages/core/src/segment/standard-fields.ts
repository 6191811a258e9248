import type { FieldType } from '../fields';

/** The fields everybody has, beside custom ones (which are numbers). */
export const STANDARD_FIELDS = [
  'firstName',
  'lastName',
  'created',
  'updated',
  'country',
  'region',
  'postcode',
  'externalId',
  'household',
] as const;
/** A field by its id, or a standard one by its name. */
export type FieldRef = number | (typeof STANDARD_FIELDS)[number];

/** What the fields that everybody has hold. */
export const STANDARD_FIELD_TYPES: Record<(typeof STANDARD_FIELDS)[number], FieldType> = {
  firstName: 'text',
  lastName: 'text',
  created: 'date',
  updated: 'date',
  country: 'text',
  region: 'text',
  postcode: 'text',
  externalId: 'text',
  household: 'number',
};
