import { act, screen, waitFor } from '@testing-library/react';
import { EMPTY_PLAN } from '@goodword/core/intake';
import { reply, show, type StubbedAnswers } from '../testing';
import { useDraft, type DraftState } from './draft';
import { MatchesStep } from './MatchesStep';

const { what: _what, ...PARTS } = EMPTY_PLAN;
const NOTHING = { said: 'nothing' as const };
const ANSWERS: StubbedAnswers = {
  'GET session/teammates': [
    { id: 1, name: 'Rosa Oduya', email: 'rosa@lanternferry.test' },
    { id: 2, name: 'Idris Vale', email: 'idris@lanternferry.test' },
  ],
  'PUT batches/7/draft': () => ({ version: 1 }),
  'PUT batches/7/plan': () => reply(204, null),
};

function step(of: Partial<DraftState> = {}, answers: StubbedAnswers = ANSWERS) {
  act(() => {
    useDraft.getState().reset();
    useDraft.setState({
      ...{
        batchId: 7,
        name: 'Harbor day',
        columns: [{ to: 'email' }, { to: 'amount' }] as never,
        permission: { email: NOTHING, text: NOTHING },
      },
      analysis: { found: { header: ['E-mail', 'Given'] } } as never,
      parts: { what: 'people', ...PARTS },
      ...of,
    });
  });
  return show(<MatchesStep />, { answers });
}
const now = () => useDraft.getState();

test('the keys are put in another order, left out, and taken in again behind the others', async () => {
  const { user } = step({ parts: { what: 'people', ...PARTS, matching: ['email', 'mobile'] } });
  const keys = () => screen.getAllByRole('listitem').map((item) => item.querySelector('label')!.textContent);
  const [first, second] = keys();
  expect([first, second]).toEqual([expect.stringMatching(/^1\. /), expect.stringMatching(/^2\. /)]);
  await user.click(screen.getAllByRole('button', { name: / later$/ })[0]!);
  expect(now().parts.matching).toEqual(['mobile', 'email']);
  await user.click(screen.getAllByRole('checkbox')[0]!);
  expect(now().parts.matching).toEqual(['email']);
  await user.click(screen.getAllByRole('checkbox')[1]!);
  expect(now().parts.matching).toHaveLength(2);
  expect(now().parts.matching[0]).toBe('email');
});

test('what happens to those who are here is asked of people; of gifts, whether strangers come in', async () => {
  const people = step();
  await people.user.click(screen.getByRole('radio', { name: /^Leave them as they are/ }));
  expect(now().parts.existing).toBe('leave');
  people.unmount();
  const gifts = step({ parts: { what: 'gifts', ...PARTS } });
  await gifts.user.click(screen.getByRole('radio', { name: /^Bring the people in too/ }));
  expect(now().parts.strangers).toBe('bring-in');
  expect(screen.getByText(/a gift is no yes/)).toBeTruthy();
});

test('of those who said no it is asked what they did, where no column says it', async () => {
  const { user } = step({ parts: { what: 'refusals', ...PARTS } });
  expect(screen.queryByText('Are left out')).toBeNull();
  await user.click(screen.getAllByRole('radio')[0]!);
  expect(now().parts.refusal).not.toBeNull();
});

test('who is told when it is in can be oneself or another', async () => {
  const { user } = step();
  await user.click(await screen.findByRole('checkbox', { name: 'Rosa Oduya, me' }));
  await user.click(screen.getByRole('checkbox', { name: 'Idris Vale' }));
  await user.click(screen.getByRole('checkbox', { name: 'Rosa Oduya, me' }));
  expect(now().parts.notify).toEqual([2]);
});

test('the plan is handed over as it stands, after the draft was kept, and the way is free for the next file', async () => {
  const { user, asked } = step();
  await user.click(screen.getByRole('button', { name: 'Next: check the batch' }));
  await waitFor(() => expect(now().batchId).toBeNull());
  const puts = asked.filter(({ method }) => method === 'PUT');
  expect(puts.map(({ path }) => path)).toEqual(['batches/7/draft', 'batches/7/plan']);
  expect(puts[1]!.body).toMatchObject({
    what: 'people',
    columns: [{ to: 'email' }, { to: 'amount' }],
    permission: { email: NOTHING },
  });
});

test('a plan that is refused says why, and nothing that was settled is lost', async () => {
  const detail = 'Two columns are matched to the email. Leave one of them out.';
  const { user } = step(
    {},
    { ...ANSWERS, 'PUT batches/7/plan': () => reply(422, { title: 'No', status: 422, detail }) },
  );
  await user.click(screen.getByRole('button', { name: 'Next: check the batch' }));
  expect(await screen.findByText(detail)).toBeTruthy();
  expect(now()).toMatchObject({ batchId: 7, name: 'Harbor day' });
});

test('it is not checked before the server has the file', () => {
  step({ batchId: null });
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Handing the file over…' }).disabled).toBe(
    true,
  );
});

test('where somebody of the team saved the batch meanwhile, the plan is not handed over: theirs would be lost', async () => {
  const theirs = { id: 7, name: 'Theirs', draftVersion: 4 };
  const newer = {
    title: 'Changed meanwhile',
    status: 409,
    detail: 'Idris Vale changed this batch meanwhile.',
    newer: true,
  };
  const { user, asked } = step(
    {},
    { ...ANSWERS, 'PUT batches/7/draft': () => reply(409, newer), 'GET batches/7': () => theirs },
  );
  await user.click(screen.getByRole('button', { name: /check the batch/ }));
  await waitFor(() => expect(now().newer).toEqual({ words: newer.detail, theirs }));
  await user.click(screen.getByRole('button', { name: /check the batch/ }));
  expect(asked.filter(({ path }) => path.endsWith('/plan'))).toEqual([]);
});
