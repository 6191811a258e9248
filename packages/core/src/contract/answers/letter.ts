import {
  again,
  eitherOf,
  flag,
  listOf,
  mapOf,
  number,
  ofCore,
  only,
  orNull,
  part,
  shape,
  text,
  told,
} from '../kinds';
import { ALIGNMENTS, ASK_BASES, FACES, SIDES } from '../../letter';
import { ruleTree } from '../segments';

/** How words of a letter are set: strong, slanted, a link. */
export const inlineMark = ofCore(
  'InlineMark',
  'letter',
  eitherOf(
    part({
      type: only('bold', 'italic'),
    }),
    part({
      type: only('link'),
      attrs: part({
        href: text,
      }),
    }),
  ),
);

/** Words, a break or a merge field within a block. */
export const inline = ofCore(
  'Inline',
  'letter',
  eitherOf(
    part({
      type: only('text'),
      text: text,
      marks: listOf(inlineMark).optional(),
    }),
    part({
      type: only('hardBreak'),
    }),
  ),
);

/** One item of a list in a letter. */
export const listItem = ofCore(
  'ListItem',
  'letter',
  part({
    type: only('listItem'),
    content: listOf(again('Block')).optional(),
  }),
);

const align = orNull(only(...ALIGNMENTS)).optional();
const inner = listOf(again('Block')).optional();

/** One of the two wordings of a personal block. */
export const passageBlock = ofCore(
  'PassageBlock',
  'letter',
  part({ type: only('fitting', 'otherwise'), content: inner }),
);

/** One of two or three columns. */
export const columnBlock = ofCore('ColumnBlock', 'letter', part({ type: only('column'), content: inner }));

/** A block of a letter. */
export const block = ofCore(
  'Block',
  'letter',
  eitherOf(
    part({
      type: only('paragraph'),
      attrs: part({ align }).optional(),
      content: listOf(inline).optional(),
    }),
    part({
      type: only('heading'),
      attrs: part({ level: number, align }),
      content: listOf(inline).optional(),
    }),
    part({ type: only('bulletList', 'orderedList'), content: listOf(listItem).optional() }),
    part({ type: only('blockquote'), content: inner }),
    part({ type: only('horizontalRule', 'signature') }),
    part({ type: only('button'), attrs: part({ href: text, label: text }) }),
    part({ type: only('gifts'), attrs: part({ href: text }) }),
    part({
      type: only('image'),
      attrs: part({
        src: text,
        alt: orNull(text).optional(),
        width: orNull(number).optional(),
        side: orNull(only(...SIDES)).optional(),
        href: orNull(text).optional(),
      }),
    }),
    part({ type: only('columns'), content: listOf(columnBlock).optional() }),
    part({
      type: only('personal'),
      attrs: part({ tree: ruleTree }),
      content: listOf(passageBlock),
    }),
  ),
).id('Block');

/**
 * A letter as the editor keeps it: a small closed set of blocks, so that everything in it can be mailed
 * safely.
 */
export const letterDoc = ofCore(
  'LetterDoc',
  'letter',
  part({
    type: only('doc'),
    version: number.optional(),
    plain: flag.optional(),
    own: told(
      'A page of HTML made elsewhere, that is mailed in the place of the blocks.',
      orNull(part({ html: text, told: listOf(text) })).optional(),
    ),
    content: listOf(block).optional(),
  }),
);

/** How amounts are asked for: from what somebody gave, else three of one's own. */
export const askRule = ofCore(
  'AskRule',
  'letter',
  part({
    shares: listOf(number),
    of: only(...ASK_BASES),
    months: orNull(number),
    friendly: flag,
    least: number,
    most: number,
    otherwise: listOf(number),
  }),
);

/** What a rule for amounts comes to for one person; money in hundredths. */
export const askedPerson = shape('AskedPerson', {
  id: number,
  name: text,
  last: told('Their last gift.', number),
  amounts: listOf(number),
});

/** How the letters of a house look. */
export const houseStyle = ofCore(
  'HouseStyle',
  'letter',
  part({
    logo: orNull(part({ src: text, width: number })),
    main: text,
    accent: text,
    face: only(...Object.keys(FACES)),
    width: number,
    footer: mapOf(text),
  }),
);
