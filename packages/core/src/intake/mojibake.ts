import { westernText } from './encoding';

/**
 * Bytes of the characters that Windows-1252 holds beyond Latin-1 (WHATWG Encoding Standard, index
 * windows-1252).
 */
const BYTE_OF = new Map<string, number>();
for (let byte = 0x80; byte <= 0xff; byte++) BYTE_OF.set(westernText(String.fromCharCode(byte)), byte);

/** UTF-8's first bytes of two and three (RFC 3629 §3), and a following byte, as Windows-1252 shows them. */
const SIGN =
  /[\u00c2-\u00f4][\u0080-\u00bf\u0152\u0153\u0160\u0161\u0178\u017d\u017e\u0192\u02c6\u02dc\u2013-\u203a\u20ac\u2122]/;

const utf8 = new TextDecoder('utf-8', { fatal: true });

/**
 * Text that was UTF-8 and was once read as Windows-1252 (`JosÃ©`), read as it was meant (`José`); null where
 * it is not such a text. A text that merely holds such letters is left alone: all of it must turn back into
 * valid UTF-8.
 */
export function unscrambled(text: string): string | null {
  if (!SIGN.test(text)) return null;
  const bytes: number[] = [];
  for (const char of text) {
    const code = char.codePointAt(0)!;
    const byte = code < 0x80 ? code : BYTE_OF.get(char);
    if (byte === undefined) return null;
    bytes.push(byte);
  }
  try {
    return utf8.decode(new Uint8Array(bytes));
  } catch {
    return null;
  }
}
