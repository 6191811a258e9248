import { onTelephone } from '.';

test('what is short is shown whole', () => {
  expect(onTelephone('Planks', 'Two to go.', 'Dear\n\nAda,')).toEqual({
    subject: 'Planks',
    line: 'Two to go. Dear Ada,',
  });
  expect(onTelephone('', '', '')).toEqual({ subject: '', line: '' });
  expect(onTelephone('x'.repeat(40), '', 'y'.repeat(90))).toEqual({
    subject: 'x'.repeat(40),
    line: 'y'.repeat(90),
  });
});

test('what is longer ends where the telephone ends it, at 40 and 90 letters', () => {
  const { subject, line } = onTelephone('x'.repeat(41), 'y'.repeat(91), '');
  expect([subject, line]).toEqual([`${'x'.repeat(39)}…`, `${'y'.repeat(89)}…`]);
});

test('a letter of several code points is one, and is never cut in two', () => {
  const boat = '👩🏽‍🚀';
  expect(onTelephone(boat.repeat(40), '', '').subject).toBe(boat.repeat(40));
  expect(onTelephone(boat.repeat(41), '', '').subject).toBe(`${boat.repeat(39)}…`);
});

test('the numbers of links are not read there; what only looks like one is', () => {
  const { line } = onTelephone('', '', 'See it [1] or write [12]. 3 < 4 [now]');
  expect(line).toBe('See it or write. 3 < 4 [now]');
});
