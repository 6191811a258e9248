import { choiceKey } from '@goodword/core/intake';
import { columnWords, offersFor } from './columnWords';

const fields = [{ id: 5, name: 'Membership renews', type: 'date' as const }];

test.each([
  [{ to: 'leave' as const }, ['Leave out', 'not brought in']],
  [{ to: 'mobile' as const }, ['Mobile', 'phone, US']],
  [{ to: 'consent' as const, channel: 'text' as const }, ['Text permission', 'yes or no']],
  [{ to: 'field' as const, fieldId: 5, type: 'date' as const }, ['Membership renews', 'date']],
  [{ to: 'field' as const, fieldId: 9, type: 'date' as const }, ['A field', 'date']],
  [{ to: 'newField' as const, name: 'Boat', type: 'choice' as const }, ['Make a field: Boat', 'choice']],
])('%j', (choice, words) => expect(columnWords(choice, fields, 'US')).toEqual(words));

test('every place is offered once, and a new field of every type', () => {
  const { known, make } = offersFor('  Boat  ', fields);
  const keys = known.map((offer) => offer.key);
  expect(new Set(keys).size).toBe(keys.length);
  expect(known.map((offer) => offer.words)).toContain('Membership renews');
  expect(make.every((offer) => offer.choice.to === 'newField' && offer.choice.name === 'Boat')).toBe(true);
  expect(new Set(make.map((offer) => offer.key)).size).toBe(7);
});

test('a column without a header gets a name', () => expect(offersFor('', []).make[0]!.choice).toMatchObject({ name: 'Unnamed' }));
