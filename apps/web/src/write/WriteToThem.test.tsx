import { screen, waitFor } from '@testing-library/react';
import { useLocation } from 'react-router';
import { reply, show, type StubbedAnswers } from '../testing';
import { UseAgain } from './UseAgain';
import { WriteToThem } from './WriteToThem';

function Where() {
  return <p>{useLocation().pathname}</p>;
}
const shown = (what: React.ReactNode, answers: StubbedAnswers) =>
  show(
    <>
      {what}
      <Where />
    </>,
    { answers },
  );

test('a message is begun to those one looks at, and its page opens', async () => {
  const begun = jest.fn();
  const { user, asked } = shown(
    <WriteToThem whom="Winter fair" to={() => ({ ref: { kind: 'list', id: 4 } })} onBegun={begun} />,
    {
      'POST messages-to': { id: 12 },
    },
  );
  await user.click(screen.getByRole('button', { name: 'Write to them…' }));
  await user.selectOptions(screen.getByLabelText('It goes by'), 'text');
  await user.selectOptions(screen.getByLabelText(/It is for/), 'news');
  await user.click(screen.getByRole('button', { name: 'Begin to write' }));
  await waitFor(() => expect(screen.getByText('/write/12')).toBeDefined());
  expect(asked.filter(({ method }) => method === 'POST').map(({ body }) => body)).toEqual([
    { name: 'To Winter fair', channel: 'text', purpose: 'news', to: { ref: { kind: 'list', id: 4 } } },
  ]);
  expect(begun).toHaveBeenCalledTimes(1);
});

test('what the server refuses is told where it was asked, and the page stays', async () => {
  const { user } = shown(<WriteToThem asLink whom="Menders" to={() => ({ group: { ids: [1] } })} />, {
    'POST messages-to': () =>
      reply(409, { title: 'Not as things stand', status: 409, detail: 'Nobody is in this group.' }),
  });
  await user.click(screen.getByRole('button', { name: 'Write to Menders' }));
  await user.click(screen.getByRole('button', { name: 'Begin to write' }));
  expect(await screen.findByText(/Nobody is in this group/)).toBeDefined();
  expect(screen.getByText('/')).toBeDefined();
});

test('words are used again in a draft of their own', async () => {
  const { user, asked } = shown(<UseAgain id={3} name="Hull" />, { 'POST messages/3/copy': { id: 13 } });
  await user.click(screen.getByRole('button', { name: 'Use the words of Hull again' }));
  await waitFor(() => expect(screen.getByText('/write/13')).toBeDefined());
  expect(asked.map(({ path }) => path)).toContain('messages/3/copy');
});
