import { askingIn, ASKING_WORDS } from '.';

test.each([
  ['Thank you for your donation of $40. This is your receipt.', []],
  ['The launch is moved to Sunday at ten.', []],
  ['You can GIVE   again today at our page.', ['give again']],
  ['Donate!', ['donate']],
  ['Haga una donacion', ['haga una donación']],
  ['Jetzt\u00a0spenden', ['jetzt spenden']],
  ['We forgive today’s delay', []],
])('%s', (text, found) => {
  expect(askingIn(text)).toEqual(found);
});

test('each word is found by itself, and a house may have its own', () => {
  for (const word of ASKING_WORDS) expect(askingIn(`x. ${word.toUpperCase()}, y`)).toContain(word);
  expect(askingIn('Buy a plank', ['buy a plank', '  '])).toEqual(['buy a plank']);
  expect(askingIn('Donate', [])).toEqual([]);
});
