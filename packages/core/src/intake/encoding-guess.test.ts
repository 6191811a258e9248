import { execFileSync } from 'node:child_process';
import chardet from 'chardet';
import { guessEncoding } from '.';
import { decodeFile } from './testing';

/**
 * Our guess beside the standard package's (chardet), over texts that nobody here wrote: what the Unicode CLDR
 * calls the countries in the languages of Europe, by way of Intl, as short lists like those that people send.
 * Encoded by glibc's iconv. A guess is right when it reads the text as it was.
 */
const CORPUS: { locales: string[]; encodings: string[] }[] = [
  {
    locales: ['fr', 'es', 'de', 'pt', 'it', 'sv', 'da', 'nb', 'fi', 'nl', 'ca', 'is'],
    encodings: ['WINDOWS-1252', 'ISO-8859-15', 'MACINTOSH'],
  },
  {
    locales: ['pl', 'cs', 'sk', 'hu', 'hr', 'sl', 'ro'],
    encodings: ['WINDOWS-1250', 'ISO-8859-2'],
  },
  { locales: ['ru', 'bg', 'mk'], encodings: ['WINDOWS-1251'] },
];
const ROWS = [3, 12, 60];

const COUNTRIES = Array.from({ length: 26 * 26 }, (_none, i) =>
  String.fromCharCode(65 + Math.floor(i / 26), 65 + (i % 26)),
);

/** Lists of some rows with a letter beyond ASCII in each, the same every time. */
function lists(locale: string, rows: number): string[] {
  const names = new Intl.DisplayNames([locale], { type: 'region', fallback: 'none' });
  const all = COUNTRIES.map((code) => names.of(code)).filter(
    (name): name is string => name !== undefined && /[^\x20-\x7e]/.test(name),
  );
  return [0, 1, 2].map((nth) => {
    const some = Array.from({ length: rows }, (_none, i) => all[(nth * 37 + i * 11) % all.length]!);
    return ['email;name', ...some.map((name, i) => `p${i}@example.org;${name}`)].join('\n');
  });
}

function encoded(text: string, iconv: string): Uint8Array | null {
  try {
    return new Uint8Array(
      execFileSync('iconv', ['-f', 'UTF-8', '-t', iconv], { input: text, stdio: 'pipe' }),
    );
  } catch {
    // A letter that the encoding has not: no such file can come.
    return null;
  }
}

function readsAs(bytes: Uint8Array, encoding: string | null): string | null {
  try {
    return new TextDecoder(encoding ?? 'utf-8').decode(bytes);
  } catch {
    return null;
  }
}

test('reads more lists of names right than the standard package', () => {
  const right = { lists: 0, ours: 0, theirs: 0 };
  for (const { locales, encodings } of CORPUS)
    for (const locale of locales)
      for (const text of ROWS.flatMap((rows) => lists(locale, rows)))
        for (const iconv of encodings) {
          const bytes = encoded(text, iconv);
          if (!bytes) continue;
          right.lists += 1;
          const read = decodeFile(bytes, guessEncoding(bytes).encoding);
          if (read.ok && read.text === text) right.ours += 1;
          if (readsAs(bytes, chardet.detect(bytes)) === text) right.theirs += 1;
        }
  expect(right.lists).toBeGreaterThan(300);
  expect(right.ours / right.lists).toBeGreaterThan(0.95);
  expect(right.ours).toBeGreaterThan(right.theirs);
});
