import { keyOf } from '../app/reading';
import { act, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import type { LastLook as Look, Recipients } from '@goodword/core/contract';
import { reply, show, type StubbedAnswers, type RecordedCall } from '../testing';
import { useMarginStore } from '../ui/margin';
import LastLookPage from './LastLookPage';

const LIST = { isPublic: true, description: '', why: '', onPreferences: true, byForm: true, folder: '' };
const LOOK: Look = {
  ...{
    group: 120,
    reached: 100,
    parts: null,
    texts: null,
    holes: [],
    faults: [],
    doubts: [],
    asks: [],
    second: null,
    hours: null,
    digest: 'd1',
    inOrder: ['The footer names you and where you are'],
  },
  suppressed: [
    { reason: 'said-no', people: 15 },
    { reason: 'no-permission', people: 5 },
  ],
};

const NOW = { at: null, ownTime: false, spreadHours: null, keptShare: null };

/** A draft on the server: what its group comes to follows from who is chosen. */
function server({
  look = LOOK,
  testedAt = '2026-11-26T10:00:00Z',
  slow = false,
  counted = () => Promise.resolve(),
}: {
  look?: Look;
  testedAt?: string | null;
  slow?: boolean;
  /** Until when a look is being counted. */
  counted?: () => Promise<void>;
} = {}) {
  const message = {
    ...{
      id: 4,
      name: 'Planks are in',
      channel: 'email',
      purpose: 'appeals',
      listId: null,
      state: 'draft',
      updatedAt: 'x',
      campaignId: null as number | null,
      automationId: null,
      wordingOf: null,
      scheduledAt: null,
      testedAt,
      leavesAt: null,
      spreadHours: null,
      keptShare: null,
      version: 3,
      groupVersion: 0,
      subject: 'Planks are in!',
      text: '',
    },
    recipients: { from: [{ kind: 'list', id: 1 }], minus: [], without: [] } as Recipients,
  };
  const answers: StubbedAnswers = {
    'GET messages/4': () => ({ ...message }),
    'GET segments': [{ id: 3, name: 'Menders' }],
    'GET lists?counted=false': [{ ...LIST, id: 1, name: 'Ferry news' }],
    'GET tags?counted=false': [{ id: 5, name: 'oar makers' }],
    'GET campaigns': [{ id: 8, name: 'Hull', stages: ['asked'] }],
    'GET messages': [{ id: 9, name: 'Boots', state: 'done' }],
    'GET batches': [
      { id: 8, name: 'Harbor day', state: 'done' },
      { id: 9, name: 'Half done', state: 'draft' },
    ],
    'PUT messages/4/recipients': async ({ body }: RecordedCall) => {
      const { basedOn, ...chosen } = body as Recipients & { basedOn: number };
      if (basedOn !== message.groupVersion)
        return reply(409, {
          title: 'Changed meanwhile',
          status: 409,
          detail: 'Edwin changed it.',
          newer: true,
        });
      message.groupVersion += 1;
      // The first of two changes takes longer than the second.
      if (slow && chosen.from.length === 2) await new Promise((done) => setTimeout(done, 80));
      message.recipients = chosen;
      return { version: message.groupVersion };
    },
    'POST messages/4/last-look': async () => {
      await counted();
      return {
        ...look,
        reached: look.reached - message.recipients.from.length + 1,
        digest: `look of ${message.groupVersion}`,
      };
    },
    'POST messages/4/test': { to: 'rosa@lanternferry.test' },
    'POST messages/4/send': () => reply(204, null),
    'GET supporters': {
      rows: [{ id: 101, firstName: 'Elif', lastName: 'Owusu', email: 'elif@example.net', mobile: null }],
      next: null,
    },
    'GET supporters/101': { firstName: 'Elif', lastName: 'Owusu' },
    'GET messages/4/preview': () =>
      reply(404, { title: 'Nobody', status: 404, detail: 'Nobody to show it for.' }),
  };
  return { message, answers };
}

const page = (answers: StubbedAnswers, role: 'organizer' | 'writer' | 'viewer' = 'organizer') =>
  show(
    <Routes>
      <Route path="/send/:id" element={<LastLookPage />} />
      <Route path="*" element={<p>somewhere else</p>} />
    </Routes>,
    { answers, role, at: '/send/4' },
  );
const notes = () => useMarginStore.getState().notes;

test('of a step the plan says to whom it goes: some can be left out, and no group more is offered', async () => {
  const { message, answers } = server();
  message.campaignId = 8;
  page(answers);
  expect(await screen.findByText('It leaves with its campaign: set it going there')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /or in…|choose a group/ })).toBeNull();
  expect(screen.getByRole('button', { name: 'nobody' })).toBeTruthy();
});

