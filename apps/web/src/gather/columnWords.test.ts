import { BATCH_KINDS, choiceKey, PLAIN_TARGETS } from '@goodword/core/intake';
import { TARGET_WORDS } from '@goodword/core/words';
import { columnWords, offersFor } from './columnWords';

const fields = [{ id: 4, name: 'Membership renews', type: 'date' as const }];

test('what a column becomes is said in two lines', () => {
  expect(columnWords({ to: 'field', fieldId: 4, type: 'date' }, fields, 'US')).toEqual([
    'Membership renews',
    'date',
  ]);
  expect(columnWords({ to: 'newField', name: 'Shirt', type: 'choice' }, fields, 'US')[0]).toBe(
    'Make a field: Shirt',
  );
  expect(columnWords({ to: 'mobile' }, fields, 'GB')[1]).toContain('GB');
});

test.each([...BATCH_KINDS])('under %s every place is offered once', (what) => {
  const offers = offersFor('Boat', fields, what).known.flatMap(([, some]) => some);
  expect(new Set(offers.map((offer) => offer.key)).size).toBe(offers.length);
});

test('people can have every field and new ones of every type; other files none', () => {
  const { known, make } = offersFor('  Boat  ', fields);
  expect(known.flatMap(([, some]) => some).map((offer) => offer.words)).toContain('Membership renews');
  expect(make.every((offer) => offer.choice.to === 'newField' && offer.choice.name === 'Boat')).toBe(true);
  expect(new Set(make.map((offer) => choiceKey(offer.choice) ?? offer.key)).size).toBe(2);
  expect(offersFor('Boat', fields, 'gifts').make).toEqual([]);
});

test('every plain target has its words and is offered for some kind of file', () => {
  const offered = new Set(
    BATCH_KINDS.flatMap((what) =>
      offersFor('x', [], what).known.flatMap(([, some]) => some.map((offer) => offer.key)),
    ),
  );
  for (const target of PLAIN_TARGETS.filter((one) => one !== 'leave')) {
    expect(TARGET_WORDS[target][0]).not.toBe('');
    expect([...offered]).toContain(target);
  }
});
