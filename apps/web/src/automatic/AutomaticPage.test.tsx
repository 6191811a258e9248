import { screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import type { AutomationStep, AutomationWhole, VisitRow } from '@goodword/core/contract';
import { reply, show, type RecordedCall, type StubbedAnswers } from '../testing';
import AutomaticPage from './AutomaticPage';
import { waitWords } from './WaitWord';

const STEP: AutomationStep = {
  ...{ messageId: 5, version: 2, name: 'Thank you', channel: 'email', state: 'draft', lacks: [], went: 0 },
  wait: { n: 2, unit: 'hours', at: null },
};
const OFF: AutomationWhole = {
  ...{ id: 3, version: 4, name: 'Thanks', on: false, onSince: null, again: true, stops: ['left'] },
  ...{ cause: { kind: 'gift', which: 'any', atLeast: 100 }, words: 'a gift of at least $1 arrives' },
  ...{ unless: null, unlessWords: '', steps: [STEP] },
  counts: { waiting: 0, held: 0, done: 0, ended: 0 },
};
const ON: AutomationWhole = {
  ...{ ...OFF, on: true, onSince: '2026-11-30T18:00:00Z', steps: [{ ...STEP, state: 'standing', went: 7 }] },
  counts: { waiting: 2, held: 0, done: 7, ended: 1 },
};
const visit = (id: number, name: string, values: Partial<VisitRow> = {}): VisitRow => ({
  ...{ id, supporterId: id + 100, name, causedAt: '2026-12-01T18:00:00Z' },
  ...{ dueAt: '2026-12-01T20:00:00Z', next: 'Thank you', why: null, came: null, ...values },
});
const page = (
  automation: AutomationWhole,
  answers: StubbedAnswers = {},
  role: 'organizer' | 'viewer' = 'organizer',
) =>
  show(
    <Routes>
      <Route path="/send/automatic/:id" element={<AutomaticPage />} />
    </Routes>,
    {
      ...{ role, at: '/send/automatic/3' },
      answers: {
        'GET automations/3': automation,
        ...{
          'GET fields': [],
          'GET batches': [],
          'GET campaigns': [],
          'GET messages': [],
          'GET segments': [],
        },
        ...{ 'GET tags': [{ id: 8, name: 'pledged' }], 'GET lists': [], 'GET forms': [] },
        'GET session/teammates': [{ id: 2, name: 'June Marsh', email: 'june@lanternferry.test' }],
        'PUT automations/3': { version: 5 },
        'PUT automations/3/steps/5': { version: 3 },
        'GET automations/3/look': { lacks: [], people: 0, month: 41 },
        'GET automations/3/people': { rows: [], total: 0, next: null },
        ...answers,
      },
    },
  );
const put = (asked: readonly RecordedCall[], path: string) =>
  asked.filter((one) => one.method === 'PUT' && one.path === path).map(({ body }) => body);

/** Keeps what is saved, as the server does. */
function keeping(): StubbedAnswers {
  let kept = OFF;
  return {
    'GET automations/3': () => kept,
    'PUT automations/3': ({ body }: RecordedCall) => {
      kept = { ...kept, ...(body as Partial<AutomationWhole>), version: kept.version + 1 };
      return { version: kept.version };
    },
  };
}

test('off, its sentence is changed where it is read, each change building on the one before', async () => {
  const { user, asked } = page(OFF, keeping());
  await user.click(await screen.findByRole('button', { name: 'Amount: of at least $1' }));
  const typed = screen.getByRole('textbox', { name: /^At least/ });
  await user.clear(typed);
  await user.type(typed, 'lots');
  expect(screen.getByText('This is no amount. Write it like 25 or 25.50.')).toBeTruthy();
  await user.clear(typed);
  await user.type(typed, '25.50{Enter}');
  await user.click(screen.getByRole('button', { name: /^When it is over/ }));
  await user.click(screen.getByRole('checkbox', { name: 'they reply' }));
  await waitFor(() => expect(put(asked, 'automations/3')).toHaveLength(2));
  expect(put(asked, 'automations/3')).toMatchObject([
    { cause: { kind: 'gift', which: 'any', atLeast: 2550 }, stops: ['left'], basedOn: 4 },
    { cause: { kind: 'gift', which: 'any', atLeast: 2550 }, stops: ['left', 'replied'], basedOn: 5 },
  ]);
});

test('another cause begins with what there is; what there is nothing of is not offered', async () => {
  const { user, asked } = page(OFF, keeping());
  await user.click(await screen.findByRole('button', { name: /^What sets it going/ }));
  expect(screen.queryByRole('button', { name: 'somebody joins the list' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'a tag is put on' }));
  await user.click(await screen.findByRole('button', { name: /^By whom/ }));
  await user.click(screen.getByRole('button', { name: 'by June Marsh' }));
  await waitFor(() =>
    expect(put(asked, 'automations/3').at(-1)).toMatchObject({ cause: { kind: 'tag', tagId: 8, by: 2 } }),
  );
});

test('how long a message waits is taken as a whole', async () => {
  const { user, asked } = page(OFF);
  await user.click(await screen.findByRole('button', { name: 'When it leaves: 2 hours later' }));
  await user.selectOptions(screen.getByRole('combobox', { name: 'Of what' }), 'days');
  await user.type(screen.getByRole('textbox', { name: /^Time of day/ }), 'ten');
  const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' });
  expect(keep.disabled).toBe(true);
  await user.clear(screen.getByRole('textbox', { name: /^Time of day/ }));
  await user.type(screen.getByRole('textbox', { name: /^Time of day/ }), '10:30');
  await user.click(keep);
  await waitFor(() =>
    expect(put(asked, 'automations/3/steps/5')).toEqual([
      { wait: { n: 2, unit: 'days', at: 630 }, basedOn: 2 },
    ]),
  );
});

test('it is switched on with as many of before as were seen, and not while something lacks', async () => {
  const { user, asked } = page(OFF, {
    'GET automations/3/look': ({ path }: RecordedCall) => ({
      ...{ lacks: [], month: 41, people: path.includes('days=7') ? 12 : 0 },
    }),
    'POST automations/3/on': null,
  });
  await user.click(await screen.findByRole('button', { name: 'Look, and switch it on' }));
  const sheet = await screen.findByRole('dialog', { name: 'Switch it on' });
  expect(await within(sheet).findByText(/^In the last 30 days it happened to/)).toBeTruthy();
  const days = within(sheet).getByRole('textbox', { name: 'Days before today' });
  await user.clear(days);
  await user.type(days, '7');
  await user.dblClick(await within(sheet).findByRole('button', { name: 'Switch it on, for 12 at once' }));
  await waitFor(() => expect(asked.some(({ path }) => path === 'automations/3/on')).toBe(true));
  expect(asked.filter(({ path }) => path === 'automations/3/on').map(({ body }) => body)).toEqual([
    { basedOn: 4, days: 7, people: 12 },
  ]);
});

test('what keeps it from being switched on is told, and holds it', async () => {
  const lacks = ['No test of “Thank you” has gone out.'];
  const { user } = page(OFF, { 'GET automations/3/look': { lacks, people: 0, month: 0 } });
  await user.click(await screen.findByRole('button', { name: 'Look, and switch it on' }));
  expect(await screen.findByText(lacks[0]!)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Switch it on' }).disabled).toBe(true);
});

test('on, it is read and not changed; who waits is hurried or taken out, and why others get no more is told', async () => {
  const { user, asked } = page(ON, {
    'GET automations/3/people': ({ path }: RecordedCall) =>
      path.includes('state=waiting')
        ? { rows: [visit(1, 'Amara Osei'), visit(2, '')], total: 2, next: null }
        : { rows: [visit(3, 'Lena Brandt', { dueAt: null, why: 'gave' })], total: 1, next: null },
    'POST automations/3/hurry': { people: 1 },
    'POST automations/3/take-out': { people: 1 },
  });
  expect(await screen.findByText('When a gift of at least $1 arrives')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /^What sets it going/ })).toBeNull();
  expect(await screen.findByText('Somebody without a name')).toBeTruthy();
  await user.click(screen.getAllByRole('button', { name: 'Send it now' })[0]!);
  await user.click(screen.getAllByRole('button', { name: 'Take out' })[1]!);
  await waitFor(() =>
    expect(asked.filter(({ method }) => method === 'POST').map(({ path, body }) => [path, body])).toEqual([
      ['automations/3/hurry', { ids: [1] }],
      ['automations/3/take-out', { ids: [2] }],
    ]),
  );
  await user.click(screen.getByRole('button', { name: '1 get no more' }));
  expect(await screen.findByText(/; gave$/)).toBeTruthy();
});

