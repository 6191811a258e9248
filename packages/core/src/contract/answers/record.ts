import { shape, number, only, text, orNull, flag, told, part, listOf } from '../kinds';

/** A note on a record, with who wrote it. */
export const noteView = shape('NoteView', {
  id: number,
  kind: only('call', 'note'),
  body: text,
  by: text,
  at: text,
  changedAt: orNull(text),
  mine: flag,
});

/** One thing in which two records differ or agree, side by side. */
export const mergeLine = shape('MergeLine', {
  key: told('`name`, `place`, `externalId`, or `field:ID`.', text),
  label: text,
  kept: text,
  gone: text,
  usual: told(
    'Which of them stays, where nobody chooses: the one kept, unless it has nothing there.',
    only('kept', 'gone'),
  ),
});

/** Two records side by side: where they differ, and what comes over. */
export const mergePreview = shape('MergePreview', {
  kept: part({
    id: number,
    name: text,
    since: text,
  }),
  gone: part({
    id: number,
    name: text,
    since: text,
  }),
  lines: listOf(mergeLine),
  comesOver: told('What comes over, in sentences.', listOf(text)),
});

/** What a letter to one person would meet, before it is written. */
export const personalVerdict = shape('PersonalVerdict', {
  verdict: only(
    'fell-out',
    'no-address',
    'do-not-contact',
    'said-no',
    'on-hold',
    'asked',
    'no-permission',
    'paused',
    'had-enough',
    'shared-address',
    'send',
  ),
  words: text,
  to: told('Where it would go.', orNull(text)),
});

/** Who lives together, and how they are greeted. */
export const householdView = shape('HouseholdView', {
  id: number,
  greeting: told('As they are greeted together.', text),
  own: told('Words kept for it; null where it is made of the first names.', orNull(text)),
  members: listOf(
    part({
      id: number,
      name: text,
    }),
  ),
});
