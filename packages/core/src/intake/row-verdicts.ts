/**
 * What becomes of a row. `new` a new person, `shares` a new person at a shared address, `update` somebody
 * here whom it changes, `same` somebody here whom it does not, `here` somebody here who is left alone, `look`
 * perhaps somebody here, `skipped` left out by a person, `no` a no that is recorded, `hold` an address that
 * is held, `gift` a gift, `doubled` a gift that is here already, `aside` no person at all (a total, a header
 * again, a blank line), `failed` the rest.
 */
export const ROW_VERDICTS = [
  'new',
  'shares',
  'update',
  'same',
  'here',
  'no',
  'hold',
  'gift',
  'doubled',
  'look',
  'skipped',
  'aside',
  'failed',
] as const;

export type RowVerdict = (typeof ROW_VERDICTS)[number];
