import { screen, waitFor } from '@testing-library/react';
import type { TimelineItem } from '@goodword/core/contract';
import { reply, show, type StubbedAnswers, type RecordedCall } from '../../testing';
import { Timeline } from './Timeline';

const ITEM = { tone: 'plain', detail: 'By Rosa Oduya', link: null, undo: null, note: null } as const;
const NOTE = {
  id: 3,
  kind: 'note',
  body: 'Likes to be called in the evening.',
  by: 'Rosa Oduya',
  at: '2026-11-20T10:00:00Z',
  changedAt: null,
};

function server(of: StubbedAnswers = {}) {
  const notes = [{ ...NOTE, mine: true }];
  const answers: StubbedAnswers = {
    'GET supporters/101/timeline': (): TimelineItem[] => [
      { ...ITEM, at: '2026-11-25T10:00:00Z', kind: 'edit', title: 'Shirt size: M', undo: 55 },
      ...notes.map((note) => ({
        ...ITEM,
        at: note.at,
        kind: 'note' as const,
        title: 'Note',
        note: note as never,
      })),
      {
        ...ITEM,
        at: '2026-11-12T10:00:00Z',
        kind: 'delivery',
        title: 'Got “Planks are in”',
        link: '/hear-back/4',
      },
    ],
    'GET supporters/101/timeline?kinds=gift': [],
    'POST supporters/101/notes': ({ body }: RecordedCall) => {
      notes.unshift({ ...NOTE, id: 4, body: (body as { body: string }).body, mine: true });
      return reply(201, { id: 4 });
    },
    'PUT supporters/101/notes/3': ({ body }: RecordedCall) => (
      (notes[0]!.body = (body as { body: string }).body),
      reply(204, null)
    ),
    'DELETE supporters/101/notes/3': () => (notes.pop(), reply(204, null)),
    'POST supporters/101/history/55/undo': () => reply(204, null),
    ...of,
  };
  return { notes, answers };
}
const timeline = (answers: StubbedAnswers, role: 'organizer' | 'viewer' = 'organizer') =>
  show(<Timeline supporterId={101} />, { answers, role });

test('a note is kept by its button or by Ctrl and Enter, once, and its field is empty again', async () => {
  const { answers, notes } = server();
  const { user } = timeline(answers);
  const field = await screen.findByLabelText<HTMLTextAreaElement>('A note, for the team alone');
  expect(screen.queryByRole('button', { name: 'Save the note' })).toBeNull();
  await user.type(field, 'Has a boat.{Control>}{Enter}{Enter}{/Control}');
  await waitFor(() => expect(field.value).toBe(''));
  expect(notes.map(({ body }) => body)).toEqual(['Has a boat.', NOTE.body]);
  await user.type(field, '   ');
  expect(screen.queryByRole('button', { name: 'Save the note' })).toBeNull();
});

test('its writer changes it, leaves it as it was, and deletes it', async () => {
  const { answers, notes } = server();
  const { user } = timeline(answers);
  await user.click(await screen.findByRole('button', { name: 'Change' }));
  await user.type(screen.getByLabelText('The note'), ' Not on Sundays.');
  await user.click(screen.getByRole('button', { name: 'Leave it as it was' }));
  expect(notes[0]!.body).toBe(NOTE.body);
  await user.click(screen.getByRole('button', { name: 'Change' }));
  await user.type(screen.getByLabelText('The note'), ' Not on Sundays.');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByText('Likes to be called in the evening. Not on Sundays.')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Delete' }));
  await waitFor(() => expect(notes).toEqual([]));
});

test('an edit is undone where it is told; where that can’t be, the reason stands beside it', async () => {
  const detail = 'It was changed again since. Undo that first.';
  const { answers } = server({
    'POST supporters/101/history/55/undo': () => reply(409, { title: 'No', status: 409, detail }),
  });
  const { user } = timeline(answers);
  await user.click(await screen.findByRole('button', { name: 'Undo: Shirt size: M' }));
  expect(await screen.findByRole('alert')).toHaveProperty('textContent', detail);
});

test('it is narrowed to what one looks for, and says when there is nothing of it', async () => {
  const { answers } = server();
  const { user } = timeline(answers);
  expect((await screen.findByRole('link', { name: 'Got “Planks are in”' })).getAttribute('href')).toBe(
    '/hear-back/4',
  );
  await user.selectOptions(screen.getByLabelText('What to show'), 'Gifts');
  expect(await screen.findByText('Nothing of this kind yet.')).toBeTruthy();
});

test('a viewer reads, and neither writes nor undoes', async () => {
  const { answers } = server();
  timeline(answers, 'viewer');
  await screen.findByText('Shirt size: M');
  expect(screen.queryByLabelText('A note, for the team alone')).toBeNull();
  expect(screen.queryByRole('button', { name: /Undo/ })).toBeNull();
});
