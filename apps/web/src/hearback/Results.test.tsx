import { screen } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import type { MessageResults } from '@goodword/core/contract';
import { show } from '../testing';
import Results from './Results';

const NONE = { opened: 0, clicked: 0, replied: 0, failed: 0, left: 0, bounced: 0, door: 0, unsure: 0 };
const RESULTS: MessageResults = {
  message: {
    ...{ id: 4, name: 'Planks are in', channel: 'email', state: 'sending' },
    ...{ startedAt: '2026-12-02T18:00:00Z', pausedWhy: null },
  },
  counts: { ...NONE, waiting: 300, sent: 100, delivered: 100, suppressed: 5 },
  ...{ rates: [], overTime: [], links: [], limited: null, night: null, turn: null },
  pace: { rate: 0, secondsLeft: null },
};
const page = (part: Partial<MessageResults>, role: 'organizer' | 'viewer' = 'organizer') =>
  show(
    <Routes>
      <Route path="/hear-back/:id" element={<Results />} />
    </Routes>,
    { at: '/hear-back/4', role, answers: { 'GET messages/4/results': { ...RESULTS, ...part } } },
  );

test('what waits for its turn is told with when the last of it comes, apart from what waits for a decent hour', async () => {
  page({
    turn: { people: 280, until: '2026-12-04T17:30:00Z' },
    night: { people: 1, until: '2026-12-03T16:00:00Z' },
  });
  expect(await screen.findByText('100 of 400 have left.')).toBeTruthy();
  expect(screen.getByText(/^280 people get it in their turn; the last of them Dec 4, 2026/)).toBeTruthy();
  expect(screen.getByText(/^1 message waits for a decent hour where their people are/)).toBeTruthy();
});

test('at once, nothing is said of turns', async () => {
  page({ pace: { rate: 20, secondsLeft: 15 } });
  expect(await screen.findByText('100 of 400 have left, 20 a second, about 15 seconds left.')).toBeTruthy();
  expect(screen.queryByText(/in their turn/)).toBeNull();
});

test('a viewer sees how it goes and is not offered to hold it', async () => {
  page({}, 'viewer');
  expect(await screen.findByText('100 of 400 have left.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Pause' })).toBeNull();
});
