import { blanksIn, letterFault, letterOfText, NO_WORDS, readableLines } from '.';

test('plain words become a letter: paragraphs, lines and lists', () => {
  const letter = letterOfText('Dear friend,\r\n\r\n\r\n- oak\n- pine\n\nYours\nAnn\n');
  expect(letter.content!.map(({ type }) => type)).toEqual(['paragraph', 'bulletList', 'paragraph']);
  expect(readableLines({ ...NO_WORDS, letter }).filter(Boolean)).toEqual([
    'Dear friend,',
    'oak',
    'pine',
    'Yours',
    'Ann',
  ]);
  expect(letterFault(letter)).toBeNull();
  expect(letterOfText('')).toEqual({ type: 'doc', content: [] });
});

test('a blank that is still to be filled in is told with the words around it, wherever it stands', () => {
  const letter = letterOfText('It costs ___ in all.\n\nA line_with_underscores and a__b is none.');
  expect(blanksIn({ ...NO_WORDS, subject: 'Before ____', letter })).toEqual([
    'Before ____',
    'It costs ___ in all.',
  ]);
  const long = `${'a '.repeat(40)}___${' b'.repeat(40)}`;
  expect(blanksIn({ ...NO_WORDS, text: long })[0]).toMatch(/^….{20,30}___.{20,30}…$/);
});
