import { screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import type { ThreadItem, ThreadLine, ThreadView } from '@goodword/core/contract';
import { Margin } from '../ui/Margin';
import { reply, show, type RecordedCall, type StubbedAnswers } from '../testing';
import Inbox from './Inbox';
import { together } from './ThreadItems';

const LINE: ThreadLine = {
  ...{ replyId: 1, supporterId: 101, name: 'Elif Owusu', channel: 'text', words: 'When does she float?' },
  ...{ at: '2026-11-26T18:00:00Z', waiting: 1, unread: true, assignedTo: null, asideUntil: null },
  message: 'Planks are in',
};
const STRANGER: ThreadLine = {
  ...{ ...LINE, replyId: 2, supporterId: null, name: '+12065550142', words: 'Who is this?', unread: false },
  message: null,
};
const ITEM: ThreadItem = {
  ...{ kind: 'in', id: 1, at: LINE.at, channel: 'text', by: '+12065550141', subject: '', words: LINE.words },
  ...{ message: { id: 5, name: 'Planks are in' }, keyword: 'none', state: null, files: [] },
};
const THREAD: ThreadView = {
  ...{ replyId: 1, supporterId: 101, name: 'Elif Owusu', from: '+12065550141', channel: 'text', subject: '' },
  ...{ message: 'Planks are in', open: 1, assignedTo: null, asideUntil: null, question: null },
  ...{ after: 7, mates: [{ id: 3, name: 'Rosa Lind' }], items: [ITEM] },
};
const RECORD = {
  ...{ id: 101, firstName: 'Elif', lastName: 'Owusu', gifts: [], fields: [] },
  ...{ tags: [], lists: [], rosters: [], household: null, consent: [], createdAt: '2024-01-05T00:00:00Z' },
  contactPoints: [{ kind: 'email' }, { kind: 'mobile' }],
};

function answers(thread: Partial<ThreadView> = {}, more: StubbedAnswers = {}): StubbedAnswers {
  return {
    'GET replies': { threads: [LINE, STRANGER], counts: { open: 2, mine: 0, aside: 1, unread: 1 } },
    'GET replies/1': { ...THREAD, ...thread },
    'GET replies/2': { ...THREAD, replyId: 2, supporterId: null, name: '+12065550142', after: null },
    'POST replies/1/read': () => reply(204, null),
    'POST replies/2/read': () => reply(204, null),
    ...more,
  };
}

const page = (at: string, answered: StubbedAnswers, role: 'owner' | 'viewer' = 'owner') =>
  show(
    <>
      <Routes>
        <Route path="/hear-back/replies/:id?" element={<Inbox />} />
      </Routes>
      <Margin />
    </>,
    { at, answers: answered, role },
  );
const said = (words: string): Partial<ThreadView> => ({ items: [{ ...ITEM, words }] });
const asks = (asked: RecordedCall[], path: string) => asked.find((one) => one.path === path);

test('each person has a line, newest first, told as new until somebody has read it', async () => {
  page('/hear-back/replies', answers());
  const list = within(await screen.findByRole('list', { name: 'People who wrote back' }));
  const [first, second] = (await list.findAllByRole('link')) as [HTMLElement, HTMLElement];
  expect(first.textContent).toContain('New: When does she float?');
  expect(second.textContent).toContain('+12065550142');
  expect(screen.getByRole('button', { name: 'to answer 2' }).getAttribute('aria-pressed')).toBe('true');
  expect(screen.getByText('1 not read yet')).toBeTruthy();
});

test('up and down go through the list, and what is opened is read', async () => {
  const { user, asked } = page('/hear-back/replies', answers());
  const [first, second] = (await within(
    await screen.findByRole('list', { name: 'People who wrote back' }),
  ).findAllByRole('link')) as [HTMLElement, HTMLElement];
  first.focus();
  await user.keyboard('{ArrowDown}');
  expect(document.activeElement).toBe(second);
  await user.keyboard('{ArrowUp}{Enter}');
  await screen.findByRole('region', { name: 'Replies of Elif Owusu' });
  await waitFor(() => expect(asks(asked, 'replies/1/read')).toBeTruthy());
});

test('d marks it as done and goes on to the next, with the way back', async () => {
  const done = { 'POST replies/1/handled': () => reply(204, null) };
  const { user, asked } = page('/hear-back/replies/1', answers({}, done));
  await screen.findByRole('region', { name: 'Replies of Elif Owusu' });
  await user.keyboard('d');
  expect(await screen.findByText('Done with Elif Owusu.')).toBeTruthy();
  expect(asks(asked, 'replies/1/handled')!.body).toEqual({ handled: true });
  expect(await screen.findByRole('region', { name: 'Replies of +12065550142' })).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Open it again' }));
  await waitFor(() =>
    expect(asked.filter(({ path }) => path === 'replies/1/handled').at(-1)!.body).toEqual({ handled: false }),
  );
});

test('while the next thread loads no letter does anything to the one before', async () => {
  const done = { 'POST replies/1/handled': () => reply(204, null) };
  const { user, asked } = page(
    '/hear-back/replies/1',
    answers({}, { ...done, 'GET replies/2': () => new Promise(() => undefined) }),
  );
  await screen.findByRole('region', { name: 'Replies of Elif Owusu' });
  await user.click(screen.getByRole('link', { name: /Who is this/ }));
  expect(await screen.findByText(/Reading the thread/)).toBeTruthy();
  await user.keyboard('d');
  expect(asks(asked, 'replies/1/handled')).toBeUndefined();
});

test('it is answered on their channel as service, naming the reply and what had been seen of ours', async () => {
  const { user, asked } = page(
    '/hear-back/replies/1',
    answers(
      {},
      {
        'GET supporters/101': RECORD,
        'GET merge-fields': [],
        'GET messages': [],
        'GET supporters/101/may-write': { verdict: 'send', words: 'They will get it', to: '+1 206 555 0142' },
        'POST supporters/101/messages': { id: 9 },
      },
    ),
  );
  await user.click(await screen.findByRole('button', { name: 'Answer' }));
  await user.type(await screen.findByLabelText('The text'), 'In April, on the tide. (d)');
  await user.click(screen.getByRole('button', { name: 'Send it to Elif Owusu' }));
  expect(await screen.findByText('Your answer to Elif Owusu is on its way.')).toBeTruthy();
  expect(asks(asked, 'supporters/101/messages')!.body).toMatchObject({
    ...{ channel: 'text', purpose: 'service', text: 'In April, on the tide. (d)' },
    answers: { replyId: 1, after: 7 },
  });
  // A letter that is typed is no key.
  expect(asks(asked, 'replies/1/handled')).toBeUndefined();
});

test('somebody else’s answer meanwhile is told, and what was typed stays', async () => {
  const detail = 'Rosa Lind has answered meanwhile. Read that first; what you have typed is kept.';
  const { user } = page(
    '/hear-back/replies/1',
    answers(
      {},
      {
        'GET supporters/101': RECORD,
        'GET merge-fields': [],
        'GET messages': [],
        'GET supporters/101/may-write': { verdict: 'send', words: 'They will get it', to: '+1 206 555 0142' },
        'POST supporters/101/messages': () => reply(409, { title: 'Not possible now', status: 409, detail }),
      },
    ),
  );
  await user.click(await screen.findByRole('button', { name: 'Answer' }));
  await user.type(await screen.findByLabelText('The text'), 'In May');
  await user.click(screen.getByRole('button', { name: 'Send it to Elif Owusu' }));
  expect(await screen.findByText(detail)).toBeTruthy();
  expect((screen.getByLabelText('The text') as HTMLElement).textContent).toContain('In May');
});

test('words that read like leaving are pointed out, and their number does it', async () => {
  const no = { 'POST replies/1/no': () => reply(204, null) };
  const { user, asked } = page('/hear-back/replies/1', answers(said('Hm. Too many texts from you!'), no));
  expect(await screen.findByText('This reads like leaving')).toBeTruthy();
  expect(screen.getByText('Too many texts from you!').className).toContain('border-ochremark');
  expect(screen.getByRole('button', { name: 'Opt them out of texts (key 1)' })).toBeTruthy();
  expect(asks(asked, 'replies/1/no')).toBeUndefined();
  await user.keyboard('1');
  await waitFor(() => expect(asks(asked, 'replies/1/no')).toBeTruthy());
});

test('who has opted out of the channel is not offered it once more', async () => {
  const consent = [{ channel: 'text', scope: 'all', scopeName: 'everything', state: 'no' }];
  const record = { 'GET supporters/101': { ...RECORD, consent } };
  page('/hear-back/replies/1', answers(said('Too many texts from you!'), record));
  expect(await screen.findByText('Texts:')).toBeTruthy();
  expect(screen.queryByText('This reads like leaving')).toBeNull();
});

test('a gift is entered with the amount that they wrote, above it their words', async () => {
  const record = { 'GET supporters/101': RECORD };
  const { user } = page('/hear-back/replies/1', answers(said('We gave $25 at the pier.'), record));
  await user.click(await screen.findByRole('button', { name: 'Enter $25 (key 1)' }));
  const sheet = within(await screen.findByRole('dialog', { name: 'A gift that they write of' }));
  expect((await sheet.findByLabelText<HTMLInputElement>(/^Amount/)).value).toBe('$25');
  expect(sheet.getByLabelText('What they wrote').textContent).toBe('We gave $25 at the pier.');
});

test('what is done asks for nothing, and a question that is open is asked in the thread', async () => {
  const first = page('/hear-back/replies/1', answers({ ...said('Too many texts'), open: 0 }));
  await screen.findByRole('button', { name: 'Open again' });
  expect(screen.queryByText('This reads like leaving')).toBeNull();
  first.unmount();
  const settle = { 'POST tasks/12/settle': () => reply(204, null) };
  const question = { taskId: 12, words: 'Please stop texting me' };
  const { user, asked } = page(
    '/hear-back/replies/1',
    answers({ ...said('Please stop texting me'), question }, settle),
  );
  await user.click(await screen.findByRole('button', { name: 'They did not mean it' }));
  await waitFor(() => expect(asks(asked, 'tasks/12/settle')!.body).toEqual({ outcome: 'not-meant' }));
  expect(screen.queryByText('This reads like leaving')).toBeNull();
});

test('a letter typed in a sheet or a menu that lies on top settles nothing', async () => {
  const record = { 'GET supporters/101': RECORD };
  const { user, asked } = page('/hear-back/replies/1', answers(said('We gave $25 at the pier.'), record));
  await user.click(await screen.findByRole('button', { name: 'Enter $25 (key 1)' }));
  const sheet = within(await screen.findByRole('dialog'));
  sheet.getByRole('button', { name: 'Close' }).focus();
  await user.keyboard('d');
  await user.keyboard('{Enter}');
  await user.click(screen.getByRole('button', { name: 'Put aside…' }));
  await screen.findByRole('menuitem', { name: /Tomorrow morning/ });
  await user.keyboard('d');
  expect(asks(asked, 'replies/1/handled')).toBeUndefined();
});

test('it is given to a teammate, and put aside until a morning', async () => {
  const more = {
    'POST replies/1/assigned': () => reply(204, null),
    'POST replies/1/aside': () => reply(204, null),
  };
  const { user, asked } = page('/hear-back/replies/1', answers({}, more));
  await user.selectOptions(await screen.findByLabelText('For'), 'Rosa Lind');
  await waitFor(() => expect(asks(asked, 'replies/1/assigned')!.body).toEqual({ to: 3 }));
  await user.click(screen.getByRole('button', { name: 'Put aside…' }));
  await user.click(await screen.findByRole('menuitem', { name: /Tomorrow morning/ }));
  expect(await screen.findByText('Elif Owusu is put aside.')).toBeTruthy();
  const { until } = asks(asked, 'replies/1/aside')!.body as { until: string };
  expect(Date.parse(until)).toBeGreaterThan(Date.now());
});

test('p offers the times to put it aside, and g goes to whose it is', async () => {
  const { user } = page('/hear-back/replies/1', answers());
  await screen.findByRole('region', { name: 'Replies of Elif Owusu' });
  await user.keyboard('g');
  expect(document.activeElement).toBe(screen.getByLabelText('For'));
  screen.getByRole('region', { name: 'Replies of Elif Owusu' }).focus();
  await user.keyboard('p');
  expect(await screen.findByRole('menuitem', { name: /In a week/ })).toBeTruthy();
});

test('files are downloads, and of those that were not kept it is told why', async () => {
  const files: ThreadItem['files'] = [
    { id: 4, name: 'form.pdf', bytes: 12_400, refused: null },
    { id: 5, name: 'tool.exe', bytes: 9, refused: 'kind' },
  ];
  page('/hear-back/replies/1', answers({ items: [{ ...ITEM, files }] }));
  const link = await screen.findByRole('link', { name: 'form.pdf' });
  expect([link.getAttribute('href'), link.hasAttribute('download')]).toEqual([
    '/api/replies/1/files/4',
    true,
  ]);
  expect(screen.queryByRole('link', { name: 'tool.exe' })).toBeNull();
  expect(screen.getByText(/^not kept: only pictures/)).toBeTruthy();
});

test('answers of machines fold into one line', () => {
  const machine = (id: number): ThreadItem => ({ ...ITEM, id, keyword: 'machine' });
  const groups = together([ITEM, machine(2), machine(3), { ...ITEM, id: 4 }, machine(5)]);
  expect(groups.map((group) => group.map(({ id }) => id))).toEqual([[1], [2, 3], [4], [5]]);
});

test('of a number that is nobody’s nothing is offered that needs somebody', async () => {
  page('/hear-back/replies/2', answers());
  expect(await screen.findByRole('button', { name: 'Mark as done' })).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Answer' })).toBeNull();
});

test('a viewer reads, and neither acts nor counts as having read', async () => {
  const { asked, user } = page('/hear-back/replies/1', answers(said('We gave $25.')), 'viewer');
  expect(await screen.findByText('This reads like a gift')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /^Answer|Mark|Put aside|Enter|Opt/ })).toBeNull();
  await user.keyboard('d1');
  expect(asked.filter(({ method }) => method === 'POST')).toEqual([]);
});

test('nobody waits', async () => {
  const none = { threads: [], counts: { open: 0, mine: 0, aside: 0, unread: 0 } };
  page('/hear-back/replies', { 'GET replies': none });
  expect(await screen.findByText('Nobody waits for an answer')).toBeTruthy();
});
