import { shape, number, text, listOf, part, told, again, orNull } from '../kinds';
import { ruleTree } from '../segments';

/** A segment with its words and its version. */
export const segmentView = shape('SegmentView', {
  id: number,
  name: text,
  tree: ruleTree,
  words: text,
  version: number,
  usedBy: listOf(
    part({
      id: number,
      name: text,
    }),
  ),
});

/** How many people pass one line alone, and how many are left after it. */
export const countedStep = shape('CountedStep', {
  words: text,
  alone: told('How many pass this rule alone.', number),
  left: told('How many its group comes to with this rule and all before it.', number),
  inner: listOf(again('CountedStep')),
}).id('CountedStep');

/** A tree counted: in all, line by line, and how many may be reached. */
export const segmentCount = shape('SegmentCount', {
  everybody: number,
  total: number,
  steps: told('The top rules of the tree, or its one line.', listOf(countedStep)),
  reach: told(
    'How many of them may be written to for appeals; null where it was not asked for.',
    orNull(
      part({
        email: number,
        text: number,
        neither: number,
      }),
    ),
  ),
});

/** A segment as it was saved once. */
export const segmentVersion = shape('SegmentVersion', {
  id: number,
  name: text,
  tree: ruleTree,
  words: text,
  people: told('How many it took in when it was saved.', orNull(number)),
  by: text,
  at: text,
});

/** How many a segment took in on a day. */
export const segmentSize = shape('SegmentSize', {
  day: text,
  people: number,
});
