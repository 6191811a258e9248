import fc from 'fast-check';
import { spoken } from '../words';
import { conditionsOf, compile, emptySlots, registryOf, render, slotsOf, STANDARD_NAMES } from '.';

const registry = registryOf(
  [...STANDARD_NAMES, { name: 'For whom', key: 'field:9', group: 'Supporter' }],
  [
    { name: 'Deck crew', key: 'fits:1' },
    { name: 'Gave this year', key: 'fits:2' },
  ],
);
const fill = (source: string, values = {}) => render(compile(source, registry), values);
const said = (source: string) => spoken(compile(source, registry).faults).map((fault) => fault.said);
const TEXT = 'Come {For Deck crew}with boots, {First name, or "you"}{Otherwise}as you are{End}!';

test('a passage for some people, another for the rest', () => {
  expect(fill(TEXT, { 'fits:1': '1', firstName: 'Ines' })).toBe('Come with boots, Ines!');
  expect(fill(TEXT, {})).toBe('Come as you are!');
  expect(fill('{for deck CREW}Boots.{end}', {})).toBe('');
});

test('passages stand within passages', () => {
  const source =
    '{For Deck crew}{For Gave this year}both{Otherwise}crew{End}{Otherwise}{For Gave this year}gave{End}{End}';
  expect([
    fill(source, { 'fits:1': '1', 'fits:2': '1' }),
    fill(source, { 'fits:1': '1' }),
    fill(source, { 'fits:2': '1' }),
    fill(source),
  ]).toEqual(['both', 'crew', 'gave', '']);
  expect(conditionsOf(compile(source, registry))).toEqual(['fits:1', 'fits:2']);
});

test('a hole is one only for whoever reads it', () => {
  const compiled = compile('{For Deck crew}{Last name}{Otherwise}{Mobile}{End}', registry);
  expect(emptySlots(compiled, { 'fits:1': '1' }).map(({ name }) => name)).toEqual(['Last name']);
  expect(emptySlots(compiled, {}).map(({ name }) => name)).toEqual(['Mobile']);
  expect(slotsOf(compiled).map(({ name }) => name)).toEqual(['Last name', 'Mobile']);
});

test('a field may be called as a passage begins', () => {
  expect(fill('{For whom}', { 'field:9': 'the crew' })).toBe('the crew');
});

test.each([
  ['{For Deck crew}a', 'This passage is never ended. Write {End} behind it.'],
  ['a{End}', '{End} ends no passage here. Take it out, or begin one with {For …}.'],
  ['{Otherwise}', '{Otherwise} belongs to no passage here, or is there twice.'],
  [
    '{For Deck crew}a{Otherwise}b{Otherwise}c{End}',
    '{Otherwise} belongs to no passage here, or is there twice.',
  ],
  ['{For Deck crow}a{End}', 'There is no segment “Deck crow”. The nearest is “Deck crew”.'],
  ['{For Zebras}a{End}', 'There is no segment “Zebras” that a passage could be for.'],
])('what is out of balance or unknown is told, and stays as typed: %s', (source, sentence) => {
  expect(said(source)).toEqual([sentence]);
  if (!source.includes('b{Otherwise}c')) expect(fill(source, { 'fits:1': '1' })).toBe(source);
});

test('a fault has its place in the whole text', () => {
  const { faults } = compile('ab {For Deck crew}{Frist name}{End} {End}', registry);
  expect(faults.map(({ span }) => span)).toEqual([
    { from: 18, to: 30 },
    { from: 36, to: 41 },
  ]);
});

// The model: a tree of words and passages, written out and read as somebody reads it.
type Node = string | { group: 1 | 2; then: Node[]; otherwise: Node[] | null };
const GROUPS = { 1: 'Deck crew', 2: 'Gave this year' } as const;
const { nodes } = fc.letrec<{ nodes: Node[]; node: Node }>((tie) => ({
  nodes: fc.array(tie('node'), { maxLength: 3 }),
  node: fc.oneof(
    { maxDepth: 4, withCrossShrink: true },
    fc.string({ maxLength: 6 }).map((text) => text.replace(/[{}\\]/g, '')),
    fc.record({
      group: fc.constantFrom(1 as const, 2 as const),
      then: tie('nodes'),
      otherwise: fc.option(tie('nodes'), { nil: null }),
    }),
  ),
}));
const written = (all: Node[]): string =>
  all
    .map((node) =>
      typeof node === 'string'
        ? node
        : `{For ${GROUPS[node.group]}}${written(node.then)}${
            node.otherwise === null ? '' : `{Otherwise}${written(node.otherwise)}`
          }{End}`,
    )
    .join('');
const readBy = (all: Node[], fits: ReadonlySet<number>): string =>
  all
    .map((node) =>
      typeof node === 'string'
        ? node
        : readBy(fits.has(node.group) ? node.then : (node.otherwise ?? []), fits),
    )
    .join('');

test('whatever is within whatever, each reads what is for them', () => {
  fc.assert(
    fc.property(nodes, fc.boolean(), fc.boolean(), (all, crew, gave) => {
      const compiled = compile(written(all), registry);
      expect(compiled.faults).toEqual([]);
      const values = { 'fits:1': crew ? '1' : '', 'fits:2': gave ? '1' : null };
      const fits = new Set([...(crew ? [1] : []), ...(gave ? [2] : [])]);
      expect(render(compiled, values)).toBe(readBy(all, fits));
    }),
  );
});

test('any text with marks in it loses nothing where they are out of balance', () => {
  const piece = fc.constantFrom(
    '{For Deck crew}',
    '{Otherwise}',
    '{End}',
    'a',
    ' b ',
    '{First name, or "x"}',
  );
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 12 }), (pieces) => {
      const source = pieces.join('');
      const { faults } = compile(source, registry);
      const out = fill(source, { 'fits:1': '1' }) + fill(source);
      // Marks are in the words of a message only where something is wrong with them, and that is told.
      if (faults.length === 0) expect(out).not.toMatch(/[{}]/);
      else expect(out).toMatch(/\{(For Deck crew|Otherwise|End)\}/);
    }),
  );
});
