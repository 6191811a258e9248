/**
 * Quoted-printable (RFC 2045 §6.7) made of pieces that are encoded once and joined at any column. No line
 * ends in white space and none has two of it beside each other, so that a body is its own relaxed form (RFC
 * 6376 §3.4.4) and can be hashed as it stands. No line begins with a full stop (RFC 5321 §4.5.2) or `From `.
 */

/** Characters of a line, beside the `=` of a soft break. */
const LINE = 75;

/** A piece that is encoded: its lines, how long the first is, and how long the last. */
export interface EncodedPiece {
  text: string;
  first: number;
  last: number;
  /** Whether it lies on one line, so that what follows stands behind it and what is before. */
  one: boolean;
}

const HEX = Array.from(
  { length: 256 },
  (_none, byte) => `=${byte.toString(16).toUpperCase().padStart(2, '0')}`,
);
const utf8 = new TextEncoder();

const encoded = (char: string): string => {
  let out = '';
  for (const byte of utf8.encode(char)) out += HEX[byte];
  return out;
};

const isPlain = (code: number): boolean => (code > 0x20 && code < 0x7f && code !== 0x3d) || code === 0x20;

/** The token of a character that stands between `before` and `after` (empty at an end of its line). */
function token(char: string, before: string, after: string, rest: () => string): string {
  const code = char.codePointAt(0)!;
  if (!isPlain(code)) return encoded(char);
  if (char === ' ') return before === ' ' || after === '' ? '=20' : char;
  if (before !== '') return char;
  if (char === '.') return '=2E';
  return char === 'F' && rest().startsWith('From ') ? '=46' : char;
}

/** Encodes a piece of text from the beginning of a line; its ends of lines come out as CRLF. */
export function encodePiece(text: string): EncodedPiece {
  const lines: string[] = [];
  for (const [at, line] of text.split(/\r\n|\r|\n/).entries()) {
    if (at > 0) lines.push('\r\n');
    let [out, before, position] = ['', '', 0];
    const chars = Array.from(line);
    for (const [i, char] of chars.entries()) {
      let next = token(char, before, chars[i + 1] ?? '', () => line.slice(position, position + 5));
      if (out.length + next.length > LINE) {
        lines.push(`${out}=\r\n`);
        out = '';
        // It begins a line now.
        if (next === '.') next = '=2E';
        else if (next === 'F' && line.startsWith('From ', position)) next = '=46';
      }
      out += next;
      before = next === ' ' ? ' ' : char;
      position += char.length;
    }
    lines.push(out);
  }
  const whole = lines.join('');
  const [from, to] = [whole.indexOf('\r\n'), whole.lastIndexOf('\r\n')];
  const soft = from > 0 && whole[from - 1] === '=' ? 1 : 0;
  return from < 0
    ? { text: whole, first: whole.length, last: whole.length, one: true }
    : { text: whole, first: from - soft, last: whole.length - to - 2, one: false };
}

/** A value that needs no encoding wherever it stands. */
const AS_IT_IS = /^(?:[!-\-/-<>-EG-~][!-<>-~]*(?: [!-<>-~]+)*)?$/;

/** Puts pieces and values behind each other. */
export class QuotedPrintable {
  private out = '';
  private column = 0;

  piece({ text, first, last, one }: EncodedPiece): void {
    if (this.column + first > LINE) {
      this.out += '=\r\n';
      this.column = 0;
    }
    this.out += text;
    this.column = one ? this.column + first : last;
  }

  value(value: string): void {
    if (value.length <= LINE && AS_IT_IS.test(value))
      this.piece({ text: value, first: value.length, last: value.length, one: true });
    else this.piece(encodePiece(value));
  }

  toString(): string {
    return this.out;
  }
}
