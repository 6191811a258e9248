import { keyAction, optionOf } from './keys';

test('the keys 1 to 9 are the answers in their order', () => {
  const options = ['asked', 'pledged'];
  expect(['1', '2', '3', '0', 'a', 'F1'].map((key) => optionOf(key, options))).toEqual([
    'asked',
    'pledged',
    null,
    null,
    null,
    null,
  ]);
});

test.each([
  ['2', { outcome: 'pledged' }],
  ['9', null],
  ['n', 'note'],
  ['Enter', 'keep'],
  ['ArrowRight', 'next'],
  ['ArrowLeft', 'back'],
  ['x', null],
])('%s', (key, action) => expect(keyAction({ key }, ['asked', 'pledged'])).toEqual(action));
