import { screen, waitFor } from '@testing-library/react';
import type { MessageView, StepCalls } from '@goodword/core/contract';
import { show } from '../testing';
import { CallsToMake } from './CallsToMake';

const STEP = { id: 7, name: 'Ring them', state: 'calling' } as MessageView;
const CALLS: StepCalls = {
  lists: [{ id: 3, name: 'Ring them', people: 5, called: 2, again: 1, suppressed: 1 }],
  waiting: 3,
};

const calls = (message: MessageView, shown: StepCalls, role: 'organizer' | 'viewer' = 'organizer') =>
  show(<CallsToMake message={message} />, {
    role,
    answers: { 'GET messages/7/calls': shown, 'POST messages/7/calls/over': null },
  });

test('says how far its lists are, and ends only when it was asked how many were not reached', async () => {
  const { user, asked } = calls(STEP, CALLS);
  expect(await screen.findByText('3 people are still to be called.')).toBeTruthy();
  expect(screen.getByText('2 of 4 called, 1 to be called again')).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Ring them' }).getAttribute('href')).toBe('/sort/calls/3');
  const over = () => asked.filter(({ path }) => path === 'messages/7/calls/over');
  await user.click(screen.getByRole('button', { name: 'The calls are over' }));
  expect(screen.getByText('3 people were not reached, and count as not called.')).toBeTruthy();
  expect(over()).toHaveLength(0);
  await user.dblClick(screen.getByRole('button', { name: 'They are over' }));
  await waitFor(() => expect(over()).toHaveLength(1));
});

test('whoever may not call sees how far it is, and nothing to press', async () => {
  calls(STEP, CALLS, 'viewer');
  expect(await screen.findByText('3 people are still to be called.')).toBeTruthy();
  expect([screen.queryByRole('button'), screen.queryByRole('link')]).toEqual([null, null]);
});

test.each([
  ['stopped', 'It was stopped: who was not called yet counts as not called.'],
  ['done', 'The calls are over.'],
] as const)('%s takes no end any more', async (state, words) => {
  calls({ ...STEP, state }, CALLS);
  expect(await screen.findByText(words)).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});

test('before its list is there it says that it is being made', async () => {
  calls(STEP, { lists: [], waiting: 5 });
  expect(await screen.findByText('The list to call is being made…')).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});
