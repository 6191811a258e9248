import type { Announcements, DndContextProps, UniqueIdentifier } from '@dnd-kit/core';

/** What is read aloud while something is moved: by its name, and over what it is, never by a number of the program's. */
export function spoken(nameOf: (id: string) => string | undefined): NonNullable<DndContextProps['accessibility']> {
  const name = (id: UniqueIdentifier) => nameOf(String(id)) ?? 'it';
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${name(active.id)} is picked up.`,
    onDragOver: ({ active, over }) => (over ? `${name(active.id)} is over ${name(over.id)}.` : `${name(active.id)} is over nothing.`),
    onDragEnd: ({ active, over }) => (over ? `${name(active.id)} is put at ${name(over.id)}.` : `${name(active.id)} is put back.`),
    onDragCancel: ({ active }) => `${name(active.id)} is put back where it was.`,
  };
  return {
    announcements,
    screenReaderInstructions: { draggable: 'Press Space to pick it up, the arrow keys to move it, Space to put it down, Escape to put it back.' },
  };
}
