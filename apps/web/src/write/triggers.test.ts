import { changed, deedsOf, offeredTriggers } from './triggers';

const TAGS = [{ id: 1 }, { id: 2 }];

test('a text is answered; a letter is answered and its links are followed', () => {
  expect(deedsOf('text')).toEqual(['replied']);
  expect(deedsOf('email')).toEqual(['followed', 'replied']);
});

test('the next sentence is one that is not said yet', () => {
  expect(offeredTriggers([], TAGS, 'email')).toEqual({ on: 'followed', tagId: 1 });
  expect(offeredTriggers([{ on: 'followed', tagId: 1 }], TAGS, 'email')).toEqual({ on: 'followed', tagId: 2 });
  expect(offeredTriggers([{ on: 'replied', tagId: 1 }], TAGS, 'text')).toEqual({ on: 'replied', tagId: 2 });
  expect(
    offeredTriggers(
      [
        { on: 'replied', tagId: 1 },
        { on: 'replied', tagId: 2 },
      ],
      TAGS,
      'text',
    ),
  ).toBeNull();
  expect(offeredTriggers([], [], 'email')).toBeNull();
});

test('six are enough', () => {
  const many = Array.from({ length: 9 }, (_none, id) => ({ id }));
  const six = many.slice(0, 6).map(({ id }) => ({ on: 'followed' as const, tagId: id }));
  expect(offeredTriggers(six, many, 'email')).toBeNull();
});

test('a sentence that is changed into another stands once', () => {
  const deeds = [
    { on: 'followed' as const, tagId: 1 },
    { on: 'followed' as const, tagId: 2 },
  ];
  expect(changed(deeds, 1, { on: 'replied' })).toEqual([deeds[0], { on: 'replied', tagId: 2 }]);
  expect(changed(deeds, 1, { tagId: 1 })).toEqual([deeds[0]]);
});
