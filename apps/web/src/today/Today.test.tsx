import { screen, waitFor, within } from '@testing-library/react';
import type { TodayView, WeekView } from '@goodword/core/contract';
import { reply, show, type StubbedAnswers } from '../testing';
import Today from './Today';

const EMPTY: TodayView = {
  sender: 0,
  ...{
    batches: [],
    arrived: [],
    messages: [],
    replies: 0,
    firstReply: null,
    stops: [],
    goes: [],
    piles: [],
    feeds: [],
  },
  ...{ unsure: 0, unsureMessageId: null, unsureSince: null, drafts: 0, draft: null },
  ...{ lapsing: { people: 0, days: 30 }, erasures: [], onHold: 0 },
};
const WEEK: WeekView = {
  figures: [
    { kind: 'joined', now: 61, usual: 40 },
    { kind: 'left', now: 2, usual: null },
    { kind: 'gave', now: 230_000, usual: 150_000 },
    { kind: 'replied', now: 0, usual: 3 },
  ],
  weeks: 26,
};
const REST = { 'GET today/week': WEEK, 'GET today/done': { answered: 9, broughtIn: 398, sent: 0 } };
const HOUR = 3_600_000;
const ago = (hours: number) => new Date(Date.now() - hours * HOUR).toISOString();

const today = (
  of: Partial<TodayView> = {},
  answers: StubbedAnswers = {},
  role: 'organizer' | 'viewer' = 'organizer',
) => show(<Today />, { answers: { 'GET today': { ...EMPTY, ...of }, ...REST, ...answers }, role });
const leads = (name: RegExp | string) => screen.getByRole('link', { name }).getAttribute('href');

test('where nothing waits it says so, with what could be begun, and what was done', async () => {
  today();
  expect(await screen.findByText('Nothing waits for you.')).toBeTruthy();
  expect(['Bring a file in', 'begin a message', 'look at who is here'].map(leads)).toEqual([
    '/gather/new',
    '/write',
    '/sort',
  ]);
  expect(screen.getByText('No message is on its way.')).toBeTruthy();
  expect(await screen.findByText('Done today: 9 replies answered, 398 people brought in.')).toBeTruthy();
});

test('each line leads to what it speaks of, in the number of what it is', async () => {
  today({
    arrived: [{ id: 7, name: 'Harbor day', at: ago(1), people: 1 }],
    batches: [{ id: 8, name: 'Pier sheet', state: 'checked', rows: 412, by: 'Idris Vale', at: ago(20) }],
    ...{
      replies: 1,
      firstReply: { name: 'Amara Lindqvist', words: 'Is there parking?', message: 'She floats', at: ago(2) },
    },
    ...{
      unsure: 2,
      unsureMessageId: 5,
      unsureSince: ago(1),
      drafts: 1,
      draft: { id: 3, name: 'Winter hull', at: ago(30) },
      onHold: 1,
    },
    erasures: [{ taskId: 1, supporterId: 101, name: '', at: ago(24) }],
  });
  expect(await screen.findByText(/came in with Harbor day/)).toBeTruthy();
  expect(leads('Look: 1 person came in with Harbor day')).toBe('/gather/7');
  expect(leads('Go on: 412 Pier sheet is checked and can come in')).toBe('/gather/8');
  expect(leads('Answer: 1 reply to “She floats”')).toBe('/hear-back/replies');
  expect(leads('Settle: 2 mails may or may not have gone')).toBe('/hear-back/5');
  expect(leads('Go on: 1 draft to finish')).toBe('/write/3');
  expect(leads('Look: 1 person has an address on hold')).toBe('/sort?hold=true');
  expect(leads('Open: 1 Somebody without a name asks to be erased')).toBe('/sort/supporters/101');
  expect(screen.getByText(/412 rows; Idris Vale began it/)).toBeTruthy();
});

test('the most pressing comes first, and what is late says so', async () => {
  today({
    ...{
      replies: 2,
      firstReply: { name: 'Amara Lindqvist', words: 'Is there parking?', message: 'She floats', at: ago(40) },
    },
    ...{ drafts: 4, draft: { id: 3, name: 'Winter hull', at: ago(1) } },
    stops: [{ taskId: 12, supporterId: 101, name: 'Elif Owusu', words: 'no more, ok?', at: ago(1) }],
  });
  const lines = await screen.findAllByRole('listitem');
  const words = lines.map((line) => line.textContent).slice(0, 3);
  expect(words[0]).toContain('“no more, ok?” is held');
  expect(words[1]).toMatch(/people who wait for an answer, the oldest first, late/);
  expect(words[2]).toMatch(/drafts to finish“Winter hull” last/);
  expect(screen.getByText('3 things wait, 1 late')).toBeTruthy();
});

