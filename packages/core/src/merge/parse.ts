import { said, type Said } from '../common';
/** From and to, in UTF-16 units of the source, end exclusive. */
export interface SourceSpan {
  from: number;
  to: number;
}

/**
 * A part of a text with merge fields: words as they are, a field with what stands where it is empty, or the
 * beginning, middle and end of a passage for some people.
 */
export type Piece =
  | { kind: 'text'; text: string }
  | { kind: 'merge'; name: string; as: string | null; or: string | null; span: SourceSpan }
  | { kind: 'for'; name: string; inside: string; span: SourceSpan }
  | { kind: 'otherwise' | 'end'; inside: string; span: SourceSpan };

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
 * text      := ( literal | "\{" | "\}" | "\\" | field | mark )*
 * field     := "{" name [ "," "as" format ] [ "," "or" string ] "}"
 * mark      := "{" "for" group "}" | "{" "otherwise" "}" | "{" "end" "}"
 * string    := '"' … '"' | "“" … "”" with \" for a quote inside
 * name, format, group := words without quotes, braces and commas
 *
 * Marks make passages for some people: `{For Deck crew}Bring boots.{Otherwise}Come along.{End}`. Whether they
 * are in balance is seen by whoever compiles. A field that cannot be read stays in the text as it was typed
 * and is reported, the first twenty of them; nothing is lost.
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

/** The groups that passages of a text are for, as they are named there. */
export function groupsNamed(source: string): string[] {
  return parse(source).pieces.flatMap((piece) => (piece.kind === 'for' ? [piece.name] : []));
}

type Field = Exclude<Piece, { kind: 'text' }>;

function readField(source: string, from: number): Field | MergeSyntaxFault {
  const end = closingBrace(source, from);
  if (end < 0) return { span: { from, to: from + 1 }, said: said('merge.open') };
  const span = { from, to: end + 1 };
  const inside = source.slice(from + 1, end);
  const mark = markIn(inside.trim());
  if (mark) return { ...mark, span };
  const read = clausesOf(inside);
  if (read === null)
    return {
      span,
      said: said('merge.wrong', { got: inside.length > 80 ? `${inside.slice(0, 80)}…` : inside }),
    };
  return { kind: 'merge', ...read, span };
}

const spaced = (words: string) => words.trim().replace(/\s+/g, ' ');

function markIn(inside: string) {
  if (/["“”,]/.test(inside)) return null;
  const group = /^for\s(.*)$/is.exec(inside)?.[1];
  if (group !== undefined && group.trim() !== '')
    return { kind: 'for' as const, name: spaced(group), inside };
  const word = inside.toLowerCase();
  return word === 'otherwise' || word === 'end' ? { kind: word as 'otherwise' | 'end', inside } : null;
}

/** The name, the format and the words for when there is nothing; null where they can't be read. */
function clausesOf(inside: string): { name: string; as: string | null; or: string | null } | null {
  const comma = inside.indexOf(',');
  const name = comma < 0 ? inside : inside.slice(0, comma);
  if (name.trim() === '' || /["“”{}]/.test(name)) return null;
  let rest = comma < 0 ? '' : inside.slice(comma + 1).trim();
  if (comma >= 0 && rest === '') return null;
  let as: string | null = null;
  const format = /^as\s([^,"“”{}]*)(?:,|$)/i.exec(rest);
  if (format) {
    as = spaced(format[1]!).toLowerCase();
    const after = rest.slice(format[0].length).trim();
    if (as === '' || (after === '' && format[0].endsWith(','))) return null;
    rest = after;
  }
  if (rest === '') return { name: spaced(name), as, or: null };
  const or = /^or\s*["“]((?:\\.|[^"”\\])*)["”]$/i.exec(rest)?.[1];
  return or === undefined ? null : { name: spaced(name), as, or: or.replace(/\\(.)/g, '$1') };
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
