/** Encodings that files of people come in, by their names in the WHATWG Encoding Standard §4.2, which every browser and Node.js read. */
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
] as const;
export type Encoding = (typeof ENCODINGS)[number];

export const ENCODING_WORDS: Record<Encoding, string> = {
  'utf-8': 'Unicode (UTF-8)',
  'utf-16le': 'Unicode (UTF-16, little end first)',
  'utf-16be': 'Unicode (UTF-16, big end first)',
  'windows-1252': 'Western Europe, Windows',
  'iso-8859-2': 'Central Europe, ISO 8859-2',
  'iso-8859-15': 'Western Europe, ISO 8859-15',
  'windows-1250': 'Central Europe, Windows',
  'windows-1251': 'Cyrillic, Windows',
  macintosh: 'Western Europe, old Macintosh',
};

/** How much of a file is looked at to find its encoding. */
const SAMPLE = 200_000;

/** One byte a letter; tried in this order, so that the most frequent wins where two read alike. */
const SINGLE_BYTE = ['windows-1252', 'macintosh', 'windows-1250', 'iso-8859-2', 'windows-1251', 'iso-8859-15'] as const;

/**
 * The encoding that a file is most likely in: a byte order mark decides (Unicode 16.0 §23.8), then whatever is valid
 * UTF-8 is UTF-8, then zero bytes on one side are UTF-16, then the single-byte encoding in which the letters beyond ASCII
 * stand where letters stand. The last is a guess, and is shown as one.
 */
export function guessEncoding(bytes: Uint8Array): { encoding: Encoding; sure: boolean } {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return { encoding: 'utf-16le', sure: true };
  if (a === 0xfe && b === 0xff) return { encoding: 'utf-16be', sure: true };
  if (isUtf8(bytes)) return { encoding: 'utf-8', sure: true };
  const sample = bytes.subarray(0, SAMPLE);
  const zeros = [0, 1].map((side) => sample.filter((byte, i) => i % 2 === side && byte === 0).length);
  if (Math.max(...zeros) > sample.length / 5) return { encoding: zeros[1]! > zeros[0]! ? 'utf-16le' : 'utf-16be', sure: false };
  const scored = SINGLE_BYTE.map((encoding) => ({ encoding, score: likeness(new TextDecoder(encoding).decode(sample)) }));
  return { encoding: scored.reduce((best, one) => (one.score > best.score ? one : best)).encoding, sure: false };
}

function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch {
    return false;
  }
}

/** Letters that names of Western and Central Europe are written with, and those of Russian. */
const LATIN = /[àâäáãåæçčćďđéèêëěęíìîïłñńňóòôöõøœřśšşßťúùûüůýÿžźżÀÂÄÁÃÅÆÇČĆĎĐÉÈÊËĚĘÍÌÎÏŁÑŃŇÓÒÔÖÕØŒŘŚŠŞŤÚÙÛÜŮÝŽŹŻ]/;

/** How much a text looks like people's names and places: for each character beyond ASCII, by what stands around it. */
function likeness(text: string): number {
  let score = 0;
  for (let i = 0; i < text.length; i++) {
    const char = text[i]!;
    if (char < '\u0080') continue;
    score += weight(char, text[i - 1] ?? ' ', text[i + 1] ?? ' ');
  }
  return score;
}

function weight(char: string, before: string, after: string): number {
  const among = /\p{L}/u.test(before) || /\p{L}/u.test(after);
  if (/[\u0080-\u009f\ufffd]/.test(char)) return -4;
  if (/\p{Script=Cyrillic}/u.test(char)) return /\p{Script=Cyrillic}/u.test(before + after) ? 1.2 : -2;
  if (!/\p{L}/u.test(char)) return /[’‘“”–—…€«»°·\u00a0]/.test(char) && !/\p{Ll}.\p{Ll}/u.test(before + char + after) ? 0.3 : among ? -2 : -0.5;
  // A capital after a small letter, or three foreign letters in a row, is how a wrong reading looks.
  const odd = (/\p{Lu}/u.test(char) && /\p{Ll}/u.test(before)) || (before >= '\u0080' && after >= '\u0080');
  return (LATIN.test(char) ? 1 : 0.2) - (odd ? 2 : 0);
}