test('who also gets another message that is planned is told beside it, and holds nothing back', async () => {
  const { answers } = server();
  const overlap = {
    messageId: 7,
    name: 'Launch day',
    channel: 'text',
    at: '2099-12-02T18:00:00Z',
    people: 312,
  };
  page({ ...answers, 'GET messages/4/last-look/overlap': [overlap] });
  await screen.findByText('In the group');
  await waitFor(() =>
    expect(notes().map(({ title }) => title)).toContain('312 of them also get “Launch day”'),
  );
  expect(notes().find(({ key }) => key === 'overlap-7')?.tone).toBe('doubt');
});

test('what is to come until it has left is told, and asked anew for another time', async () => {
  const { answers } = server();
  const ahead = {
    ...{ at: '2099-12-01T09:00:00Z', lapses: 3, enough: 1, gave: 34, gaveSince: '2099-11-01', waits: [] },
    domains: [
      { domain: 'one.example', people: 90, seconds: 1500 },
      { domain: 'two.example', people: 10, seconds: null },
    ],
    lastLeaves: '2099-12-02T10:00:00Z',
  };
  const { user, asked } = page({ ...answers, 'GET messages/4/last-look/ahead': ahead });
  await screen.findByText('In the group');
  await waitFor(() =>
    expect(notes().map(({ title }) => title)).toEqual(
      expect.arrayContaining([
        '34 of them gave lately',
        'Permission of 3 of them lapses before it leaves',
        '1 of them will have had enough by then',
        expect.stringMatching(/^The last one leaves about /),
        'Most of it goes to one.example',
      ]),
    ),
  );
  expect(notes().find(({ key }) => key === 'domains')?.body).toBe(
    'one.example 90 (about 25 minutes); two.example 10',
  );
  await user.type(screen.getByLabelText('When it leaves: day'), '2099-12-24');
  await user.tab();
  await waitFor(() =>
    expect(
      asked.some(({ path }) => path.startsWith('messages/4/last-look/ahead?') && path.includes('at=2099')),
    ).toBe(true),
  );
});

test('it can be spread over hours, and what is asked once more says so', async () => {
  const { answers } = server();
  const { user, asked } = page(answers);
  await user.selectOptions(await screen.findByLabelText('Over how long it leaves'), 'over 8 hours');
  await user.click(await screen.findByRole('button', { name: 'Send now to 100' }));
  expect(screen.getByRole('region', { name: 'Before it leaves' }).textContent).toContain(
    'spread over 8 hours',
  );
  await user.click(screen.getByRole('button', { name: 'Yes, send it to 100' }));
  await waitFor(() =>
    expect(asked.find(({ path }) => path === 'messages/4/send')?.body).toMatchObject({ spreadHours: 8 }),
  );
});

test('texts that wait for a decent hour are told with when and where', async () => {
  const { answers } = server();
  const ahead = {
    ...{ at: '2099-12-01T09:00:00Z', lapses: 0, enough: 0, gave: 0, gaveSince: '2099-11-01' },
    waits: [{ zone: 'America/New_York', at: '2099-12-01T15:00:00Z', people: 412 }],
    ...{ domains: [], lastLeaves: '2099-12-01T15:00:00Z' },
  };
  page({ ...answers, 'GET messages/4/last-look/ahead': ahead });
  await screen.findByText('In the group');
  await waitFor(() =>
    expect(notes().map(({ title }) => title)).toContain('412 wait for a decent hour where they are'),
  );
  expect(notes().find(({ key }) => key === 'waits')?.body).toMatch(/^412: .*New York/);
  // The same moment is not told a second time, with another cause.
  expect(notes().find(({ key }) => key === 'last')).toBeUndefined();
});

