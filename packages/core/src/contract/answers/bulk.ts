import { BULK_STATES, peopleOrder } from '../bulk';
import { shape, number, told, text, oneOf, orNull, flag, only, listOf } from '../kinds';
import { ruleTree } from '../segments';

/** An act on many as it is shown: how far it is, what it came to, and whether it can be undone. */
export const bulkView = shape('BulkView', {
  id: number,
  words: told('What it does, as a sentence: "Put the tag plank menders on 4,793 people".', text),
  state: oneOf(BULK_STATES),
  people: number,
  done: told('How many it has come to so far.', number),
  changed: told('How many of them were changed; the others were so already.', number),
  by: text,
  madeAt: text,
  endedAt: orNull(text),
  canUndo: flag,
  file: told('A download waits.', orNull(text)),
  problem: orNull(text),
  told: told(
    'What there is to say of those who were left out: "3 people are not on it: no street on file (3)."',
    text,
  ),
});

/** One thing that the finder found, with where it stands. */
export const finderHit = shape('FinderHit', {
  kind: only('segment', 'list', 'tag', 'campaign', 'message', 'supporter'),
  id: number,
  name: text,
  note: text,
});

/** A table kept under a name: who is in it, its columns and order. */
export const peopleView = shape('PeopleView', {
  id: number,
  version: number,
  name: text,
  tree: ruleTree,
  madeBy: text,
  fields: listOf(number),
  by: peopleOrder,
  descending: flag,
});
