import { DEFAULT_CODING, SHIFT_CODINGS, SHIFT_LANGUAGES } from './shift-tables';
import type { SeptetCoding, ShiftLanguage } from './shift-tables';

/**
 * Room in one message and in each part of a longer one: 140 octets are 160 septets or 70 UCS-2 units; the
 * concatenation header takes 6 octets, leaving 153 and 67 (3GPP TS 23.040 §9.2.3.24.1, TS 23.038 §6.1).
 */
export const ROOM = { gsm7: { single: 160, part: 153 }, ucs2: { single: 70, part: 67 } } as const;
export type Alphabet = keyof typeof ROOM;

/** How many segments a text takes, in which alphabet, and how many characters are left in the last. */
export interface Parts {
  alphabet: Alphabet;
  /** Whose national tables are used; null for the default ones. */
  language: ShiftLanguage | null;
  /** Units used: septets, or UTF-16 units. */
  units: number;
  /** Messages that the network will carry and charge, 0 for an empty text. */
  parts: number;
  /** Units still free in the last part. */
  left: number;
  /** The distinct characters that force UCS-2, in order of appearance. */
  costly: string[];
}

interface Room {
  single: number;
  part: number;
}

/** Octets of a message, of the length of its header, of what joins parts, and of a table's name in it. */
const [OCTETS, LENGTH, JOINING, NAMING] = [140, 1, 5, 3];

/**
 * Septets beside a header that names tables, each with 3 octets (3GPP TS 23.040 §9.2.3.24.15 and .16); the
 * words begin at the next septet.
 */
function roomBeside(named: 0 | 1 | 2): Room {
  if (named === 0) return ROOM.gsm7;
  const septetsAfter = (octets: number) => Math.floor(((OCTETS - octets) * 8) / 7);
  return {
    single: septetsAfter(LENGTH + named * NAMING),
    part: septetsAfter(LENGTH + JOINING + named * NAMING),
  };
}

/** An escape pair or a surrogate pair is never cut in two, so a part can end one unit early. */
function fill(costs: readonly number[], room: number): { begins: number[]; left: number } {
  const begins = [0];
  let used = 0;
  costs.forEach((cost, at) => {
    if (used + cost > room) {
      begins.push(at);
      used = 0;
    }
    used += cost;
  });
  return { begins, left: room - used };
}

function counted(costs: readonly number[], room: Room): Pick<Parts, 'units' | 'parts' | 'left'> {
  const units = costs.reduce((sum, cost) => sum + cost, 0);
  if (units === 0) return { units, parts: 0, left: room.single };
  if (units <= room.single) return { units, parts: 1, left: room.single - units };
  const { begins, left } = fill(costs, room.part);
  return { units, parts: begins.length, left };
}

/**
 * A text as the segments that it is sent in, in the default alphabet or UCS-2, as `countParts` counts them
 * without national tables. None for an empty text.
 */
export function segmentsOf(text: string): { alphabet: Alphabet; segments: string[] } {
  const chars = [...text];
  const plain = costsIn(DEFAULT_CODING, chars);
  const alphabet = plain ? 'gsm7' : 'ucs2';
  const costs = plain ?? chars.map((char) => char.length);
  const units = costs.reduce((sum, cost) => sum + cost, 0);
  if (units === 0) return { alphabet, segments: [] };
  if (units <= ROOM[alphabet].single) return { alphabet, segments: [text] };
  const { begins } = fill(costs, ROOM[alphabet].part);
  return { alphabet, segments: begins.map((from, i) => chars.slice(from, begins[i + 1]).join('')) };
}

/** What each letter costs, or null where one has no place in the tables. */
function costsIn({ costs }: SeptetCoding, chars: readonly string[]): number[] | null {
  const out: number[] = [];
  for (const char of chars) {
    const cost = costs.get(char);
    if (cost === undefined) return null;
    out.push(cost);
  }
  return out;
}

/**
 * Counts a text as the network will. `tables`: the languages whose national tables the gateway takes; they
 * are used where the default alphabet has no place for a letter, and they make fewer parts.
 */
export function countParts(text: string, tables: readonly ShiftLanguage[] = []): Parts {
  const chars = [...text];
  const plain = costsIn(DEFAULT_CODING, chars);
  if (plain) return { alphabet: 'gsm7', language: null, ...counted(plain, ROOM.gsm7), costly: [] };
  let best: Parts = {
    alphabet: 'ucs2',
    language: null,
    ...counted(
      chars.map((char) => char.length),
      ROOM.ucs2,
    ),
    costly: [...new Set(chars.filter((char) => !DEFAULT_CODING.costs.has(char)))],
  };
  for (const coding of tables.flatMap((language) => SHIFT_CODINGS[language])) {
    const costs = costsIn(coding, chars);
    if (!costs) continue;
    const { language, named } = coding;
    const found: Parts = { alphabet: 'gsm7', language, ...counted(costs, roomBeside(named)), costly: [] };
    if (found.parts < best.parts || (found.parts === best.parts && found.left > best.left)) best = found;
  }
  return best;
}

/** The language whose national tables would save parts, and the parts that it would then take. */
export function shiftThatSaves(text: string): { language: ShiftLanguage; parts: number } | null {
  const { parts } = countParts(text);
  const { language, parts: fewer } = countParts(text, SHIFT_LANGUAGES);
  return language !== null && fewer < parts ? { language, parts: fewer } : null;
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
