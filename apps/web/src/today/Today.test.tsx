import { screen, waitFor, within } from '@testing-library/react';
import type { TodayView } from '@goodword/core/contract';
import { reply, show, type Answers } from '../testing';
import Today from './Today';

const EMPTY: TodayView = {
  ...{ batches: [], arrived: [], messages: [], replies: 0, stops: [], unsure: 0, unsureMessageId: null, drafts: 0 },
  ...{ lapsing: { people: 0, days: 30 }, erasures: [], onHold: 0 },
} as unknown as TodayView;

const today = (of: Partial<TodayView> = {}, answers: Answers = {}, role: 'organizer' | 'viewer' = 'organizer') =>
  show(<Today />, { answers: { 'GET today': { ...EMPTY, ...of }, ...answers }, role });
const leads = (name: RegExp) => screen.getByRole('link', { name }).getAttribute('href');

test('where nothing waits each part says so, and what could be begun', async () => {
  today();
  for (const words of [/No batch is half done/, /No message is on its way/, /Every reply has been read/, /Nothing is half written/])
    expect(await screen.findByText(words)).toBeTruthy();
  expect(screen.queryByRole('link')).toBeNull();
});

test('each count leads to what it counts, in the number of what it is', async () => {
  today({
    arrived: [{ id: 7, name: 'Harbor day', at: '', people: 1 }],
    batches: [{ id: 8, name: 'Pier sheet', state: 'checked', waits: 'is checked and can come in' }] as never,
    messages: [{ id: 4, name: 'Planks are in', state: 'scheduled', when: '2026-12-01T17:30:00Z' }] as never,
    ...{ replies: 1, unsure: 2, unsureMessageId: 5, drafts: 3, onHold: 1 },
    erasures: [{ taskId: 1, supporterId: 101, name: '', at: '2026-11-20T10:00:00Z' }] as never,
  });
  expect(await screen.findByText('person came in with Harbor day')).toBeTruthy();
  expect(leads(/came in with Harbor day/)).toBe('/gather/7');
  expect(leads(/Pier sheet is checked and can come in/)).toBe('/gather/8');
  expect(leads(/^Planks are in: scheduled, leaves /)).toBe('/hear-back/4');
  expect(leads(/^reply waits for an answer/)).toBe('/hear-back/replies');
  expect(leads(/mails may or may not have gone: settle them/)).toBe('/hear-back/5');
  expect(leads(/drafts to finish/)).toBe('/write');
  expect(leads(/person has an address on hold/)).toBe('/sort?hold=true');
  expect(leads(/^Somebody without a name asks to be erased/)).toBe('/sort/supporters/101');
});

test('permission that lapses opens the segment of whose it is', async () => {
  today({ lapsing: { people: 36, days: 30 } });
  await screen.findByText(/permission lapses within 30 days/);
  const to = new URL(leads(/permission lapses within 30 days/)!, 'http://page.test');
  expect([to.pathname, to.searchParams.get('name')]).toEqual(['/sort/segments/new', 'Permission lapses soon']);
  expect(JSON.parse(to.searchParams.get('tree')!)).toEqual({
    kind: 'all',
    rules: [{ kind: 'lapses', channel: 'email', scope: 'appeals', days: 30 }],
  });
});

describe('somebody who asked to stop in their own words', () => {
  const STOP = { taskId: 12, supporterId: 101, name: 'Elif Owusu', words: 'please no more of these, ok?' };

  test('is read by a person, who says what was meant', async () => {
    const { user, asked } = today({ stops: [STOP] as never }, { 'POST tasks/12/settle': () => reply(204, null) });
    const line = (await screen.findByText(/is held until somebody has read it/)).closest('li')!;
    expect(line.textContent).toContain('Elif Owusu wrote “please no more of these, ok?”');
    await user.click(within(line).getByRole('button', { name: 'They mean stop' }));
    await waitFor(() => expect(asked.find(({ method }) => method === 'POST')).toMatchObject({ path: 'tasks/12/settle', body: { outcome: 'meant' } }));
  });

  test('stays where the server could not settle it, with the reason', async () => {
    const detail = 'Idris Vale has settled this already.';
    const { user } = today({ stops: [STOP] as never }, { 'POST tasks/12/settle': () => reply(409, { title: 'Settled', status: 409, detail }) });
    await user.click(await screen.findByRole('button', { name: 'They don’t' }));
    expect(await screen.findByText(detail)).toBeTruthy();
  });

  test('is told to a viewer, who can’t settle it', async () => {
    today({ stops: [{ ...STOP, supporterId: null, name: '+1 206 555 0142' }] as never }, {}, 'viewer');
    expect(await screen.findByText('+1 206 555 0142')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });
});
