import { LETTER_VERSION, type Block, type LetterDoc } from './doc';

/** What is said of a piece; that nothing is said was once written out, and is left out today. */
function current<T extends object>(node: T): T {
  const { attrs, content, ...rest } = node as { attrs?: Record<string, unknown>; content?: object[] };
  const said = Object.entries(attrs ?? {}).filter(([key, value]) => key === 'alt' || !isNothing(value));
  return {
    ...rest,
    ...(said.length > 0 ? { attrs: Object.fromEntries(said) } : {}),
    ...(content ? { content: content.map(current) } : {}),
  } as T;
}

const isNothing = (value: unknown) => value === null || value === undefined;

/**
 * A document of any version as one of today, with all its words, links and pictures. Version 1 had fewer
 * kinds of blocks and wrote empty attributes out. Documents of a version to come are refused by the kinds
 * that nobody here knows.
 */
export function currentLetter(doc: LetterDoc): LetterDoc {
  if (doc.version === LETTER_VERSION) return doc;
  const content = doc.content?.map((block): Block => current(block));
  return {
    type: 'doc',
    version: LETTER_VERSION,
    ...(doc.own ? { own: doc.own } : {}),
    ...(doc.plain ? { plain: true } : {}),
    ...(content ? { content } : {}),
  };
}
