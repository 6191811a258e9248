import { act, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import type { BatchView, DoubleView } from '@goodword/core/contract';
import { reply, show, type StubbedAnswers, type RecordedCall } from '../testing';
import { useMarginStore } from '../ui/margin';
import Batch from './Batch';

const BATCH = {
  ...{
    id: 7,
    name: 'Harbor day',
    fileName: 'sign-ups.csv',
    what: 'people',
    state: 'checked',
    rows: 62,
    done: 0,
    total: 62,
    rate: null,
  },
  ...{
    counts: { new: 40, shares: 3, update: 12, look: 2, failed: 5 },
    looks: { short: 2 },
    withFaults: 0,
    withHints: 0,
    fileKept: true,
  },
  ...{ will: null, problem: null, found: null, stayed: 0, strangers: 0 },
} as unknown as BatchView;

/** The batch as the server has it, which acts change. */
function server(of: Partial<BatchView> = {}, answers: StubbedAnswers = {}) {
  const batch = { ...BATCH, ...of };
  const to = (state: string) => () => ((batch.state = state as BatchView['state']), reply(204, null));
  const all: StubbedAnswers = {
    'GET batches/7': () => ({ ...batch }),
    'POST batches/7/bring-in': to('bringing'),
    'POST batches/7/stop': to('stopped'),
    'POST batches/7/take-out': to('taking-out'),
    'POST batches/7/seen': () => reply(204, null),
    'GET batches/7/take-out': { staying: 2 },
    ...answers,
  };
  return { batch, answers: all };
}

const page = (answers: StubbedAnswers, role: 'organizer' | 'viewer' = 'organizer') =>
  show(
    <Routes>
      <Route path="/gather/:id" element={<Batch />} />
      <Route path="*" element={<p>somewhere else</p>} />
    </Routes>,
    { answers, role, at: '/gather/7' },
  );

test('a checked batch says how many come in, and nothing is written before one says so', async () => {
  const { answers } = server();
  const { user, asked } = page(answers);
  expect(await screen.findByText('62 rows of sign-ups.csv, checked, not in yet')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Bring in 55 people' }));
  await waitFor(() =>
    expect(asked.filter(({ method }) => method === 'POST').map(({ path }) => path)).toEqual([
      'batches/7/bring-in',
    ]),
  );
  expect(await screen.findByRole('button', { name: 'Stop after these rows' })).toBeTruthy();
});

test.each<[Partial<BatchView>, string]>([
  [{ what: 'gifts', counts: { gift: 9, new: 1 } }, 'Record 10 gifts'],
  [{ what: 'refusals', counts: { no: 1 } }, 'Record 1 refusal'],
  [{ what: 'here', counts: { update: 1 } }, 'Put 1 person there'],
])('each kind of file says what is done with it: %j', async (of, words) => {
  page(server(of).answers);
  expect(await screen.findByRole('button', { name: words })).toBeTruthy();
});

test('where nobody would come in there is nothing to press', async () => {
  page(server({ counts: { failed: 5 } }).answers);
  expect((await screen.findByRole<HTMLButtonElement>('button', { name: 'Bring in 0 people' })).disabled).toBe(
    true,
  );
});

test('on its way it tells how far, how fast and how long; it can be stopped and goes on from there', async () => {
  const { batch, answers } = server({ state: 'bringing', done: 20, rate: 10 });
  const { user } = page(answers);
  expect(await screen.findByText(/20 of 62 rows brought in, 10 a second, about 5 seconds left/)).toBeTruthy();
  batch.done = 31;
  await user.click(screen.getByRole('button', { name: 'Stop after these rows' }));
  await user.click(await screen.findByRole('button', { name: 'Go on from row 32' }));
  expect(await screen.findByRole('button', { name: 'Stop after these rows' })).toBeTruthy();
});

test('taking it back out says who goes, who goes back to how they were, and who stays and why', async () => {
  const { batch, answers } = server({ state: 'done', counts: { new: 40, shares: 3, update: 12 } });
  const { user } = page(answers);
  await user.click(await screen.findByRole('button', { name: 'Take the batch back out' }));
  const question = await screen.findByRole('alertdialog');
  await waitFor(() =>
    expect(question.textContent).toContain('41 people go, and 12 go back to how they were'),
  );
  expect(question.textContent).toContain('2 stay, because something happened to these people since');
  await user.click(within(question).getByRole('button', { name: 'Take out 41 people' }));
  await waitFor(() => expect(batch.state).toBe('taking-out'));
});

test('one that is in is marked as seen, and offers its sheets as long as its file is kept', async () => {
  const { asked, unmount } = page(server({ state: 'done' }).answers);
  expect(
    (await screen.findAllByRole('link', { name: 'CSV' })).map((link) => link.getAttribute('href')),
  ).toEqual(['/api/batches/7/brought-in.csv', '/api/batches/7/rows-to-mend.csv']);
  await waitFor(() => expect(asked.some(({ path }) => path === 'batches/7/seen')).toBe(true));
  unmount();
  page(server({ state: 'done', fileKept: false }).answers);
  expect(await screen.findByText('Its file was deleted after the time set in Setup.')).toBeTruthy();
});

test('what the server refuses is told, and a viewer is offered nothing', async () => {
  const refused = {
    'POST batches/7/bring-in': () =>
      reply(409, { title: 'No', status: 409, detail: 'Somebody changed the plan meanwhile.' }),
  };
  const { user, unmount } = page(server({}, refused).answers);
  await user.click(await screen.findByRole('button', { name: 'Bring in 55 people' }));
  expect(await screen.findByText('Somebody changed the plan meanwhile.')).toBeTruthy();
  unmount();
  page(server().answers, 'viewer');
  await screen.findByText('What will become of the rows');
  expect(screen.queryByRole('button', { name: /Bring in|Merge|New people|See them|Download/ })).toBeNull();
});

describe('likely doubles', () => {
  const look = (row: number): DoubleView =>
    ({
      ...{ row, why: 'short' },
      people: [
        {
          id: 101,
          name: 'Robert Vale',
          supporterId: 101,
          rowNo: null,
          score: 92,
          reasons: ['Bob is short for Robert', 'the same postcode'],
        },
        { id: -4, name: 'Bob Vale', supporterId: null, rowNo: 4, score: 88, reasons: ['the same name'] },
      ],
      fields: [
        { key: 'firstName', name: 'First name', row: 'Bob', theirs: { 101: 'Robert', '-4': 'Bob' } },
        {
          key: 'email',
          name: 'Email',
          row: 'bob@example.org',
          theirs: { 101: 'robert@example.org', '-4': '' },
        },
        { key: 'field:9', name: 'Shirt size', row: '', theirs: { 101: '', '-4': '' } },
      ],
    }) as unknown as DoubleView;

  /** Two rows to settle, one after the other. */
  function looks() {
    const open = [3, 9];
    const decided: unknown[] = [];
    const rows = () => ({ rows: open.slice(0, 1).map((row) => ({ row })), total: open.length, next: null });
    return {
      decided,
      answers: {
        'GET batches/7/rows': rows,
        'GET batches/7/rows/3': look(3),
        'GET batches/7/rows/9': look(9),
        'POST batches/7/decisions': ({ body }: RecordedCall) => {
          decided.push(body);
          open.shift();
          return reply(204, null);
        },
        'DELETE batches/7/rows/3/decision': () => {
          decided.push('undone');
          open.unshift(3);
          return reply(204, null);
        },
      },
    };
  }

  test('all of a kind are settled in one stroke', async () => {
    const { decided, answers } = looks();
    const { user } = page(server({}, answers).answers);
    await user.click(await screen.findByRole('button', { name: 'Keep all apart' }));
    await waitFor(() => expect(decided).toEqual([{ why: 'short', as: 'new', keep: [] }]));
  });

  test('side by side, field by field, for each whom it may be; the last one is undone', async () => {
    const { decided, answers } = looks();
    const { user } = page(server({}, answers).answers);
    await user.click(await screen.findByRole('button', { name: 'Look at each' }));
    expect(await screen.findByText(/Bob is short for Robert, the same postcode/)).toBeTruthy();
    // Where neither has a value there is no line; where they differ one chooses.
    expect(screen.queryByText('Shirt size')).toBeNull();
    expect(screen.getAllByRole('checkbox')).toHaveLength(2);
    await user.click(screen.getByRole('checkbox', { name: 'take the row’s' }));
    await user.click(screen.getByRole('button', { name: 'The same: merge' }));
    await waitFor(() =>
      expect(decided).toEqual([{ rows: [3], as: 'merge', supporterId: 101, keep: ['firstName'] }]),
    );
    await user.click(await screen.findByRole('button', { name: 'Undo the last one, row 3' }));
    await waitFor(() => expect(decided.at(-1)).toBe('undone'));
    await user.click(await screen.findByRole('radio', { name: 'Bob Vale, 88' }));
    expect(screen.queryByRole('checkbox')).toBeNull(); // Nothing differs from the other row.
    await user.click(screen.getByRole('button', { name: 'The same: merge' }));
    await waitFor(() =>
      expect(decided.at(-1)).toEqual({ rows: [3], as: 'merge', supporterId: -4, keep: [] }),
    );
    await user.click(await screen.findByRole('button', { name: 'Skip the row' }));
    expect(await screen.findByText('All of them are settled.')).toBeTruthy();
  });

  test('the Margin leads to them', async () => {
    const { answers } = looks();
    page(server({}, answers).answers);
    await screen.findByRole('button', { name: 'Look at each' });
    const note = useMarginStore.getState().notes.find(({ title }) => /want a look/.test(title));
    act(() => note!.remedy!.act());
    expect(await screen.findByText('Is it the same person?')).toBeTruthy();
  });
});
