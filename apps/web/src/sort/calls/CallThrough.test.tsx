import { screen, waitFor } from '@testing-library/react';
import type { CallListView, CallRow } from '@goodword/core/contract';
import { reply, show, type RecordedCall } from '../../testing';
import { CallThrough } from './CallThrough';

const LIST: CallListView = {
  ...{
    id: 3,
    name: 'Evening calls',
    campaign: null,
    script: '',
    purpose: 'appeals',
    people: 5,
    suppressed: 1,
    called: 0,
    again: 0,
  },
  ...{
    outcomes: [],
    options: ['asked', 'pledged', 'no answer', 'call again'],
    madeBy: 'Rosa Oduya',
    step: null,
    madeAt: '2026-11-20T10:00:00Z',
  },
};
const rowOf = (position: number): CallRow => ({
  ...{
    position,
    supporterId: 100 + position,
    name: `Person ${position}`,
    phone: '+1 206 555 0101',
    suppressed: null,
    stage: null,
    outcome: null,
  },
  ...{ note: '', lastGift: null, script: '', hours: { words: 'from 08:00 to 21:00', from: null } },
});

/** A list whose open people are `left`, and those to be called again `again`. */
function calling(left: number[], again: number[] = [], list: Partial<CallListView> = {}) {
  const after = (path: string) => Number(new URLSearchParams(path.split('?')[1]).get('after'));
  return show(<CallThrough list={{ ...LIST, ...list }} />, {
    answers: {
      'GET calls/3/people': ({ path }: RecordedCall) => {
        const from = path.includes('who=again') ? again : path.includes('who=may') ? [1, 2, 3, 4] : left;
        return {
          rows: from
            .filter((position) => position > after(path))
            .slice(0, 1)
            .map(rowOf),
          total: from.length,
          next: null,
        };
      },
      ...Object.fromEntries([1, 2, 3, 4].map((n) => [`PUT calls/3/people/${n}`, rowOf(n)])),
      ...Object.fromEntries([1, 2, 3, 4].map((n) => [`GET supporters/${100 + n}/timeline`, []])),
    },
  });
}
const standsAt = (name: string) => screen.findByRole('heading', { level: 2, name });
const kept = (asked: RecordedCall[]) =>
  asked
    .filter(({ method }) => method === 'PUT')
    .map(({ path, body }) => [path, (body as { outcome: string }).outcome]);

test('a call is answered by keys alone, and the next one comes', async () => {
  const { user, asked } = calling([1, 2]);
  await standsAt('Person 1');
  await user.keyboard('2');
  expect(screen.getByRole('radio', { name: /pledged/ }).getAttribute('aria-checked')).toBe('true');
  await user.keyboard('nOn the first of the month{Escape}{Enter}');
  await standsAt('Person 2');
  expect(kept(asked)).toEqual([['calls/3/people/1', 'pledged']]);
  expect(asked.find(({ method }) => method === 'PUT')!.body).toEqual({
    ...{ outcome: 'pledged', note: 'On the first of the month', noMoreCalls: false },
    was: { outcome: null, note: '' },
  });
});