test('the group is counted down by reasons, each of which opens its people', async () => {
  const { answers } = server();
  const { user, asked } = page({ ...answers, 'GET messages/4/last-look/people': { rows: [], next: null } });
  await screen.findByText('In the group');
  expect(screen.getByRole('button', { name: '15 held back: Opted out. See them' }).textContent).toBe('−15');
  await user.click(screen.getByRole('button', { name: '15 held back: Opted out. See them' }));
  expect(await screen.findByText('Held back from this message')).toBeTruthy();
  await waitFor(() =>
    expect(asked.some(({ path }) => path.startsWith('messages/4/last-look/people?verdict=said-no'))).toBe(
      true,
    ),
  );
});

const sent = (asked: readonly RecordedCall[]) =>
  asked.filter(({ path }) => path === 'messages/4/send').map(({ body }) => body);

test('to many it asks once, with number, channel and first line, and leaves with the look that was seen', async () => {
  const { answers } = server();
  const { user, asked } = page(answers);
  await user.click(await screen.findByRole('button', { name: 'Send now to 100' }));
  expect(screen.getByRole('region', { name: 'Before it leaves' }).textContent).toContain(
    '100 people get this by email now: “Planks are in!”',
  );
  expect(sent(asked)).toEqual([]);
  await user.click(screen.getByRole('button', { name: 'Not yet' }));
  expect(screen.queryByRole('region', { name: 'Before it leaves' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Send now to 100' }));
  await user.click(screen.getByRole('button', { name: 'Yes, send it to 100' }));
  await waitFor(() => expect(sent(asked)).toEqual([{ ...NOW, digest: 'look of 0' }]));
});

test('to a few it leaves at once', async () => {
  const { answers } = server({ look: { ...LOOK, reached: 2 } });
  const { user, asked } = page(answers);
  await user.click(await screen.findByRole('button', { name: 'Send now to 2' }));
  await waitFor(() => expect(sent(asked)).toHaveLength(1));
});

test('clicked at once after every change, the number that was seen is sent or nothing is', async () => {
  let counted = Promise.resolve();
  const { answers, message } = server({ look: { ...LOOK, reached: 3 }, counted: () => counted });
  const { user, asked } = page(answers);
  const send = await screen.findByRole<HTMLButtonElement>(
    'button',
    { name: 'Send now to 3' },
    { timeout: 10_000 },
  );
  let goOn = () => {};
  counted = new Promise((done) => (goOn = done));
  await user.click(screen.getByRole('button', { name: 'or in…' }));
  await user.click(await screen.findByRole('option', { name: 'Menders' }));
  // The same button, pressed before anything was counted anew.
  await user.click(send);
  await user.click(send);
  expect(sent(asked)).toEqual([]);
  expect([send.disabled, send.textContent]).toEqual([true, 'Counting…']);
  goOn();
  await user.click(await screen.findByRole('button', { name: 'Send now to 2' }, { timeout: 10_000 }));
  await waitFor(() => expect(sent(asked)).toEqual([{ ...NOW, digest: `look of ${message.groupVersion}` }]));
});

test('a day that cannot be read is never taken for now', async () => {
  const { answers } = server();
  const { user, asked } = page(answers);
  await screen.findByText('In the group');
  await user.type(screen.getByLabelText('When it leaves: day'), 'next moon');
  const send = screen.getByRole<HTMLButtonElement>('button', { name: 'Say when' });
  expect(send.disabled).toBe(true);
  await user.tab();
  await user.tab();
  expect(await screen.findByText(/^This is no day/)).toBeTruthy();
  await user.click(send);
  expect(sent(asked)).toEqual([]);
  await user.clear(screen.getByLabelText('When it leaves: day'));
  expect(await screen.findByRole('button', { name: /^Send now to/ })).toBeTruthy();
});

test('a message to many wants another to agree, and says what they agreed to', async () => {
  const { answers } = server();
  const wanted = { why: 'many' as const, above: 1, by: null, own: false, reached: 0, holds: false };
  let second: Look['second'] = wanted;
  const looked = answers['POST messages/4/last-look'] as () => Promise<object>;
  const { user, asked } = page({
    ...answers,
    'POST messages/4/last-look': async () => ({ ...(await looked()), second }),
    'POST messages/4/second': () => {
      second = { ...wanted, by: 'you', own: true, reached: 100 };
      return reply(204, null);
    },
  });
  expect(await screen.findByText('It goes to more than 1')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: /^I agree to it for/ }));
  expect(await screen.findByText('You agreed to it for 100: another may send it.')).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: /^Send now to/ }).disabled).toBe(true);
  // To the look that was seen.
  expect(asked.find(({ path }) => path === 'messages/4/second')?.body).toEqual({ digest: 'look of 0' });
});

