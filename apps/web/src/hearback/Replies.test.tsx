import { screen, waitFor } from '@testing-library/react';
import { reply, show, type StubbedAnswers, type RecordedCall } from '../testing';
import Replies from './Replies';

const REPLY = {
  channel: 'text',
  from: '+12065550142',
  at: '2026-11-26T18:00:00Z',
  message: null,
  handled: false,
};

function server(): StubbedAnswers {
  const replies = [
    {
      ...REPLY,
      id: 1,
      supporterId: 101,
      name: 'Elif Owusu',
      body: 'When does she float?',
      message: 'Planks are in',
    },
    { ...REPLY, id: 2, supporterId: null, name: '', body: 'Who is this?' },
  ];
  return {
    'GET replies': () => replies.map((one) => ({ ...one })),
    'POST replies/1/handled': ({ body }: RecordedCall) => {
      replies[0]!.handled = (body as { handled: boolean }).handled;
      return reply(204, null);
    },
  };
}

test('each stands with the person it is of, or the number where nobody is known by it', async () => {
  show(<Replies />, { answers: server() });
  expect((await screen.findByRole('link', { name: 'Elif Owusu' })).getAttribute('href')).toBe(
    '/sort/supporters/101',
  );
  expect(screen.getByText('+12065550142')).toBeTruthy();
  expect(screen.getByText('To “Planks are in”')).toBeTruthy();
});

test('one is marked as done, and opened again', async () => {
  const { user } = show(<Replies />, { answers: server() });
  await user.click((await screen.findAllByRole('button', { name: 'Mark as done' }))[0]!);
  await user.click(await screen.findByRole('button', { name: 'Open again' }));
  await waitFor(() => expect(screen.getAllByRole('button', { name: 'Mark as done' })).toHaveLength(2));
});

test('what the server refuses is told; a viewer is offered nothing', async () => {
  const refused = {
    'POST replies/1/handled': () =>
      reply(404, { title: 'Gone', status: 404, detail: 'This reply belongs to another chapter.' }),
  };
  const { user, unmount } = show(<Replies />, { answers: { ...server(), ...refused } });
  await user.click((await screen.findAllByRole('button', { name: 'Mark as done' }))[0]!);
  expect(await screen.findByText('This reply belongs to another chapter.')).toBeTruthy();
  unmount();
  show(<Replies />, { answers: server(), role: 'viewer' });
  await screen.findByText('When does she float?');
  expect(screen.queryByRole('button')).toBeNull();
});

test('one is answered where it stands, on their channel and as service, and is done with that', async () => {
  const record = {
    id: 101,
    firstName: 'Elif',
    lastName: 'Owusu',
    contactPoints: [{ kind: 'email' }, { kind: 'mobile' }],
  };
  const { user, asked } = show(<Replies />, {
    answers: {
      ...server(),
      'GET supporters/101': record,
      'GET merge-fields': [],
      'GET messages': [],
      'GET supporters/101/may-write': { verdict: 'send', words: 'They will get it', to: '+1 206 555 0142' },
      'POST supporters/101/messages': { id: 9 },
    },
  });
  // Of a number that is nobody's there is nobody to write to.
  expect(await screen.findAllByRole('button', { name: 'Answer…' })).toHaveLength(1);
  await user.click(screen.getByRole('button', { name: 'Answer…' }));
  expect((await screen.findByLabelText('What they wrote')).textContent).toBe('When does she float?');
  await user.type(screen.getByLabelText('The text'), 'In April, on the tide.');
  await user.click(screen.getByRole('button', { name: 'Send it to Elif Owusu' }));
  await waitFor(() => expect(asked.some(({ path }) => path === 'replies/1/handled')).toBe(true));
  expect(asked.find(({ path }) => path === 'supporters/101/messages')!.body).toMatchObject({
    ...{ channel: 'text', purpose: 'service', text: 'In April, on the tide.' },
  });
});

test('nobody has written yet', async () => {
  show(<Replies />, { answers: { 'GET replies': [] } });
  expect(await screen.findByText('Nobody has written back yet')).toBeTruthy();
});
