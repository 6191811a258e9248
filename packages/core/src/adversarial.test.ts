import { oneLine, parsePoint, seen, visible } from './common';
import {
  coerce,
  FIELD_TYPES,
  parseClock,
  parseDate,
  parseNumber,
  parseYesNo,
  readMoney,
  readCountry,
  readRegion,
} from './fields';
import {
  addressHint,
  cleanEmail,
  cleanMobile,
  cleanName,
  cutAddresses,
  cutName,
  cutNameEmail,
  cutPhones,
  guessHeader,
  isRoleAddress,
  kinship,
  looseEmail,
  normalAddress,
  normalPostcode,
  plainAmerican,
  readRefusal,
  readStatus,
  targetOf,
  unscrambled,
} from './intake';
import { consentHeader, readConsent, readRefused } from './intake/consents';
import { parse } from './merge';
import { parseStreet } from './print';
import {
  askingIn,
  aroundText,
  countParts,
  keywordKey,
  ownWords,
  readIntent,
  straighten,
  textAskFaults,
} from './text';

/*
 * Whatever reads a text of somebody else takes a time that grows with its length and no faster: otherwise one
 * cell, one line or one mail stops the house. Held by the ratio to a harmless text of the same size, from
 * small sizes to a million characters, so that a quadratic reader fails at 64 thousand and the suite does not
 * wait for it.
 */
const READERS: Record<string, (text: string) => unknown> = {
  oneLine,
  seen,
  visible,
  parsePoint,
  parseClock,
  'parseDate, day first': (text) => parseDate(text, 'day-first'),
  parseNumber,
  parseYesNo,
  readCountry,
  readRegion,
  ...Object.fromEntries(
    FIELD_TYPES.map((type) => [`coerce to ${type}`, (text: string) => coerce(type, text)]),
  ),
  cleanEmail,
  'cleanMobile of the US': (text) => cleanMobile(text, 'US'),
  'cleanMobile of Germany': (text) => cleanMobile(text, 'DE'),
  plainAmerican: (text) => plainAmerican(text, 'US'),
  cleanName,
  cutAddresses,
  cutPhones,
  cutName,
  cutNameEmail,
  looseEmail,
  isRoleAddress,
  addressHint,
  readMoney,
  readStatus,
  'readRefusal of the US': (text) => readRefusal(text, 'US'),
  targetOf: (text) => targetOf(text, 'people'),
  consentHeader,
  readConsent,
  readRefused: (text) => readRefused(text, () => false),
  guessHeader: (text) =>
    guessHeader([
      [text, text],
      ['a', 'b'],
    ]),
  unscrambled,
  normalAddress: (text) =>
    normalAddress({ street: text, city: text, region: text, postcode: text, country: 'US' } as never),
  normalPostcode,
  kinship: (text) => kinship({ firstName: text, lastName: text }, { firstName: `${text}a`, lastName: text }),
  parseStreet,
  'parse of merge fields': parse,
  keywordKey,
  readIntent,
  ownWords: (text) => ownWords(text, 'Dear Ann, the hull has to come out of the water'),
  askingIn: (text) => askingIn(text),
  aroundText: (text) => aroundText(text, 'Lantern Ferry Trust', 'en'),
  textAskFaults: (text) => textAskFaults(text, 'Lantern Ferry Trust'),
  countParts,
  straighten,
};

/** Texts that go round in circles in one pattern or another, repeated; each with an end that fits nothing. */
const TURNS = [
  ...[
    ' ',
    '\t',
    '\n',
    ',',
    ';',
    '.',
    '-',
    '(',
    '<',
    '"',
    '@',
    '{',
    '>',
    '+',
    '1',
    'a',
    'T',
    '\\',
    '_',
    '*',
    '/',
    '\u2028',
    '\0',
    'é',
  ],
  ...[
    'a ',
    '1-',
    '1,',
    '1 ',
    '.a',
    'a.',
    '<a',
    '@a',
    'a@',
    '+1 ',
    ' - ',
    '1.1',
    'a,',
    ' or ',
    'on a wrote',
    '>a\n',
    'from: a\n',
    '{a, or "',
    '{"',
    '\\{',
    'ab ',
  ],
  ...['\u200d', '\u200c\u200d', '\u{1f469}\u200d', '1,234', "1'234", 'opt out ', 'no '],
  ...['1e9', '# 1', 'apt ', '<a@', '(a)', '- -', 'stop ', 'St. ', '=\n', 'a\n\n'],
];
const ENDS = ['!', '>9'];
/** Of a million characters only these: what is not linear has failed before. */
const MANY_TURNS = [' ', '<', '@', '1 '];
const SIZES = [3_000, 20_000, 1_000_000];
const HARMLESS = 'The ferry leaves the landing at noon and comes back at four. ';

const repeated = (turn: string, size: number) => turn.repeat(Math.ceil(size / turn.length)).slice(0, size);

function taken(reader: (text: string) => unknown, text: string): number {
  const begins = performance.now();
  reader(text);
  return performance.now() - begins;
}

test.each(Object.entries(READERS))('%s takes no longer for a text made to trap it', (_name, reader) => {
  for (const size of SIZES) {
    const calm = repeated(HARMLESS, size);
    // What takes less than this is too short to be told from the machine's other work.
    const harmless = Math.max(taken(reader, calm), taken(reader, calm), size / 2000, 10);
    for (const end of size > 10_000 ? ['!'] : ENDS)
      for (const turn of size > 100_000 ? MANY_TURNS : TURNS) {
        const trap = repeated(turn, size) + end;
        const ratio = () => taken(reader, trap) / harmless;
        // Once more, for the machine may have done something else meanwhile.
        if (ratio() > 20 && ratio() > 20 && ratio() > 20)
          throw new Error(
            `${size} characters of ${JSON.stringify(turn)} and ${JSON.stringify(end)} take ${ratio().toFixed(0)} times as long`,
          );
      }
  }
});
