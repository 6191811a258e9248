import { draggingWords } from './dragging';

test('what is moved is spoken of by its name', () => {
  const { announcements } = draggingWords((id) => ({ '7': 'Shirt size', '8': 'Boat' })[id]);
  const [active, over] = [{ id: 7 }, { id: '8' }] as never[];
  const said = announcements!;
  expect(said.onDragStart({ active } as never)).toBe('Shirt size is picked up.');
  expect(said.onDragOver({ active, over } as never)).toBe('Shirt size is over Boat.');
  expect(said.onDragEnd({ active, over } as never)).toBe('Shirt size is put at Boat.');
  expect(said.onDragEnd({ active, over: null } as never)).toBe('Shirt size is put back.');
  expect(said.onDragCancel({ active, over: null } as never)).toBe('Shirt size is put back where it was.');
  expect(said.onDragStart({ active: { id: 'gone' } } as never)).toBe('it is picked up.');
});