test('what leaves says when and to how many, and opens', async () => {
  today({
    messages: [
      {
        id: 4,
        name: 'Planks are in',
        state: 'scheduled',
        channel: 'email',
        pausedWhy: null,
        when: '2026-12-01T17:30:00Z',
        people: 4182,
      },
      {
        id: 5,
        name: 'Tide table',
        state: 'sending',
        channel: 'text',
        pausedWhy: null,
        when: null,
        people: 1,
      },
      {
        id: 6,
        name: 'Bilge',
        state: 'preparing',
        channel: 'email',
        pausedWhy: null,
        when: null,
        people: null,
      },
    ],
  });
  const line = async (name: string) => (await screen.findByRole('link', { name })).closest('li')!.textContent;
  expect(await line('Planks are in')).toMatch(/4,182.*Dec 1, 2026.*9:30.*by email/);
  expect(await line('Tide table')).toContain('leaves now, by text, person to go');
  expect(await line('Bilge')).toBe('Bilgeis being made ready, by email');
  expect([leads('Planks are in'), leads('Tide table')]).toEqual(['/send/4', '/hear-back/5']);
});

test('the week stands beside the usual one in figures, each of which opens', async () => {
  today();
  expect(await screen.findByText('usually 40')).toBeTruthy();
  expect(screen.getByText('usually $1,500')).toBeTruthy();
  expect(
    screen.getByText('The last seven days. The stroke is the usual week, the middle of 26.'),
  ).toBeTruthy();
  expect(leads('Opted out: 2')).toBe('/house/proof');
  const gave = new URL(leads('Gave: $2,300')!, 'http://page.test');
  expect(JSON.parse(gave.searchParams.get('tree')!)).toEqual({
    kind: 'all',
    rules: [{ kind: 'gave', did: true, atLeast: null, window: { over: 'last-days', days: 6 } }],
  });
});

test('permission that lapses opens the segment of whose it is', async () => {
  today({ lapsing: { people: 36, days: 30 } });
  await screen.findByText(/lapses within 30 days/);
  const to = new URL(leads(/^Ask again: 36 people’s permission lapses within 30 days/)!, 'http://page.test');
  expect([to.pathname, to.searchParams.get('name')]).toEqual([
    '/sort/segments/new',
    'Permission lapses soon',
  ]);
  expect(JSON.parse(to.searchParams.get('tree')!)).toEqual({
    kind: 'all',
    rules: [{ kind: 'lapses', channel: 'email', scope: 'appeals', days: 30 }],
  });
});

describe('somebody who asked to stop in their own words', () => {
  const STOP = {
    taskId: 12,
    supporterId: 101,
    name: 'Elif Owusu',
    words: 'please no more of these, ok?',
    at: new Date().toISOString(),
  };

  test('is read by a person, who says what was meant', async () => {
    const { user, asked } = today(
      { stops: [STOP] as never },
      { 'POST tasks/12/settle': () => reply(204, null) },
    );
    const line = (await screen.findByText(/is held until you say what it means/)).closest('li')!;
    expect(line.textContent).toContain(
      '“please no more of these, ok?” is held until you say what it meansElif Owusu, ',
    );
    await user.click(within(line).getByRole('button', { name: 'They mean stop' }));
    await waitFor(() =>
      expect(asked.find(({ method }) => method === 'POST')).toMatchObject({
        path: 'tasks/12/settle',
        body: { outcome: 'meant' },
      }),
    );
  });

  test('stays where the server could not settle it, with the reason', async () => {
    const detail = 'Idris Vale has settled this already.';
    const { user } = today(
      { stops: [STOP] as never },
      { 'POST tasks/12/settle': () => reply(409, { title: 'Settled', status: 409, detail }) },
    );
    await user.click(await screen.findByRole('button', { name: 'They don’t' }));
    expect(await screen.findByText(detail)).toBeTruthy();
  });

  test('is told to a viewer, who can’t settle it', async () => {
    today({ stops: [{ ...STOP, supporterId: null, name: '+1 206 555 0142' }] as never }, {}, 'viewer');
    expect(await screen.findByText(/^\+1 206 555 0142, /)).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });
});
