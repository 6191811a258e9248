import { screen, waitFor } from '@testing-library/react';
import { Route, Routes, useLocation } from 'react-router';
import { show, type StubbedAnswers } from '../testing';
import Finder from './Finder';

const Where = () => <p>at {useLocation().pathname + useLocation().search}</p>;

const find = (answers: StubbedAnswers) => {
  const closed: number[] = [];
  const shown = show(
    <>
      <Finder onClose={() => closed.push(1)} />
      <Routes>
        <Route path="*" element={<Where />} />
      </Routes>
    </>,
    { answers },
  );
  return { ...shown, closed, type: (text: string) => shown.user.type(screen.getByRole('combobox'), text) };
};

const FOUND: StubbedAnswers = {
  'GET find?text=elif': [
    { kind: 'supporter', id: 101, name: 'Elif Owusu', note: 'elif@example.net' },
    { kind: 'supporter', id: 102, name: '', note: '+1 206 555 0142' },
    { kind: 'message', id: 4, name: 'Elif’s thanks', note: 'draft' },
    { kind: 'message', id: 5, name: 'Elif’s news', note: 'sent' },
  ],
};

test('stations and deeds are offered before a letter is typed, and the server is not asked', () => {
  const { asked } = find({});
  expect(screen.getByText('Bring in a file')).toBeTruthy();
  expect(screen.getByText('Hear back')).toBeTruthy();
  expect(asked).toEqual([]);
});

test('people are found, with what tells them apart; who has no name is said to have none', async () => {
  const { type } = find(FOUND);
  await type('elif');
  expect(await screen.findByText('elif@example.net')).toBeTruthy();
  expect(screen.getByText('No name on file')).toBeTruthy();
});

test.each([
  ['Elif Owusu', '/sort/supporters/101'],
  ['Elif’s thanks', '/write/4'],
  ['Elif’s news', '/hear-back/5'],
])('%s leads to %s', async (name, path) => {
  const { type, user, closed } = find(FOUND);
  await type('elif');
  await user.click(await screen.findByText(name));
  expect(screen.getByText(`at ${path}`)).toBeTruthy();
  expect(closed).toEqual([1]);
});

test('Enter before the answer is there opens the first of it when it comes', async () => {
  let answer: (found: unknown) => void = () => undefined;
  const { type, closed } = find({ 'GET find?text=elif': () => new Promise((done) => (answer = done)) });
  await type('elif{Enter}');
  expect(closed).toEqual([]);
  answer([{ kind: 'list', id: 2, name: 'Elif’s crew', note: '' }]);
  await waitFor(() => expect(screen.getByText('at /sort?list=2')).toBeTruthy());
});

test('nothing of that name says what else to try', async () => {
  const { type } = find({ 'GET find?text=zzzz': [] });
  await type('zzzz');
  expect(await screen.findByText(/Try a last name, the start of an email, or four digits/)).toBeTruthy();
});

test('Enter opens the first of an answer that took several others away', async () => {
  const { type, user } = find({
    'GET find?text=fe': [
      { kind: 'supporter', id: 1, name: 'Femi Abara', note: 'femi@example.net' },
      { kind: 'supporter', id: 2, name: 'Femi Adeyemi', note: 'adeyemi@example.net' },
      { kind: 'list', id: 7, name: 'Ferry news', note: '' },
    ],
    'GET find?text=fer': () =>
      new Promise((done) =>
        setTimeout(() => done([{ kind: 'list', id: 7, name: 'Ferry news', note: '' }]), 50),
      ),
  });
  await type('fe');
  await screen.findByText('Femi Adeyemi');
  await type('r');
  await waitFor(() => expect(screen.queryByText('Femi Adeyemi')).toBeNull());
  await user.keyboard('{Enter}');
  expect(screen.getByText('at /sort?list=7')).toBeTruthy();
});

test('a search that failed says so, and not that there is nobody', async () => {
  const { type } = find({
    'GET find?text=elif': () => Promise.reject(new Error('The server is away.')),
  });
  await type('elif');
  expect((await screen.findByRole('alert')).textContent).toContain('No connection');
  expect(screen.queryByText(/Nothing of that name/)).toBeNull();
});
