/**
 * Encodings that files of people come in, by their names in the WHATWG Encoding Standard §4.2, which every
 * browser and Node.js read.
 */
export const ENCODINGS = [
  'utf-8',
  'utf-16le',
  'utf-16be',
  'windows-1252',
  'iso-8859-2',
  'iso-8859-15',
  'windows-1250',
  'windows-1251',
  'macintosh',
  'mixed',
] as const;
export type Encoding = (typeof ENCODINGS)[number];

/** How much of a file is looked at to find its encoding. */
const SAMPLE = 200_000;

/** One byte a letter; tried in this order, so that the most frequent wins where two read alike. */
const SINGLE_BYTE = [
  'windows-1252',
  'macintosh',
  'windows-1250',
  'iso-8859-2',
  'windows-1251',
  'iso-8859-15',
] as const;

/**
 * The encoding that a file is most likely in: a byte order mark decides (Unicode 16.0 §23.8), then whatever
 * is valid UTF-8 is UTF-8, then zero bytes on one side are UTF-16, then lines of which only some are valid
 * UTF-8 are a mixture, then the single-byte encoding in which the letters beyond ASCII stand where letters
 * stand. The last is a guess, and is shown as one.
 */
export function guessEncoding(bytes: Uint8Array): { encoding: Encoding; sure: boolean } {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return { encoding: 'utf-16le', sure: true };
  if (a === 0xfe && b === 0xff) return { encoding: 'utf-16be', sure: true };
  if (isUtf8(bytes)) return { encoding: 'utf-8', sure: true };
  const sample = bytes.subarray(0, SAMPLE);
  const zeros = [0, 1].map((side) => sample.filter((byte, i) => i % 2 === side && byte === 0).length);
  if (Math.max(...zeros) > sample.length / 5)
    return { encoding: zeros[1]! > zeros[0]! ? 'utf-16le' : 'utf-16be', sure: false };
  if (isMixed(bytes)) return { encoding: 'mixed', sure: false };
  const scored = SINGLE_BYTE.map((encoding) => ({
    encoding,
    score: likeness(decoderOf(encoding).decode(sample), encoding),
  }));
  return {
    encoding: scored.reduce((best, one) => (one.score > best.score ? one : best)).encoding,
    sure: false,
  };
}

const PIECE = 1 << 20;

/** In pieces, so that a large file is never held a second time as text. */
function isUtf8(bytes: Uint8Array): boolean {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  try {
    for (let at = 0; at < bytes.length; at += PIECE)
      decoder.decode(bytes.subarray(at, at + PIECE), { stream: true });
    decoder.decode();
    return true;
  } catch {
    return false;
  }
}

/**
 * Whether some lines with letters beyond ASCII are valid UTF-8 and some are not: two files put together by
 * hand.
 */
function isMixed(bytes: Uint8Array): boolean {
  let [valid, broken] = [0, 0];
  for (const line of linesOf(bytes)) {
    if (!line.some((byte) => byte > 0x7f)) continue;
    if (isUtf8(line)) valid += 1;
    else broken += 1;
  }
  return valid > 0 && broken > 0;
}

function* linesOf(bytes: Uint8Array): Generator<Uint8Array> {
  for (let from = 0; from < bytes.length;) {
    const end = bytes.indexOf(10, from);
    const to = end < 0 ? bytes.length : end + 1;
    yield bytes.subarray(from, to);
    from = to;
  }
}

/** Reads bytes as text, a piece after the other. */
export interface Decoder {
  decode(piece: Uint8Array): string;
  /** What was left over of the last piece. */
  end(): string;
}

/** A decoder of one encoding that takes a file in pieces; `mixed` reads each line as what it is. */
export function decoderOf(encoding: Encoding): Decoder {
  if (encoding === 'mixed') return new MixedDecoder();
  if (encoding === 'windows-1252') {
    const western = new TextDecoder(encoding);
    return {
      decode: (piece) => westernText(western.decode(piece, { stream: true })),
      end: () => westernText(western.decode()),
    };
  }
  const decoder = new TextDecoder(encoding);
  return { decode: (piece) => decoder.decode(piece, { stream: true }), end: () => decoder.decode() };
}

