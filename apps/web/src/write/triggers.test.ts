import { changed, triggersOf, offeredTriggers } from './triggers';

const TAGS = [{ id: 1 }, { id: 2 }];

test('links of mails and texts are followed; of paper nothing is told', () => {
  expect(triggersOf('text')).toEqual(['clicked', 'replied']);
  expect(triggersOf('post')).toEqual([]);
  expect(triggersOf('email')).toEqual(['clicked', 'replied']);
});

test('the next sentence is one that is not said yet', () => {
  expect(offeredTriggers([], TAGS, 'email')).toEqual({ on: 'clicked', tagId: 1 });
  expect(offeredTriggers([{ on: 'clicked', tagId: 1 }], TAGS, 'email')).toEqual({ on: 'clicked', tagId: 2 });
  expect(offeredTriggers([{ on: 'clicked', tagId: 1 }], TAGS, 'text')).toEqual({ on: 'clicked', tagId: 2 });
  const all = TAGS.flatMap(({ id }) => [
    { on: 'clicked' as const, tagId: id },
    { on: 'replied' as const, tagId: id },
  ]);
  expect(offeredTriggers(all, TAGS, 'text')).toBeNull();
  expect(offeredTriggers([], [], 'email')).toBeNull();
});

test('six are enough', () => {
  const many = Array.from({ length: 9 }, (_none, id) => ({ id }));
  const six = many.slice(0, 6).map(({ id }) => ({ on: 'clicked' as const, tagId: id }));
  expect(offeredTriggers(six, many, 'email')).toBeNull();
});

test('a sentence that is changed into another stands once', () => {
  const triggers = [
    { on: 'clicked' as const, tagId: 1 },
    { on: 'clicked' as const, tagId: 2 },
  ];
  expect(changed(triggers, 1, { on: 'replied' })).toEqual([triggers[0], { on: 'replied', tagId: 2 }]);
  expect(changed(triggers, 1, { tagId: 1 })).toEqual([triggers[0]]);
});
