import { screen, waitFor } from '@testing-library/react';
import { reply, show } from '../../testing';
import { BulkForm } from './BulkForm';

test('a tag is made inside the act that needs it, and the act goes on with it', async () => {
  const tags = [{ id: 5, name: 'rowers' }];
  const begun = jest.fn(async () => undefined);
  const { user, asked } = show(<BulkForm act="tag" many="2 people" onBegin={begun} />, {
    answers: {
      'GET tags': () => [...tags],
      'POST tags': () => (tags.push({ id: 9, name: 'menders' }), { id: 9 }),
    },
  });
  await user.type(await screen.findByLabelText(/Or a new tag/), 'menders{Enter}');
  await waitFor(() => expect(screen.getByLabelText<HTMLSelectElement>('Tag').value).toBe('9'));
  expect(begun).not.toHaveBeenCalled();
  expect(asked.filter(({ method }) => method === 'POST').map(({ body }) => body)).toEqual([
    { name: 'menders' },
  ]);
});

test('a name that is taken is told beside it', async () => {
  const { user } = show(<BulkForm act="list" many="2 people" onBegin={async () => undefined} />, {
    answers: {
      'GET lists': [],
      'POST lists': () =>
        reply(409, {
          title: 'Not as things stand',
          status: 409,
          detail: 'There is a list named News already.',
        }),
    },
  });
  await user.type(await screen.findByLabelText(/Or a new list/), 'News');
  await user.click(screen.getByRole('button', { name: 'Make it' }));
  expect(await screen.findByText('There is a list named News already.')).toBeDefined();
});
