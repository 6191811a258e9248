import { screen, waitFor } from '@testing-library/react';
import { useLocation } from 'react-router';
import { show, type RecordedCall } from '../testing';
import { AddPerson } from './AddPerson';
import { fileOfOne } from './onePerson';

function Where() {
  return <p>{useLocation().pathname}</p>;
}

/** A house that reads, checks and brings in, of whose one row this becomes. */
function page(row: object) {
  let state = 'reading';
  const on = (next: string) => () => ((state = next), null);
  const shown = show(
    <>
      <AddPerson />
      <Where />
    </>,
    {
      answers: {
        'POST batches': () => ((state = 'draft'), { id: 7 }),
        'GET batches/7': () => ({ state, problem: null }),
        'PUT batches/7/plan': on('checked'),
        'GET batches/7/rows': { rows: [{ verdict: 'new', reason: '', supporterId: 31, ...row }] },
        'POST batches/7/bring-in': on('done'),
        'DELETE batches/7': on('gone'),
      },
    },
  );
  return {
    ...shown,
    state: () => state,
    sent: () =>
      shown.asked.filter(({ method }) => method !== 'GET').map(({ method, path }) => `${method} ${path}`),
  };
}
const planIn = (asked: RecordedCall[]) =>
  asked.find(({ path }) => path === 'batches/7/plan')!.body as { permission: object; columns: unknown[] };

async function typeIn(user: ReturnType<typeof page>['user'], fields: Record<string, string>) {
  await user.click(screen.getByRole('button', { name: 'Add a person' }));
  for (const [label, text] of Object.entries(fields)) await user.type(screen.getByLabelText(label), text);
}

test('somebody who agreed comes in with what they agreed to, and their record opens', async () => {
  const { user, asked, sent } = page({});
  await typeIn(user, { 'First name': 'Ann', Email: 'ann@example.org' });
  await user.click(screen.getByLabelText('Emails'));
  await user.click(screen.getByLabelText('news'));
  await user.type(screen.getByLabelText(/In what words/), 'Yes, write to me about the ferry.');
  await user.click(screen.getByRole('button', { name: 'Add this person' }));
  await waitFor(() => expect(screen.getByText('/sort/supporters/31')).toBeDefined());
  expect(planIn(asked).permission).toMatchObject({
    email: {
      said: 'yes',
      from: 'everyone',
      scopes: ['appeals'],
      how: 'in-person',
      words: 'Yes, write to me about the ferry.',
      voucher: 'Rosa Oduya',
    },
    text: { said: 'nothing' },
  });
  expect(sent()).toEqual(['POST batches', 'PUT batches/7/plan', 'POST batches/7/bring-in']);
});

test('nothing ticked is nothing agreed; without an address nobody is added', async () => {
  const { user, asked } = page({});
  await typeIn(user, { 'First name': 'Ann' });
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Add this person' }).disabled).toBe(true);
  await user.type(screen.getByLabelText('Mobile'), '206 555 0101');
  await user.click(screen.getByRole('button', { name: 'Add this person' }));
  await waitFor(() =>
    expect(planIn(asked).permission).toEqual({ email: { said: 'nothing' }, text: { said: 'nothing' } }),
  );
});

test('what can not be read is told in the sheet, and nothing of it is left', async () => {
  const { user, sent } = page({ verdict: 'new', reason: 'expected an email address, got "ann" (left out)' });
  await typeIn(user, { Email: 'ann', Mobile: '206 555 0101' });
  await user.click(screen.getByRole('button', { name: 'Add this person' }));
  expect(await screen.findByText('Expected an email address, got "ann".')).toBeDefined();
  expect(sent()).toEqual(['POST batches', 'PUT batches/7/plan', 'DELETE batches/7']);
  expect(screen.getByLabelText<HTMLInputElement>('Email').value).toBe('ann');
});

test.each([
  [{ verdict: 'look', supporterId: null }, '/gather/7', ['POST batches', 'PUT batches/7/plan']],
  [
    { verdict: 'same', supporterId: 4 },
    '/sort/supporters/4',
    ['POST batches', 'PUT batches/7/plan', 'DELETE batches/7'],
  ],
])('somebody who may be here, or is: %j', async (row, opened, asked) => {
  const { user, sent } = page(row);
  await typeIn(user, { Email: 'ann@example.org' });
  await user.click(screen.getByRole('button', { name: 'Add this person' }));
  await waitFor(() => expect(screen.getByText(opened)).toBeDefined());
  expect(sent()).toEqual(asked);
});

test('whatever is typed stays one row of four cells', async () => {
  const nothing = { said: 'nothing' } as const;
  const person = {
    firstName: 'Ann "Annie"',
    lastName: 'Lin, the elder',
    email: ' a@x.org ',
    mobile: '',
    chapterId: null,
  };
  const file = fileOfOne({ ...person, permission: { email: nothing, text: nothing } });
  const text = await file.text();
  expect(text).toBe('Email,First name,Last name,Mobile\r\n"a@x.org","Ann ""Annie""","Lin, the elder",""\r\n');
});