/** What Windows-1252 has from 0x80 to 0x9F (WHATWG Encoding Standard, index windows-1252). */
const WESTERN = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

/** Node.js 20 reads these bytes as control characters, against the standard; browsers read them right. */
export function westernText(text: string): string {
  return /[\u0080-\u009f]/.test(text)
    ? text.replace(/[\u0080-\u009f]/g, (char) => WESTERN[char.charCodeAt(0) - 0x80]!)
    : text;
}

/** Each line as UTF-8 where it is valid, else as Windows-1252. */
class MixedDecoder implements Decoder {
  private rest = new Uint8Array();
  private readonly utf8 = new TextDecoder('utf-8', { fatal: true });
  private readonly western = new TextDecoder('windows-1252');

  decode(piece: Uint8Array): string {
    const bytes = joined(this.rest, piece);
    const whole = bytes.lastIndexOf(10) + 1;
    this.rest = bytes.slice(whole);
    let text = '';
    for (const line of linesOf(bytes.subarray(0, whole))) text += this.line(line);
    return text;
  }

  end(): string {
    return this.rest.length === 0 ? '' : this.line(this.rest);
  }

  private line(bytes: Uint8Array): string {
    try {
      return this.utf8.decode(bytes);
    } catch {
      return westernText(this.western.decode(bytes));
    }
  }
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  if (a.length === 0) return b;
  const both = new Uint8Array(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  return both;
}

/** Letters that names of Western and Central Europe are written with, and those of Russian. */
const LATIN =
  /[àâäáãåæçčćďđéèêëěęíìîïłñńňóòôöõøœřśšşßťúùûüůýÿžźżőűăţľĺőðþÀÂÄÁÃÅÆÇČĆĎĐÉÈÊËĚĘÍÌÎÏŁÑŃŇÓÒÔÖÕØŒŘŚŠŞŤÚÙÛÜŮÝŽŹŻŐŰĂŢĽÐÞ]/;

/**
 * How much a text looks like people's names and places: for each character beyond ASCII, by what stands
 * around it.
 */
function likeness(text: string, encoding: (typeof SINGLE_BYTE)[number]): number {
  let score = 0;
  for (let i = 0; i < text.length; i++) {
    const char = text[i]!;
    if (char < '\u0080') continue;
    score += weight(char, text[i - 1] ?? ' ', text[i + 1] ?? ' ');
  }
  // Both have š and ž at the same places; in the West they stand in Finnish and Estonian alone.
  const central = encoding === 'windows-1252' && /[šžŠŽ]/.test(text) && !/[äöÄÖ]/.test(text);
  return central ? score * 0.8 : score;
}

function weight(char: string, before: string, after: string): number {
  const among = /\p{L}/u.test(before) || /\p{L}/u.test(after);
  if (/[\u0080-\u009f\ufffd]/.test(char)) return -4;
  if (/\p{Script=Cyrillic}/u.test(char)) return /\p{Script=Cyrillic}/u.test(before + after) ? 1.2 : -2;
  if (!/\p{L}/u.test(char))
    return /[’‘“”–—…€«»°·\u00a0]/.test(char) && !/\p{Ll}.\p{Ll}/u.test(before + char + after)
      ? 0.3
      : among
        ? -2
        : -0.5;
  // A capital after a small letter, or three foreign letters in a row, is how a wrong reading looks.
  const odd = (/\p{Lu}/u.test(char) && /\p{Ll}/u.test(before)) || (before >= '\u0080' && after >= '\u0080');
  // Portuguese has õ before e alone; anywhere else it stands where Hungarian has ő.
  const usual = LATIN.test(char) && !(char === 'õ' && !/[es]/.test(after));
  return (usual ? 1 : 0.2) - (odd ? 2 : 0);
}
