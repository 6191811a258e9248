import fc from 'fast-check';
import { spoken } from '../words';
import { compile, emptySlots, parse, registryOf, render, STANDARD_NAMES } from '.';

const registry = registryOf([
  ...STANDARD_NAMES,
  { name: 'Favourite crossing', key: 'field:4', fallback: 'the evening run', group: 'Supporter' },
]);
const fill = (source: string, values = {}) => render(compile(source, registry), values);

test.each([
  ['Dear {First name},', { firstName: 'Ines' }, 'Dear Ines,'],
  ['Dear {first NAME},', { firstName: 'Ines' }, 'Dear Ines,'],
  ['Dear {FirstName},', { firstName: 'Ines' }, 'Dear Ines,'],
  ['Dear { First   name , or "neighbour" },', {}, 'Dear neighbour,'],
  ['Dear {First name, OR “friend”},', {}, 'Dear friend,'],
  ['{First name, or "a \\"friend\\" {of us}"}', {}, 'a "friend" {of us}'],
  ['{Sender: mobile}', { 'sender.mobile': '206 555 0110' }, '206 555 0110'],
  ['{Favourite crossing}', {}, 'the evening run'],
  ['{Favourite crossing, or "any"}', {}, 'any'],
  ['\\{not a field\\} and \\\\', {}, '{not a field} and \\'],
  ['100 % of $40 [ok] *yes* <b>', {}, '100 % of $40 [ok] *yes* <b>'],
])('%s', (source, values, expected) => expect(fill(source, values)).toBe(expected));

test('an unknown name stays as typed, with the nearest right one and its place', () => {
  const compiled = compile('Dear {Frist name}, hi', registry);
  expect(spoken(compiled.faults)).toEqual([
    {
      span: { from: 5, to: 17 },
      said: 'There is no merge field {Frist name}. The nearest is {First name}.',
      suggestion: 'First name',
    },
  ]);
  expect(render(compiled, {})).toBe('Dear {Frist name}, hi');
});

test.each([
  ['Dear {First name', 5, 6],
  ['a {} b', 2, 4],
  ['{First name or friend, }', 0, 24],
  ['{a\n}', 0, 1],
])('a fault has its place: %j', (source, from, to) => {
  expect(parse(source).faults.map((fault) => fault.span)).toEqual([{ from, to }]);
});

test('holes are the slots with neither value nor words', () => {
  const compiled = compile('{First name} {Last name, or "x"} {Favourite crossing}', registry);
  expect(emptySlots(compiled, {}).map((slot) => slot.name)).toEqual(['First name']);
  expect(emptySlots(compiled, { firstName: '' }).map((slot) => slot.name)).toEqual(['First name']);
  expect(emptySlots(compiled, { firstName: 'Ines' })).toEqual([]);
});

test('values are escaped, the text around them is not', () => {
  const compiled = compile('<b>{First name}</b>', registry);
  expect(render(compiled, { firstName: '<i>' }, (v) => v.replaceAll('<', '&lt;'))).toBe('<b>&lt;i></b>');
});

test('a value that looks like a merge field is not read again', () => {
  expect(fill('{First name}', { firstName: '{Last name}', lastName: 'x' })).toBe('{Last name}');
});

describe('properties', () => {
  test('reading never throws and loses nothing of an unbraced text', () => {
    fc.assert(fc.property(fc.string(), (text) => void parse(text)));
    fc.assert(
      fc.property(
        fc.string().map((s) => s.replace(/[{}\\]/g, '')),
        (text) => expect(fill(text)).toBe(text),
      ),
    );
  });

  test('any text survives when its braces and strokes are escaped', () => {
    fc.assert(fc.property(fc.string(), (text) => expect(fill(text.replace(/[{}\\]/g, '\\$&'))).toBe(text)));
  });
});