test('a time where each of them is shows when it comes to whom, before it is scheduled', async () => {
  const { answers } = server();
  const zones = [
    { zone: 'Europe/Berlin', people: 3, at: '2027-12-01T08:30:00.000Z', change: null },
    { zone: 'America/New_York', people: 40, at: '2027-12-01T14:30:00.000Z', change: 'twice' },
  ];
  const { user, asked } = page({
    ...answers,
    'GET messages/4/own-times?at=2027-12-01T17%3A30%3A00.000Z': { zones, over: 3 },
  });
  await screen.findByText('In the group');
  await user.type(screen.getByLabelText('When it leaves: day'), '2027-12-01');
  await user.tab();
  const time = screen.getByLabelText('When it leaves: time');
  await user.clear(time);
  await user.type(time, '9:30{Enter}');
  await user.click(await screen.findByLabelText('where each of them is'));
  const table = await screen.findByRole('region', { name: 'When it comes to them' });
  expect(table.textContent).toContain('Berlin time');
  expect(table.textContent).toContain('the first of two, as clocks go back there');
  expect(table.textContent).toContain('For 3 people that time is over already');
  await user.click(screen.getByRole('button', { name: /^Schedule for/ }));
  const sure = screen.queryByRole('button', { name: /^Yes, schedule/ });
  if (sure) await user.click(sure);
  await waitFor(() => expect(sent(asked)).toMatchObject([{ at: '2027-12-01T17:30:00.000Z', ownTime: true }]));
});

test('a group that somebody else changed meanwhile is told, shown and counted', async () => {
  const { answers, message } = server();
  const { user } = page(answers);
  await screen.findByText('In the group');
  Object.assign(message, {
    groupVersion: 7,
    recipients: { from: [{ kind: 'tag', id: 5 }], minus: [], without: [] },
  });
  await user.click(screen.getByRole('button', { name: 'or in…' }));
  await user.click(await screen.findByRole('option', { name: 'Menders' }));
  expect(await screen.findByText('Edwin changed it.')).toBeTruthy();
  expect(await screen.findByRole('button', { name: 'Remove oar makers' })).toBeTruthy();
});

test('a time is the organization’s, whatever the browser’s own zone, and says so', async () => {
  const { answers } = server();
  const { user, asked } = page(answers);
  await screen.findByRole('button', { name: 'Send now to 100' });
  await user.type(screen.getByLabelText('When it leaves: day'), '2027-12-01');
  expect(screen.getByText('Los Angeles time')).toBeTruthy();
  const time = screen.getByLabelText('When it leaves: time');
  await user.clear(time);
  await user.type(time, '9.30{Enter}');
  await user.click(await screen.findByRole('button', { name: 'Schedule for 100' }));
  expect(screen.getByRole('region', { name: 'Before it leaves' }).textContent).toContain(
    'on Dec 1, 2027, 9:30 AM',
  );
  await user.click(screen.getByRole('button', { name: 'Yes, schedule it for 100' }));
  await waitFor(() => expect(sent(asked)).toMatchObject([{ at: '2027-12-01T17:30:00.000Z' }]));
});

