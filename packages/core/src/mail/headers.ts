/** A name and an address; the domain is ASCII, the part before the @ may have other letters (RFC 6531). */
export interface Mailbox {
  name: string;
  address: string;
}

const LINE = 76;
const utf8 = new TextEncoder();
/** Of ours nothing but what can be seen; no end of line can get into a header. */
const UNSEEN = /[\u0000-\u001f\u007f-\u009f\u2028\u2029]+/g;
const ASCII = /^[\x20-\x7e]*$/;

const oneLine = (text: string): string => text.replace(UNSEEN, ' ').replace(/ {2,}/g, ' ').trim();

/** What an encoded word may show as it is, in a phrase too (RFC 2047 §5 (3)). */
const SHOWN = /[A-Za-z0-9!*+/-]/;

function qWord(char: string): string {
  if (char === ' ') return '_';
  if (SHOWN.test(char)) return char;
  let out = '';
  for (const byte of utf8.encode(char)) out += `=${byte.toString(16).toUpperCase().padStart(2, '0')}`;
  return out;
}

const bytesIn = (text: string): number => utf8.encode(text).length;
const base64 = (text: string): string => {
  let binary = '';
  for (const byte of utf8.encode(text)) binary += String.fromCharCode(byte);
  return btoa(binary);
};

/**
 * Encoded words (RFC 2047): at most 75 characters each and 76 a line, whole characters in each, in the
 * shorter of the two encodings. `used` is what stands before them on their line.
 */
export function encodedWords(text: string, used: number): string {
  const chars = Array.from(text);
  const q = chars.map(qWord);
  const isQ = q.join('').length <= Math.ceil(bytesIn(text) / 3) * 4;
  const around = '=?utf-8?Q??='.length;
  const words: string[] = [];
  let [word, size, room] = ['', 0, Math.min(75, LINE - used) - around];
  const end = () => {
    words.push(isQ ? `=?utf-8?Q?${word}?=` : `=?utf-8?B?${base64(word)}?=`);
    [word, size, room] = ['', 0, 75 - around];
  };
  for (const [i, char] of chars.entries()) {
    const more = isQ ? q[i]!.length : bytesIn(char);
    const fits = isQ ? size + more <= room : Math.ceil((size + more) / 3) * 4 <= room;
    if (!fits && word !== '') end();
    word += isQ ? q[i]! : char;
    size += more;
  }
  if (word !== '') end();
  return words.join('\r\n ');
}

/** A header on lines of at most 76 characters where it has spaces to be broken at (RFC 5322 §2.2.3). */
export function foldHeader(name: string, value: string): string {
  let [out, column] = [`${name}:`, name.length + 1];
  for (const word of value.split(' ')) {
    if (column + 1 + word.length > LINE && column > name.length + 1) {
      out += `\r\n ${word}`;
      column = 1 + word.length;
    } else {
      out += ` ${word}`;
      column += 1 + word.length;
    }
  }
  return `${out}\r\n`;
}

/**
 * A header of free words that reads as it was typed: what looks like an encoded word in it is encoded itself
 * (RFC 2047 §2), and so is a word too long for a line (RFC 5322 §2.1.1).
 */
export function wordsHeader(name: string, value: string): string {
  const text = oneLine(value);
  const plain = ASCII.test(text) && !text.includes('=?') && !/\S{60,}/.test(text);
  return plain ? foldHeader(name, text) : `${name}: ${encodedWords(text, name.length + 2)}\r\n`;
}

/** Addresses as they are, names in quotes or as encoded words (RFC 5322 §3.4). */
export function mailboxHeader(name: string, { name: person, address }: Mailbox): string {
  const shown = oneLine(person);
  const angle = `<${address.replace(/[\s<>]/g, '')}>`;
  if (shown === '') return `${name}: ${angle}\r\n`;
  if (ASCII.test(shown) && !shown.includes('=?') && shown.length < 60)
    return foldHeader(name, `"${shown.replace(/["\\]/g, '\\$&')}" ${angle}`);
  return `${name}: ${encodedWords(shown, name.length + 2)}\r\n ${angle}\r\n`;
}

/** A header whose words are given (addresses, identifiers, tokens of a standard): folded, never encoded. */
export const givenHeader = (name: string, value: string): string => foldHeader(name, oneLine(value));

const DAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const two = (n: number): string => String(n).padStart(2, '0');

/** A moment as RFC 5322 §3.3 writes it, in UTC. */
export function mailDate(at: Date): string {
  const month = MONTHS[at.getUTCMonth()];
  const day = `${DAYS[at.getUTCDay()]}, ${at.getUTCDate()} ${month} ${at.getUTCFullYear()}`;
  return `${day} ${two(at.getUTCHours())}:${two(at.getUTCMinutes())}:${two(at.getUTCSeconds())} +0000`;
}