test('where somebody else on the list was quicker, both are shown, and nothing unseen is written over', async () => {
  const theirs = { ...rowOf(1), outcome: 'no answer', note: 'Rang for long' };
  let tries = 0;
  const { user, asked } = show(<CallThrough list={LIST} />, {
    answers: {
      'GET calls/3/people': ({ path }: RecordedCall) => ({
        rows: path.includes('who=all') ? [theirs] : [rowOf(1)],
        total: 1,
        next: null,
      }),
      'PUT calls/3/people/1': () =>
        tries++ === 0
          ? reply(409, { title: 'Newer', status: 409, detail: 'Somebody was quicker.', newer: true })
          : { ...theirs, outcome: 'pledged' },
      'GET supporters/101/timeline': [],
    },
  });
  await standsAt('Person 1');
  await user.keyboard('2{Enter}');
  expect(await screen.findByText('Two versions.')).toBeTruthy();
  // Enter alone does not choose between them.
  await user.keyboard('{Enter}');
  expect(kept(asked)).toHaveLength(1);
  await user.click(screen.getByRole('button', { name: 'See what differs' }));
  expect(screen.getByText('Rang for long')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Mine stays' }));
  await user.click(screen.getByRole('button', { name: /Save, next/ }));
  await waitFor(() => expect(kept(asked)).toHaveLength(2));
  expect(asked.filter(({ method }) => method === 'PUT').at(-1)!.body).toMatchObject({
    outcome: 'pledged',
    was: { outcome: 'no answer', note: 'Rang for long' },
  });
});

test('without an answer Enter keeps nothing; digits in the note are words', async () => {
  const { user, asked } = calling([1, 2]);
  await standsAt('Person 1');
  await user.keyboard('{Enter}n7 oars{Escape}');
  expect((screen.getByRole('textbox', { name: 'Note' }) as HTMLTextAreaElement).value).toBe('7 oars');
  expect(kept(asked)).toEqual([]);
  await standsAt('Person 1');
});

test('somebody is left for later, and the one before comes back', async () => {
  const { user, asked } = calling([1, 2]);
  await standsAt('Person 1');
  await user.keyboard('{ArrowRight}');
  await standsAt('Person 2');
  await user.keyboard('{ArrowLeft}');
  await standsAt('Person 1');
  expect(kept(asked)).toEqual([]);
});

test('an answer that was refused stays on the screen with the reason', async () => {
  const { user } = show(<CallThrough list={LIST} />, {
    answers: {
      'GET calls/3/people': { rows: [rowOf(1)], total: 1, next: null },
      'GET supporters/101/timeline': [],
    },
  });
  await standsAt('Person 1');
  await user.keyboard('1{Enter}');
  expect((await screen.findByRole('alert')).textContent).toContain('There is no calls/3/people/1.');
  await standsAt('Person 1');
});

describe('at the end of the list', () => {
  const OVER = { called: 3, again: 2, outcomes: [{ outcome: 'no answer', people: 2 }] };

  test('who was not reached is called in a round of their own', async () => {
    const { user, asked } = calling([], [2, 3], OVER);
    await screen.findByText('That was the last of the list.');
    await user.click(screen.getByRole('button', { name: 'Call the 2 again who were not reached' }));
    await standsAt('Person 2');
    await user.keyboard('2{Enter}');
    await standsAt('Person 3');
    expect(kept(asked)).toEqual([['calls/3/people/2', 'pledged']]);
  });

  test('who was left for later is gone on with', async () => {
    const { user } = calling([4], [], OVER);
    await standsAt('Person 4');
    await user.keyboard('{ArrowRight}');
    await user.click(await screen.findByRole('button', { name: 'Go on with the 1 left for later' }));
    await standsAt('Person 4');
  });

  test('a round in which nobody may be called any more is not offered again', async () => {
    const { user } = calling([], [], { ...OVER, called: 4, again: 1 });
    await user.click(await screen.findByRole('button', { name: 'Call the 1 again who were not reached' }));
    await waitFor(() =>
      expect(screen.getByText('Everybody who may be called has been called.')).toBeTruthy(),
    );
    expect(screen.queryByRole('button')).toBeNull();
  });
});

test('outside the hours of their place the number is not there, and when it will be is', async () => {
  const closed = {
    ...rowOf(1),
    phone: null,
    hours: { words: 'from 08:00 to 21:00', from: '2026-11-21T16:00:00Z' },
  };
  show(<CallThrough list={LIST} />, {
    answers: { 'GET calls/3/people': () => ({ rows: [closed], total: 1, next: null }) },
  });
  expect(await screen.findByText('Not now.')).toBeTruthy();
  expect(screen.queryByRole('link', { name: /206 555/ })).toBeNull();
});
