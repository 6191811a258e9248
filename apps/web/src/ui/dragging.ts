import { t } from '@lingui/core/macro';
import type { Announcements, DndContextProps, UniqueIdentifier } from '@dnd-kit/core';

/**
 * What is read aloud while something is moved: by its name, and over what it is, never by a number of the
 * program's.
 */
export function draggingWords(
  nameOf: (id: string) => string | undefined,
): NonNullable<DndContextProps['accessibility']> {
  const name = (id: UniqueIdentifier) => nameOf(String(id)) ?? 'it';
  const announcements: Announcements = {
    onDragStart: ({ active }) => t`${name(active.id)} is picked up.`,
    onDragOver: ({ active, over }) =>
      over ? t`${name(active.id)} is over ${name(over.id)}.` : t`${name(active.id)} is over nothing.`,
    onDragEnd: ({ active, over }) =>
      over ? t`${name(active.id)} is put at ${name(over.id)}.` : t`${name(active.id)} is put back.`,
    onDragCancel: ({ active }) => t`${name(active.id)} is put back where it was.`,
  };
  return {
    announcements,
    screenReaderInstructions: {
      draggable: t`Press Space to pick it up, the arrow keys to move it, Space to put it down, Escape to put it back.`,
    },
  };
}
