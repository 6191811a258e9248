import { septets } from './gsm7';

/**
 * Room in one message and in each part of a longer one: 140 octets are 160 septets or 70 UCS-2 units; the
 * concatenation header takes 6 octets, leaving 153 and 67 (3GPP TS 23.040 §9.2.3.24.1, TS 23.038 §6.1).
 */
export const ROOM = { gsm7: { single: 160, part: 153 }, ucs2: { single: 70, part: 67 } } as const;
export type Alphabet = keyof typeof ROOM;

/** How many segments a text takes, in which alphabet, and how many characters are left in the last. */
export interface Parts {
  alphabet: Alphabet;
  /** Units used: septets, or UTF-16 units. */
  units: number;
  /** Messages that the network will carry and charge, 0 for an empty text. */
  parts: number;
  /** Units still free in the last part. */
  left: number;
  /** The distinct characters that force UCS-2, in order of appearance. */
  costly: string[];
}

function unitsOf(char: string, alphabet: Alphabet): number {
  return alphabet === 'gsm7' ? septets(char)! : char.length;
}

/** An escape pair or a surrogate pair is never cut in two, so a part can end one unit early. */
function fill(chars: string[], alphabet: Alphabet, room: number): { parts: number; left: number } {
  let [parts, used] = [1, 0];
  for (const char of chars) {
    const cost = unitsOf(char, alphabet);
    if (used + cost > room) [parts, used] = [parts + 1, 0];
    used += cost;
  }
  return { parts, left: room - used };
}

/** Counts a text as the network will. */
export function countParts(text: string): Parts {
  const chars = [...text];
  const costly = [...new Set(chars.filter((char) => septets(char) === null))];
  const alphabet: Alphabet = costly.length === 0 ? 'gsm7' : 'ucs2';
  const units = chars.reduce((sum, char) => sum + unitsOf(char, alphabet), 0);
  const { single, part } = ROOM[alphabet];
  if (units === 0) return { alphabet, units, parts: 0, left: single, costly };
  return {
    alphabet,
    units,
    ...(units <= single ? { parts: 1, left: single - units } : fill(chars, alphabet, part)),
    costly,
  };
}

const STRAIGHT: Record<string, string> = {
  '‘': "'",
  '’': "'",
  '‚': "'",
  '“': '"',
  '”': '"',
  '„': '"',
  '–': '-',
  '—': '-',
  '…': '...',
  '\u00a0': ' ',
  '\u202f': ' ',
  '•': '*',
};

/** Replaces the typographic characters that cost an alphabet and mean the same in plain form. */
export function straighten(text: string): string {
  return text.replace(/[‘’‚“”„–—…\u00a0\u202f•]/g, (char) => STRAIGHT[char]!);
}
