/** What became of the rows of a batch, in the order in which it is told. */
export const BECAME = [
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
