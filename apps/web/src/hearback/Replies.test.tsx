import { screen, waitFor } from '@testing-library/react';
import { reply, show, type Answers, type Asked } from '../testing';
import Replies from './Replies';

const REPLY = { channel: 'text', from: '+12065550142', at: '2026-11-26T18:00:00Z', message: null, handled: false };

function server(): Answers {
  const replies = [
    { ...REPLY, id: 1, supporterId: 101, name: 'Elif Owusu', body: 'When does she float?', message: 'Planks are in' },
    { ...REPLY, id: 2, supporterId: null, name: '', body: 'Who is this?' },
  ];
  return {
    'GET replies': () => replies.map((one) => ({ ...one })),
    'POST replies/1/handled': ({ body }: Asked) => {
      replies[0]!.handled = (body as { handled: boolean }).handled;
      return reply(204, null);
    },
  };
}

test('each stands with the person it is of, or the number where nobody is known by it', async () => {
  show(<Replies />, { answers: server() });
  expect((await screen.findByRole('link', { name: 'Elif Owusu' })).getAttribute('href')).toBe('/sort/supporters/101');
  expect(screen.getByText('+12065550142')).toBeTruthy();
  expect(screen.getByText('To “Planks are in”')).toBeTruthy();
});

test('one is put aside, and taken up again', async () => {
  const { user } = show(<Replies />, { answers: server() });
  await user.click((await screen.findAllByRole('button', { name: 'Put it aside' }))[0]!);
  await user.click(await screen.findByRole('button', { name: 'Take it up again' }));
  await waitFor(() => expect(screen.getAllByRole('button', { name: 'Put it aside' })).toHaveLength(2));
});

test('what the server refuses is told; a viewer is offered nothing', async () => {
  const refused = { 'POST replies/1/handled': () => reply(404, { title: 'Gone', status: 404, detail: 'This reply belongs to another chapter.' }) };
  const { user, unmount } = show(<Replies />, { answers: { ...server(), ...refused } });
  await user.click((await screen.findAllByRole('button', { name: 'Put it aside' }))[0]!);
  expect(await screen.findByText('This reply belongs to another chapter.')).toBeTruthy();
  unmount();
  show(<Replies />, { answers: server(), role: 'viewer' });
  await screen.findByText('When does she float?');
  expect(screen.queryByRole('button')).toBeNull();
});

test('nobody has written yet', async () => {
  show(<Replies />, { answers: { 'GET replies': [] } });
  expect(await screen.findByText('Nobody has written back yet')).toBeTruthy();
});
