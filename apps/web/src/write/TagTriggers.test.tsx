import { useQuery } from '@tanstack/react-query';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { TagTrigger } from '@goodword/core/contract';
import { reading } from '../app/reading';
import { show, type StubbedAnswers } from '../testing';
import { TagTriggers } from './TagTriggers';

const TAGS = [
  { id: 5, name: 'boat shed key', people: 3 },
  { id: 6, name: 'oar makers', people: 9 },
];

/** A message of the server's that keeps what is written, slowly if need be. */
function message(
  tagTriggers: TagTrigger[],
  { channel = 'email', wait = 0 }: { channel?: 'email' | 'text'; wait?: number } = {},
) {
  const kept = { id: 7, channel, tagTriggers };
  const answers: StubbedAnswers = {
    'GET tags?counted=false': TAGS,
    'GET messages/7': () => ({ ...kept }),
    'PUT messages/7/tag-triggers': async ({ body }: { body: { tagTriggers: TagTrigger[] } }) => {
      await new Promise((done) => setTimeout(done, wait));
      kept.tagTriggers = body.tagTriggers;
    },
  };
  return { kept, answers };
}

function Page() {
  const { data } = useQuery(reading('messages/{id}', { id: 7 }));
  return data ? <TagTriggers message={data} /> : null;
}

const whom = () => screen.getByLabelText<HTMLSelectElement>('The tag that they get');
const trigger = () => screen.getByLabelText<HTMLSelectElement>('What somebody does');

test('a sentence is begun with the first that is not said yet', async () => {
  const { kept, answers } = message([]);
  const { user } = show(<Page />, { answers });
  await user.click(await screen.findByRole('button', { name: 'Tag whoever clicks a link or replies…' }));
  expect(await screen.findByLabelText('The tag that they get')).toBe(whom());
  await waitFor(() => expect(kept.tagTriggers).toEqual([{ on: 'clicked', tagId: 5 }]));
});

test('two changes one right after the other both count, though the first has not come back', async () => {
  const { kept, answers } = message([{ on: 'clicked', tagId: 5 }], { wait: 60 });
  const { user } = show(<Page />, { answers });
  await screen.findByLabelText('The tag that they get');
  await user.selectOptions(whom(), 'oar makers');
  await user.selectOptions(trigger(), 'replies');
  expect([whom().value, trigger().value]).toEqual(['6', 'replied']);
  await waitFor(() => expect(kept.tagTriggers).toEqual([{ on: 'replied', tagId: 6 }]));
});

test('two changes before anything was drawn anew both count', async () => {
  const { kept, answers } = message([{ on: 'clicked', tagId: 5 }], { wait: 20 });
  show(<Page />, { answers });
  await screen.findByLabelText('The tag that they get');
  fireEvent.change(whom(), { target: { value: '6' } });
  fireEvent.change(trigger(), { target: { value: 'replied' } });
  await waitFor(() => expect(kept.tagTriggers).toEqual([{ on: 'replied', tagId: 6 }]));
  expect([whom().value, trigger().value]).toEqual(['6', 'replied']);
});

test('a change keeps the focus where it is', async () => {
  const { answers } = message([{ on: 'clicked', tagId: 5 }]);
  const { user } = show(<Page />, { answers });
  await screen.findByLabelText('The tag that they get');
  trigger().focus();
  await user.selectOptions(trigger(), 'replies');
  expect(document.activeElement).toBe(trigger());
});

test('what the server refuses is told, and what stands there is shown again', async () => {
  const { answers } = message([{ on: 'clicked', tagId: 5 }]);
  const refused = {
    ok: false,
    status: 404,
    text: async () => '',
    json: async () => ({ title: 'Gone', status: 404, detail: 'There is no such tag.' }),
  };
  const { user } = show(<Page />, { answers: { ...answers, 'PUT messages/7/tag-triggers': () => refused } });
  await screen.findByLabelText('The tag that they get');
  await user.selectOptions(whom(), 'oar makers');
  expect(await screen.findByText('There is no such tag.')).toBeTruthy();
  await waitFor(() => expect(whom().value).toBe('5'));
});

test('links in texts are followed too, and a viewer changes nothing', async () => {
  const { answers } = message([{ on: 'replied', tagId: 6 }], { channel: 'text' });
  const { unmount } = show(<Page />, { answers });
  await screen.findByLabelText('The tag that they get');
  expect([...trigger().options].map((option) => option.text)).toEqual(['clicks a link', 'replies']);
  unmount();
  show(<Page />, { answers, role: 'viewer' });
  await screen.findByLabelText('The tag that they get');
  expect(trigger().disabled && whom().disabled).toBe(true);
  expect(screen.queryByRole('button')).toBeNull();
});
