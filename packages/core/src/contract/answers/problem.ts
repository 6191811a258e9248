import { flag, listOf, number, part, shape, text, told } from '../kinds';

/** RFC 9457 problem details, with the faults of each field. */
export const problemDetails = shape('ProblemDetails', {
  type: text,
  title: text,
  status: number,
  detail: text,
  faults: listOf(part({ field: text, code: text, message: text })).optional(),
  instead: told('The supporter whose record stands in the place of the one asked for.', number).optional(),
  newer: told(
    'Somebody saved it meanwhile: what is there now is newer than what was changed.',
    flag,
  ).optional(),
  now: told('What stands there now, where that is one value.', text).optional(),
});
