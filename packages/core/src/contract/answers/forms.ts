import { shape, number, text, flag, told, listOf, part } from '../kinds';
import { formDefinition } from '../forms';

/** What came of a form: posts, people it made, requests that wait. */
export const formCounts = shape('FormCounts', {
  seen: number,
  begun: number,
  joined: number,
  confirmed: number,
});

/** A form with its newest version, what keeps it from opening, and where it lives. */
export const formView = shape('FormView', {
  id: number,
  name: text,
  slug: text,
  open: flag,
  version: number,
  definition: formDefinition,
  counts: formCounts,
  waiting: told('People Asked who have not confirmed yet.', number),
  url: text,
  faults: told(
    'What keeps it from being opened.',
    listOf(
      part({
        field: text,
        message: text,
      }),
    ),
  ),
});