test('a pile is let go by the number that is seen; another number is told', async () => {
  const held = { ...ON, counts: { ...ON.counts, held: 8000 } };
  const { user, asked } = page(held, {
    'POST automations/3/let-go': reply(409, {
      title: 'Not now',
      detail: 'It is another number of people now: 8,001. Look again.',
    }),
  });
  await user.dblClick(await screen.findByRole('button', { name: 'Let all 8,000 go' }));
  expect(await screen.findByText(/another number of people now/)).toBeTruthy();
  expect(asked.filter(({ path }) => path === 'automations/3/let-go').map(({ body }) => body)).toEqual([
    { people: 8000 },
  ]);
});

test('whoever may not send reads it', async () => {
  page(OFF, {}, 'viewer');
  expect(await screen.findByText('When a gift of at least $1 arrives')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Look, and switch it on' })).toBeNull();
  expect(screen.queryByRole('button', { name: /^Add a message/ })).toBeNull();
});

test.each([
  [{ n: 0, unit: 'minutes', at: null }, 'at once'],
  [{ n: 1, unit: 'hours', at: null }, '1 hour later'],
  [{ n: 3, unit: 'days', at: 600 }, '3 days later at 10:00'],
  [{ n: 0, unit: 'days', at: 600 }, 'that day at 10:00'],
] as const)('%j reads as “%s”', (wait, words) => expect(waitWords(wait)).toBe(words));
