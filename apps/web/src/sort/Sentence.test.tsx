import { screen, within } from '@testing-library/react';
import { useState } from 'react';
import type { Group, Line } from '@goodword/core/segment';
import { show } from '../testing';
import type { Subjects } from './lines/subjects';
import { Sentence } from './Sentence';

const SUBJECTS = {
  fields: [
    { id: 1, name: 'Membership renews', type: 'date', choices: null },
    { id: 2, name: 'Shirt size', type: 'choice', choices: ['S', 'M'] },
    { id: 3, name: 'Pledge', type: 'money', choices: null },
  ],
  tags: [
    { id: 5, name: 'boat shed key' },
    { id: 6, name: 'oar makers' },
  ],
  lists: [{ id: 1, name: 'Ferry news', isPublic: true }],
  batches: [],
  campaigns: [{ id: 9, name: 'Winter hull appeal', stages: ['asked', 'pledged'] }],
  chapters: [
    { id: 1, name: 'East Landing' },
    { id: 2, name: 'Upriver' },
  ],
  messages: [{ id: 4, name: 'Planks are in', channel: 'email' }],
  segments: [{ id: 3, name: 'Menders' }],
} as unknown as Subjects;

let tree: Group;

function Builder({ start }: { start: Group }) {
  const [now, setNow] = useState(start);
  tree = now;
  const steps = now.rules.map((_rule, i) => ({ words: '', alone: 1000 * (i + 1), left: 0, inner: [] }));
  return <Sentence tree={now} steps={steps} subjects={SUBJECTS} onChange={setNow} />;
}

const build = (...rules: Group['rules']) => show(<Builder start={{ kind: 'all', rules }} />);
const GAVE: Line = { kind: 'gave', did: true, atLeast: null, window: { over: 'ever' } };

/** Opens a word and picks what it can be. */
async function pick(user: ReturnType<typeof build>['user'], word: string | RegExp, choice: string) {
  await user.click(screen.getByRole('button', { name: word }));
  await user.click(within(await screen.findByRole('dialog')).getByRole('button', { name: choice }));
}

test('lines are added from what there is to speak of, and nothing else is offered', async () => {
  const { user } = build();
  await user.click(screen.getByRole('button', { name: 'Add a line: add a line…' }));
  const offers = within(await screen.findByRole('dialog'))
    .getAllByRole('button')
    .map((button) => button.textContent);
  expect(offers).toContain('who have a tag');
  expect(offers).not.toContain('who came with a batch');
  await user.click(screen.getByRole('button', { name: 'who have a tag' }));
  expect(tree.rules).toEqual([{ kind: 'tag', tagId: 5, has: true }]);
});

test('each word can be another: which tag, and with or without it', async () => {
  const { user } = build({ kind: 'tag', tagId: 5, has: true });
  await pick(user, 'Tag: boat shed key', 'oar makers');
  await pick(user, 'With or without: have', 'do not have');
  expect(tree.rules).toEqual([{ kind: 'tag', tagId: 6, has: false }]);
});

test('amounts are typed in whole money and kept in minor units; a number of gifts is no money', async () => {
  const { user } = build(GAVE);
  await user.click(screen.getByRole('button', { name: 'Amount: anything' }));
  await user.type(await screen.findByLabelText('At least; empty for anything'), '12.5');
  expect(tree.rules[0]).toMatchObject({ atLeast: 1250 });
  await user.type(screen.getByLabelText('At most; empty for no limit'), '40');
  expect(tree.rules[0]).toMatchObject({ atLeast: 1250, atMost: 4000 });
  await user.keyboard('{Escape}');
  await pick(user, 'Measured: in all', 'in number of gifts');
  expect(tree.rules[0]).toMatchObject({ measure: 'count', atLeast: null, atMost: null });
});

test('a window of days has its number, and never none', async () => {
  const { user } = build(GAVE);
  await pick(user, 'When: ever', 'in the last … months');
  expect(tree.rules[0]).toMatchObject({ window: { over: 'last-months', days: 12 } });
  await user.click(screen.getByRole('button', { name: /^How many months/ }));
  const input = await screen.findByLabelText('How many months');
  await user.clear(input);
  expect(tree.rules[0]).toMatchObject({ window: { days: 1 } });
  await user.type(input, '6');
  expect(tree.rules[0]).toMatchObject({ window: { days: 6 } });
});

test('a field asks as its kind can be asked; another field begins anew', async () => {
  const { user } = build({ kind: 'field', field: 2, op: 'is', value: 'S' });
  await pick(user, 'Value: S', 'M');
  expect(tree.rules[0]).toMatchObject({ value: 'M' });
  await pick(user, 'Field: Shirt size', 'Pledge');
  expect(tree.rules[0]).toMatchObject({ field: 3 });
  await user.click(screen.getByRole('button', { name: /^Value: \$/ }));
  const input = await screen.findByLabelText('Value');
  await user.clear(input);
  await user.type(input, '20');
  expect(tree.rules[0]).toMatchObject({ value: 2000 });
});

test('all lines are joined by "and" or by "or", said once', async () => {
  const { user } = build(GAVE, { kind: 'tag', tagId: 5, has: true }, { kind: 'list', listId: 1, on: true });
  expect(screen.getAllByRole('button', { name: /^Join all lines by/ })).toHaveLength(1);
  await pick(user, 'Join all lines by: and', 'or');
  expect(tree.kind).toBe('any');
});

test('"or…" after a line puts it and another into a group of their own, and the last line taken out takes the group', async () => {
  const { user } = build(GAVE);
  await pick(user, 'Add a line: or…', 'who have a tag');
  expect(tree.rules).toEqual([{ kind: 'any', rules: [GAVE, { kind: 'tag', tagId: 5, has: true }] }]);
  await user.click(screen.getAllByRole('button', { name: 'Remove line 2' })[0]!);
  await user.click(screen.getAllByRole('button', { name: 'Remove line 1' })[0]!);
  expect(tree.rules).toEqual([]);
});

test('a group can ask for none of its lines', async () => {
  const { user } = build(GAVE);
  await pick(user, 'Add a line: and also…', 'who fit none of several');
  expect(tree.rules[1]).toMatchObject({ kind: 'none' });
  await pick(user, 'How these count: fit none of these:', 'fit at least one of these:');
  expect(tree.rules[1]).toMatchObject({ kind: 'any' });
});

test('a roster is asked for a stage of its own campaign', async () => {
  const { user } = build({ kind: 'roster', campaignId: 9, stages: [], on: true });
  await pick(user, 'Stage: anything', 'pledged');
  expect(tree.rules[0]).toMatchObject({ stages: ['pledged'] });
  await pick(user, 'Stage: pledged', 'anything');
  expect(tree.rules[0]).toMatchObject({ stages: [] });
});

test('each line says how many pass it alone', () => {
  build(GAVE, { kind: 'tag', tagId: 5, has: true });
  expect(screen.getAllByTitle('Pass this line alone').map((one) => one.textContent)).toEqual([
    '1,000',
    '2,000',
  ]);
});

test('the sentence is of the chapter that one works in', () => {
  build();
  expect(screen.getByText('all chapters')).toBeTruthy();
});
