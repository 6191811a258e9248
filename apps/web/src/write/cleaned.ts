import { LETTER_VERSION, type LetterDoc } from '@goodword/core/letter';

/** What is kept of each piece; the editor adds things of its own. */
const KEPT: Record<string, readonly string[]> = {
  paragraph: ['align'],
  heading: ['level', 'align'],
  button: ['href', 'label'],
  gifts: ['href'],
  image: ['src', 'alt', 'width', 'side', 'href'],
  personal: ['tree'],
  link: ['href'],
};

interface AnyNode {
  type?: string;
  attrs?: Record<string, unknown>;
  marks?: AnyNode[];
  content?: AnyNode[];
}

/** Nothing said is left out; that nobody said what is on a picture is kept, since it is asked for. */
function piece({ attrs, marks, content, ...rest }: AnyNode): AnyNode {
  const kept = (KEPT[rest.type ?? ''] ?? []).filter(
    (key) => attrs?.[key] !== undefined && (attrs[key] !== null || key === 'alt'),
  );
  return {
    ...rest,
    ...(kept.length > 0 ? { attrs: Object.fromEntries(kept.map((key) => [key, attrs![key]])) } : {}),
    ...(marks ? { marks: marks.map(piece) } : {}),
    ...(content ? { content: content.map(piece) } : {}),
  };
}

/** Keeps what a letter is made of, in its version of today. */
export function cleaned(doc: LetterDoc, plain = false): LetterDoc {
  const { content } = piece(doc as AnyNode);
  return {
    type: 'doc',
    version: LETTER_VERSION,
    ...(plain ? { plain } : {}),
    ...(content ? { content } : {}),
  } as LetterDoc;
}
