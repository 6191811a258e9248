import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parse, type Token } from '@messageformat/parser';
import fc from 'fast-check';
import ts from 'typescript';
import { said } from '../common';
import { say, speak, speaker, spoken } from '.';
import en from './en.json';

const ROOT = join(__dirname, '../../../..');

/**
 * The catalog of the core, and that of the server's refusals: where their sentences are said, and by what.
 */
const CATALOGS: [name: string, catalog: Record<string, string>, sayers: string[]][] = [
  ['core', en, ['say', 'said', 'Unreadable', 'fault', 'tell', 'tooLong']],
  [
    'server',
    JSON.parse(readFileSync(join(ROOT, 'apps/server/src/platform/en.json'), 'utf8')) as Record<
      string,
      string
    >,
    ['sentence'],
  ],
];

/** The names of the values in a sentence, by the reference parser of ICU MessageFormat. */
function namesOf(tokens: Token[]): string[] {
  return tokens.flatMap((token) => {
    if (token.type === 'content' || token.type === 'octothorpe') return [];
    return [token.arg, ...('cases' in token ? token.cases.flatMap((one) => namesOf(one.tokens)) : [])];
  });
}
const wanted = (sentence: string) => [...new Set(namesOf(parse(sentence)))].sort();

const SOURCES = ['packages/core/src', 'apps/server/src', 'apps/web/src'].flatMap((folder) =>
  readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.tsx?$/.test(name) && !/\.test\.|\.d\.ts$/.test(name))
    .map((name) => ({ name: join(folder, name), text: readFileSync(join(ROOT, folder, name), 'utf8') })),
);
const ALL = SOURCES.map(({ text }) => text).join('\n');

/**
 * The calls that say a sentence by its code, with the names of the values that they give; null where these
 * are not written out.
 */
function saidIn(
  { name, text }: { name: string; text: string },
  sayers: readonly string[],
): { code: string; gives: string[] | null }[] {
  if (!sayers.some((sayer) => text.includes(`${sayer}('`))) return [];
  const out: { code: string; gives: string[] | null }[] = [];
  const visit = (node: ts.Node): void => {
    if (
      (ts.isCallExpression(node) || ts.isNewExpression(node)) &&
      sayers.includes(node.expression.getText().split('.').at(-1)!)
    ) {
      const [code, ...rest] = node.arguments ?? [];
      const values = rest.at(-1);
      const written = values && ts.isObjectLiteralExpression(values) ? values.properties : [];
      const isWritten =
        (rest.length === 0 || (values && ts.isObjectLiteralExpression(values))) &&
        !written.some(ts.isSpreadAssignment);
      if (code && ts.isStringLiteral(code))
        out.push({
          code: code.text,
          gives: isWritten ? written.map((one) => one.name!.getText()).sort() : null,
        });
    }
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile(name, text, ts.ScriptTarget.ES2022, true));
  return out;
}

describe.each(CATALOGS)('the catalog of the %s', (_name, catalog, sayers) => {
  const codes = Object.keys(catalog);
  const { say: sayOf } = speaker(catalog);

  test.each(codes)('%s is said with the values that it names, and not without one of them', (code) => {
    const names = wanted(catalog[code]!);
    const values = Object.fromEntries(names.map((name) => [name, 2]));
    expect(sayOf(code, values)).not.toContain('undefined');
    for (const name of names) {
      const { [name]: _left, ...others } = values;
      expect(() => sayOf(code, others)).toThrow(name);
    }
  });

  test('nothing stands in it that nobody says', () => {
    const begun = [
      ...ALL.matchAll(/`([a-z][\w-]*(?:\.[\w-]+)*\.)\$\{/g),
      ...ALL.matchAll(/each\('([a-z-]+)'/g),
    ].map(([, start]) => start!);
    const isSaid = (code: string) =>
      ALL.includes(`'${code}'`) || begun.some((start) => code.startsWith(start));
    expect(codes.filter((code) => !isSaid(code.replace(/\.join$/, '')))).toEqual([]);
  });

  test('whoever says a sentence gives just the values that it names', () => {
    const calls = SOURCES.flatMap((source) => saidIn(source, sayers)).filter(
      ({ code, gives }) => code in catalog && gives !== null,
    );
    expect(calls.length).toBeGreaterThan(codes.length / 4);
    // What comes of a cell is added where all faults of cells are made.
    const made = (code: string) =>
      /^value\./.test(code)
        ? ['got']
        : /^line\./.test(code)
          ? ['line']
          : /^plan\./.test(code)
            ? ['channel']
            : [];
    const wrong = calls.filter(({ code, gives }) => {
      const names = wanted(catalog[code]!);
      return (
        String(names) !== String(gives) &&
        String(names) !== String([...new Set([...gives!, ...made(code)])].sort())
      );
    });
    expect(
      wrong.map(({ code, gives }) => `${code} wants ${String(wanted(catalog[code]!))}, got ${String(gives)}`),
    ).toEqual([]);
  });
});

test('what is named in a sentence is said as it is, whatever it holds', () => {
  fc.assert(
    fc.property(fc.string(), (got) =>
      expect(say('value.date', { got })).toBe(`expected a date, got "${got}"`),
    ),
  );
});

test('a sentence in a sentence, several of them, and a place', () => {
  expect(say('row.reasons', { reasons: [said('row.empty'), said('value.date', { got: 'x' })] })).toBe(
    'the row is empty; expected a date, got "x"',
  );
  expect(say('change.charity', { places: [{ place: 'CA' }, { place: 'US-FL' }] })).toBe(
    'We are a registered charity in Canada, United States, FL.',
  );
  expect(say('became.gift', { n: 1, count: '1' })).toBe('1 gift');
  expect(say('became.gift', { n: 1206, count: '1.206' })).toBe('1.206 gifts');
});

test('a result is spoken wherever in it something is said', () => {
  const row = {
    at: 3,
    fatal: null,
    faults: [{ column: 1, reason: said('row.empty') }],
    refused: new Set(['text']),
  };
  expect(spoken(row)).toEqual({
    at: 3,
    fatal: null,
    faults: [{ column: 1, reason: 'the row is empty' }],
    refused: new Set(['text']),
  });
  expect(speak(said('row.empty'))).toBe('the row is empty');
});