test('an hour at which no text arrives is told at once', async () => {
  const { answers, message } = server({ look: { ...LOOK, hours: { from: 480, to: 1260 } } });
  Object.assign(message, { channel: 'text', text: 'Boots on Saturday' });
  const { user } = page(answers);
  await screen.findByRole('button', { name: 'Send now to 100' });
  await user.type(screen.getByLabelText('When it leaves: day'), '2027-12-01');
  const time = screen.getByLabelText('When it leaves: time');
  await user.clear(time);
  await user.type(time, '2:00{Enter}');
  expect(await screen.findByText(/^Nothing arrives at that hour: it waits for/)).toBeTruthy();
});

test('without a test nothing leaves; what the server refuses is told where one pressed', async () => {
  const { answers, message } = server({ testedAt: null });
  const refused = reply(409, {
    title: 'Counted anew',
    status: 409,
    detail: 'It would reach 99 now. Look once more.',
  });
  const { user } = page({ ...answers, 'POST messages/4/send': () => refused });
  const send = await screen.findByRole<HTMLButtonElement>('button', { name: 'Send now to 100' });
  expect(send.disabled).toBe(true);
  expect(notes().map(({ key }) => key)).toContain('test');
  message.testedAt = '2026-11-26T10:00:00Z';
  await user.click(screen.getByRole('button', { name: 'Send me a test' }));
  expect(await screen.findByText('Sent to rosa@lanternferry.test')).toBeTruthy();
  await waitFor(() => expect(send.disabled).toBe(false));
  await user.click(send);
  await user.click(screen.getByRole('button', { name: 'Yes, send it to 100' }));
  expect(await screen.findByText('It would reach 99 now. Look once more.')).toBeTruthy();
});

test('of two changes of the group the later stays, though the first takes longer', async () => {
  const { answers, message } = server({ slow: true });
  const { user } = page(answers);
  await screen.findByText('In the group');
  await user.click(screen.getByRole('button', { name: 'or in…' }));
  expect(screen.queryByRole('option', { name: 'Half done' })).toBeNull(); // Nobody of it is here yet.
  await user.click(await screen.findByRole('option', { name: 'oar makers' }));
  await user.click(screen.getAllByRole('button', { name: 'or in…' })[0]!);
  await user.click(await screen.findByRole('option', { name: 'Menders' }));
  await screen.findByRole('button', { name: 'Send now to 98' }, { timeout: 10_000 });
  expect(message.recipients.from).toHaveLength(3);
});

test('a roster at a stage and those who got a message are groups too, by their sentence', async () => {
  const { answers, message } = server();
  const { user } = page(answers);
  await screen.findByText('In the group');
  await user.click(screen.getByRole('button', { name: 'nobody' }));
  await user.click(await screen.findByRole('option', { name: 'the roster of Hull, at “asked”' }));
  await waitFor(() =>
    expect(message.recipients.minus).toEqual([{ kind: 'campaign', id: 8, stage: 'asked' }]),
  );
  await user.click(screen.getAllByRole('button', { name: 'or in…' })[1]!);
  await user.click(
    await screen.findByRole('option', { name: 'those who got and clicked no link in “Boots”' }),
  );
  await waitFor(() =>
    expect(message.recipients.minus).toContainEqual({ kind: 'message', id: 9, did: 'not-clicked' }),
  );
  expect(screen.getByRole('button', { name: 'Remove the roster of Hull, at “asked”' })).toBeTruthy();
});

test('a group is found by typing part of its name or its kind, and Enter takes the first', async () => {
  const { answers, message } = server();
  const { user } = page(answers);
  await screen.findByText('In the group');
  await user.click(screen.getByRole('button', { name: 'nobody' }));
  await user.keyboard('clicked boots');
  const listed = within(screen.getByRole('listbox')).getAllByRole('option');
  expect(listed.map((option) => option.textContent.trim())).toEqual([
    'those who clicked a link in “Boots”',
    'those who got and clicked no link in “Boots”',
  ]);
  await user.keyboard('{ArrowDown}{Enter}');
  await waitFor(() =>
    expect(message.recipients.minus).toEqual([{ kind: 'message', id: 9, did: 'not-clicked' }]),
  );
  await user.click(screen.getAllByRole('button', { name: 'or in…' })[1]!);
  await user.keyboard('nowhere');
  expect(screen.getByText('No group of that name')).toBeTruthy();
  await user.keyboard('{Escape}');
  expect(screen.queryByText('No group of that name')).toBeNull();
});

