import fc from 'fast-check';
import { PeopleRows } from './people-rows';

test('everybody is handed out once, by rising id, with their own chapter', () => {
  // Ids to the end of what can be packed, chapters of any number.
  const person = fc.record({
    id: fc.integer({ min: 1, max: 2 ** 40 }),
    chapter: fc.integer({ min: 1, max: 4_294_967_295 }),
  });
  fc.assert(
    fc.property(fc.uniqueArray(person, { selector: ({ id }) => id, maxLength: 300 }), (people) => {
      const rows = new PeopleRows();
      for (const { id, chapter } of people) rows.push(id, chapter);
      const out: { id: number; chapter: number }[] = [];
      rows.byId((id, chapter) => out.push({ id, chapter }));
      expect(out).toEqual([...people].sort((a, b) => a.id - b.id));
    }),
  );
});

test('more than fit at first are kept', () => {
  const rows = new PeopleRows();
  for (let id = 10_000; id > 0; id--) rows.push(id, id % 3);
  const out: number[] = [];
  rows.byId((id, chapter) => (out.push(id), expect(chapter).toBe(id % 3)));
  expect(out).toEqual(Array.from({ length: 10_000 }, (_none, i) => i + 1));
});
