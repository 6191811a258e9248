import { TextCrowd } from '.';

const seen = (...texts: [string, Record<string, string>][]) => {
  const crowd = new TextCrowd();
  for (const [text, values] of texts)
    crowd.see(
      text,
      Object.entries(values).map(([name, value]) => ({ name, value })),
    );
  return crowd.found();
};

test('people by the parts that their text takes', () => {
  expect(
    seen(['x'.repeat(160), {}], ['x'.repeat(161), {}], ['x'.repeat(306), {}], ['x'.repeat(307), {}]),
  ).toEqual({
    total: 8,
    byParts: [
      { parts: 1, people: 1 },
      { parts: 2, people: 2 },
      { parts: 3, people: 1 },
    ],
    costly: [],
    saved: 0,
  });
});

// 3GPP TS 23.038: a curly apostrophe is not in the alphabet of 7 bits, so that a part holds 70 letters.
test('a name with a curly apostrophe makes two parts of one, and written plainly it is one', () => {
  const text = (name: string) => `Dear ${name}, ${'x'.repeat(90)}`;
  expect(
    seen(
      [text('O’Hara'), { 'Last name': 'O’Hara', Greeting: 'Ann' }],
      [text('李'), { 'Last name': '李' }],
      [text('Li'), { 'Last name': 'Li' }],
    ),
  ).toEqual({
    total: 5,
    byParts: [
      { parts: 1, people: 1 },
      { parts: 2, people: 2 },
    ],
    costly: [{ name: 'Last name', people: 2 }],
    saved: 1,
  });
});

test('what the writer wrote is not laid to a field', () => {
  expect(seen([`Boots… ${'x'.repeat(90)} Ann`, { 'First name': 'Ann' }])).toMatchObject({
    costly: [],
    saved: 0,
  });
});