test('a person is struck out by name, though the same letters were looked for elsewhere before', async () => {
  const { answers, message } = server();
  const { user, queries } = page(answers);
  await screen.findByText('In the group');
  act(
    () =>
      void queries.setQueryData(keyOf('find', { text: 'elif' }), [
        { kind: 'supporter', id: 101, name: 'Elif Owusu', note: '' },
      ]),
  );
  await user.click(screen.getByRole('button', { name: 'a person…' }));
  await user.type(screen.getByLabelText('Find a person to strike out'), 'elif');
  await user.click(await screen.findByRole('button', { name: /Elif Owusu/ }));
  await waitFor(() => expect(message.recipients.without).toEqual([101]));
  await user.click(await screen.findByRole('button', { name: 'Let Elif Owusu back in' }));
  await waitFor(() => expect(message.recipients.without).toEqual([]));
});

test('a hole in the words, and words that may not leave, are faults with the way to mend them', async () => {
  const { answers } = server({
    look: {
      ...LOOK,
      holes: [{ name: 'first name', people: 1 }],
      faults: [{ message: 'The subject is empty.' } as never],
    },
  });
  page(answers);
  const send = await screen.findByRole<HTMLButtonElement>('button', { name: 'Send now to 100' });
  await waitFor(() => expect(notes().filter(({ tone }) => tone === 'fault')).toHaveLength(2));
  expect(notes().find(({ key }) => key === 'hole-first name')!.title).toBe(
    'first name is empty for 1 person',
  );
  expect(send.disabled).toBe(true);
  act(() => notes()[0]!.remedy!.act());
  await screen.findByText('somewhere else');
});

test.each(['viewer', 'writer'] as const)('a %s sees whom it would reach and sends nothing', async (role) => {
  const { answers } = server();
  page(answers, role);
  await screen.findByText('In the group');
  expect(screen.getByText(/^It goes to everybody in /).textContent).toBe(
    'It goes to everybody in Ferry news.',
  );
  expect(screen.queryByRole('button', { name: 'or in…' })).toBeNull();
  expect(screen.queryByRole('button', { name: /^Send now/ })).toBeNull();
});

test('sent now, it says how long it is taken back, to whom it goes and with which words', async () => {
  const { answers, message } = server();
  Object.assign(message, { state: 'scheduled', leavesAt: new Date(Date.now() + 40_000).toISOString() });
  const { user, asked } = page({ ...answers, 'POST messages/4/unschedule': () => reply(204, null) });
  expect(await screen.findByText(/^Leaves in (40|39) seconds$/)).toBeTruthy();
  expect(screen.getByText('Ferry news')).toBeTruthy();
  expect(screen.getByRole('region', { name: 'As they will get it' })).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Take it back' }));
  await waitFor(() => expect(asked.some(({ path }) => path === 'messages/4/unschedule')).toBe(true));
});

test('what is scheduled can be taken back', async () => {
  const { answers, message } = server();
  Object.assign(message, { state: 'scheduled', scheduledAt: '2026-12-01T09:30:00Z' });
  const { user, asked } = page({ ...answers, 'POST messages/4/unschedule': () => reply(204, null) });
  await user.click(await screen.findByRole('button', { name: 'Take it back from its schedule' }));
  await waitFor(() => expect(asked.some(({ path }) => path === 'messages/4/unschedule')).toBe(true));
});

test('some are kept without it: about how many is said, asked about, and sent', async () => {
  const { answers } = server({ look: { ...LOOK, reached: 200 } });
  const { user, asked } = page(answers);
  await user.selectOptions(
    await screen.findByRole('combobox', { name: 'Whether some are kept without it' }),
    '10% go without',
  );
  expect(screen.getByText(/^About 20 people, drawn by lot, get none of it/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Send now to about 180' }));
  expect(screen.getByText(/less about 20 drawn by lot/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Yes, send it to about 180' }));
  await waitFor(() => expect(sent(asked)).toEqual([{ ...NOW, keptShare: 10, digest: 'look of 0' }]));
});
