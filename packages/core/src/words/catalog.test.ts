import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parse, type Token } from '@messageformat/parser';
import fc from 'fast-check';
import { said, type Code } from '../common';
import { say, speak, spoken } from '.';
import en from './en.json';

const ROOT = join(__dirname, '../../../..');
const codes = Object.keys(en) as Code[];

/** The names of the values in a sentence, by the reference parser of ICU MessageFormat. */
function namesOf(tokens: Token[]): string[] {
  return tokens.flatMap((token) => {
    if (token.type === 'content' || token.type === 'octothorpe') return [];
    return [token.arg, ...('cases' in token ? token.cases.flatMap((one) => namesOf(one.tokens)) : [])];
  });
}

function sourcesIn(folder: string): string[] {
  return readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.tsx?$/.test(name) && !/\.test\.|\.d\.ts$/.test(name))
    .map((name) => readFileSync(join(ROOT, folder, name), 'utf8'));
}

test.each(codes)('%s is said with the values that it names, and not without one of them', (code) => {
  const names = [...new Set(namesOf(parse(en[code])))];
  const values = Object.fromEntries(names.map((name) => [name, 2]));
  expect(say(code, values)).not.toMatch(code.startsWith('merge.') ? /undefined/ : /[{}]|undefined/);
  for (const name of names) {
    const { [name]: _left, ...others } = values;
    expect(() => say(code, others)).toThrow(name);
  }
});

test('nothing stands in the catalog that nobody says', () => {
  const sources = ['packages/core/src', 'apps/server/src', 'apps/web/src'].flatMap(sourcesIn).join('\n');
  const begun = [...sources.matchAll(/`([a-z][\w-]*(?:\.[\w-]+)*\.)\$\{/g), ...sources.matchAll(/each\('([a-z-]+)'/g)].map(([, start]) => start!);
  const isSaid = (code: string) => sources.includes(`'${code}'`) || begun.some((start) => code.startsWith(start));
  expect(codes.filter((code) => !isSaid(code.replace(/\.join$/, '')))).toEqual([]);
});

test('what is named in a sentence is said as it is, whatever it holds', () => {
  fc.assert(fc.property(fc.string(), (got) => expect(say('value.date', { got })).toBe(`expected a date, got "${got}"`)));
});

test('a sentence in a sentence, several of them, and a place', () => {
  expect(say('row.reasons', { reasons: [said('row.empty'), said('value.date', { got: 'x' })] })).toBe('the row is empty; expected a date, got "x"');
  expect(say('change.charity', { places: [{ place: 'CA' }, { place: 'US-FL' }] })).toBe('We are a registered charity in Canada, United States, FL.');
  expect(say('became.gift', { n: 1 })).toBe('1 gift');
  expect(say('became.gift', { n: 1206 })).toBe('1,206 gifts');
});

test('a result is spoken wherever in it something is said', () => {
  const row = { at: 3, fatal: null, faults: [{ column: 1, reason: said('row.empty') }], refused: new Set(['text']) };
  expect(spoken(row)).toEqual({ at: 3, fatal: null, faults: [{ column: 1, reason: 'the row is empty' }], refused: new Set(['text']) });
  expect(speak(said('row.empty'))).toBe('the row is empty');
});
