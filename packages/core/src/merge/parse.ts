import { said, type Said } from '../common';
/** From and to, in UTF-16 units of the source, end exclusive. */
export interface SourceSpan {
  from: number;
  to: number;
}

/** A part of a text with merge fields: words as they are, or a field with what stands where it is empty. */
export type Piece =
  { kind: 'text'; text: string } | { kind: 'merge'; name: string; or: string | null; span: SourceSpan };

/** What is wrong in a text with merge fields, and where (offsets in UTF-16 units). */
export interface MergeSyntaxFault {
  span: SourceSpan;
  said: Said;
}

/** A text with merge fields taken apart, with its faults; the pieces make the text again. */
export interface ParsedTemplate {
  pieces: Piece[];
  faults: MergeSyntaxFault[];
}

/** More faults than these help nobody to mend them. */
export const MOST_FAULTS = 20;

/**
 * Reads a text with merge fields.
 *
 * text := ( literal | "\{" | "\}" | "\\" | field )*
 * field := "{" name [ "," "or" string ] "}"
 * string := '"' … '"' | "“" … "”" with \" for a quote inside
 *
 * A field that cannot be read stays in the text as it was typed and is reported, the first twenty of them;
 * nothing is lost.
 */
export function parse(source: string): ParsedTemplate {
  const pieces: Piece[] = [];
  const faults: MergeSyntaxFault[] = [];
  let literal = '';
  const flush = () => {
    if (literal !== '') pieces.push({ kind: 'text', text: literal });
    literal = '';
  };
  for (let at = 0; at < source.length;) {
    const char = source[at]!;
    if (char === '\\' && /[{}\\]/.test(source[at + 1] ?? '')) {
      literal += source[at + 1];
      at += 2;
    } else if (char === '{') {
      const field = readField(source, at);
      if ('said' in field) {
        if (faults.length < MOST_FAULTS) faults.push(field);
        literal += source.slice(at, field.span.to);
      } else {
        flush();
        pieces.push(field);
      }
      at = field.span.to;
    } else {
      literal += char;
      at += 1;
    }
  }
  flush();
  return { pieces, faults };
}

type Field = Extract<Piece, { kind: 'merge' }>;

function readField(source: string, from: number): Field | MergeSyntaxFault {
  const end = closingBrace(source, from);
  if (end < 0) return { span: { from, to: from + 1 }, said: said('merge.open') };
  const span = { from, to: end + 1 };
  const inside = source.slice(from + 1, end);
  const comma = inside.indexOf(',');
  const name = (comma < 0 ? inside : inside.slice(0, comma)).trim();
  const or =
    comma < 0
      ? null
      : (/^or\s*["“]((?:\\.|[^"”\\])*)["”]$/i.exec(inside.slice(comma + 1).trim())?.[1] ?? undefined);
  if (name === '' || /["“”{}]/.test(name) || or === undefined)
    return {
      span,
      said: said('merge.wrong', { got: inside.length > 80 ? `${inside.slice(0, 80)}…` : inside }),
    };
  return { kind: 'merge', name: name.replace(/\s+/g, ' '), or: or?.replace(/\\(.)/g, '$1') ?? null, span };
}

/**
 * The `}` that ends the field, not one inside its quotes; a line end or another brace outside quotes ends the
 * search.
 */
function closingBrace(source: string, from: number): number {
  let quoted = false;
  for (let at = from + 1; at < source.length; at++) {
    const char = source[at]!;
    if (char === '\\') at += 1;
    else if (/["“”]/.test(char)) quoted = !quoted;
    else if (char === '}' && !quoted) return at;
    else if (char === '\n' || (char === '{' && !quoted)) return -1;
  }
  return -1;
}
