/** What people can be in order of, beside their fields. */
export const PEOPLE_ORDERS = [
  'name',
  'created',
  'updated',
  'country',
  'region',
  'postcode',
  'externalId',
  'household',
] as const;
