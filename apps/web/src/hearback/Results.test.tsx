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
  counts: { ...NONE, waiting: 300, kept: 0, sent: 100, delivered: 100, suppressed: 5 },
  ...{ rates: [], overTime: [], links: [], limited: null, night: null, turn: null, without: null },
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

test('those who were kept without it stand beside those who got it, with what chance can make', async () => {
  const without: MessageResults['without'] = {
    kept: { people: 200, gave: 6, given: 30_000 },
    meant: { people: 1800, gave: 90, given: 540_000 },
    ...{ more: 0.02, low: -0.013, high: 0.037, differs: false },
  };
  const { container } = page({ without, counts: { ...RESULTS.counts, kept: 200 } });
  expect(
    await screen.findByText(
      'No difference is seen: of those with it +2% gave (-1.3% to +3.7%), which chance alone can make.',
    ),
  ).toBeTruthy();
  expect(screen.getByRole('row', { name: 'With it 1,800 90 5% $5,400' })).toBeTruthy();
  expect(screen.getByRole('row', { name: 'Kept without it 200 6 3% $300' })).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Kept without it: 200. See them' })).toBeTruthy();
  expect(container.textContent).not.toMatch(/NaN/);
});

test('where a difference is seen it is said, with where the true one lies', async () => {
  const some = { people: 1000, gave: 50, given: 100 };
  page({ without: { kept: some, meant: some, more: 0.02, low: 0.01, high: 0.03, differs: true } });
  expect(
    await screen.findByText('A difference is seen: of those with it +2% gave (+1% to +3%).'),
  ).toBeTruthy();
});
