import { printActOf, printStart, toggled } from './printing';

const typed = (part: Record<string, string> = {}) => ({ ...printStart('US'), ...part });

test('paper and labels are those of the place', () => {
  expect(printStart('US')).toMatchObject({ paper: 'LETTER', labels: 'letter-30' });
  expect(printStart('DE')).toMatchObject({ paper: 'A4', labels: 'a4-21' });
});

test('what was typed becomes what is printed', () => {
  expect(printActOf(typed({ columns: 'phone,12', title: ' Calls ' }))).toMatchObject({
    form: 'call',
    columns: ['phone', 12],
    title: 'Calls',
    noteLines: 1,
  });
  expect(printActOf(typed({ form: 'labels', used: '500' }))).toMatchObject({
    columns: [],
    used: 29,
    together: true,
  });
  expect(printActOf(typed({ form: 'labels', labels: 'a4-21', used: '-3', together: 'no' }))).toMatchObject({
    used: 0,
    together: false,
  });
});

test('without what it needs there is nothing to print', () => {
  expect(printActOf(typed({ form: 'poster' }))).toBeNull();
});

test('columns are put in behind the others and taken out', () => {
  expect(toggled('phone', 'tags')).toBe('phone,tags');
  expect(toggled('phone,tags', 'phone')).toBe('tags');
  expect(toggled('', '12')).toBe('12');
});
