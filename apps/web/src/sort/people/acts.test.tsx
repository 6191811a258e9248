import { screen, waitFor } from '@testing-library/react';
import type { BulkAct } from '@goodword/core/contract';
import { show, type StubbedAnswers } from '../../testing';
import { BulkForm } from './BulkForm';

const ANSWERS: StubbedAnswers = {
  'GET tags?counted=false': [{ id: 5, name: 'boat shed key' }],
  'GET lists?counted=false': [
    { id: 1, name: 'Ferry news', isPublic: true },
    { id: 2, name: 'Deck crew', isPublic: false },
  ],
  'GET fields': [
    { id: 2, name: 'Shirt size', type: 'choice', choices: ['S', 'M'] },
    { id: 3, name: 'Membership renews', type: 'date', choices: null },
  ],
  'GET campaigns': [{ id: 9, name: 'Winter hull appeal', stages: ['asked', 'pledged'] }],
};

/** The form of an act on so many people, and what was begun. */
function form(
  act: Exclude<BulkAct['do'], 'erase'>,
  begin: (act: BulkAct) => Promise<void> = async () => undefined,
) {
  const begun: BulkAct[] = [];
  const shown = show(
    <BulkForm
      act={act}
      many="4,793 people"
      onBegin={async (one) => {
        await begin(one);
        begun.push(one);
      }}
    />,
    { answers: ANSWERS },
  );
  const button = () => screen.getAllByRole<HTMLButtonElement>('button').at(-1)!;
  return { ...shown, begun, button };
}

test('a tag is put on or taken off all of them, once one is chosen', async () => {
  const { user, begun, button } = form('tag');
  expect([button().textContent, button().disabled]).toEqual(['Do it for 4,793 people', true]);
  await screen.findByRole('option', { name: 'boat shed key' });
  await user.selectOptions(screen.getByLabelText('Tag'), 'boat shed key');
  await user.selectOptions(screen.getByLabelText('What to do'), 'Remove');
  await user.click(button());
  await waitFor(() => expect(begun).toEqual([{ do: 'tag', tagId: 5, on: false }]));
});

test('a field asks for a value as its kind has it; an empty one takes the value away', async () => {
  const { user, begun, button } = form('field');
  await screen.findByRole('option', { name: 'Shirt size' });
  await user.selectOptions(screen.getByLabelText('Field'), 'Shirt size');
  await user.selectOptions(screen.getByLabelText('Value'), 'M');
  await user.click(button());
  await waitFor(() => expect(begun).toEqual([{ do: 'field', fieldId: 2, text: 'M' }]));
  await user.selectOptions(screen.getByLabelText('Field'), 'Membership renews');
  expect(screen.getByLabelText<HTMLInputElement>(/^Value/).type).toBe('date');
});

test('a roster has the stages of its campaign, and the way off it', async () => {
  const { user, begun, button } = form('roster');
  expect(screen.queryByLabelText('Stage')).toBeNull();
  await screen.findByRole('option', { name: 'Winter hull appeal' });
  await user.selectOptions(screen.getByLabelText('Campaign'), 'Winter hull appeal');
  await user.selectOptions(screen.getByLabelText('Stage'), 'Remove from the roster');
  await user.click(button());
  await waitFor(() => expect(begun).toEqual([{ do: 'roster', campaignId: 9, stage: null }]));
});

test('permission needs all its evidence: to what, how, when, in what words, vouched for by whom', async () => {
  const { user, begun, button } = form('permission');
  await user.selectOptions(screen.getByLabelText('Channel'), 'email');
  await screen.findByRole('option', { name: 'Ferry news' });
  expect(screen.queryByRole('option', { name: 'Deck crew' })).toBeNull();
  await user.selectOptions(screen.getByLabelText('To what'), 'Ferry news');
  await user.selectOptions(screen.getByLabelText('How'), 'on paper, signed');
  await user.type(screen.getByLabelText('On the day'), '2026-11-14');
  expect(button().disabled).toBe(true);
  await user.type(screen.getByLabelText('With the words'), 'Yes, by mail');
  expect(screen.getByLabelText<HTMLInputElement>('Vouched for by').value).toBe('Rosa Oduya');
  await user.click(button());
  await waitFor(() =>
    expect(begun).toEqual([
      {
        do: 'permission',
        channel: 'email',
        scopes: ['list:1'],
        how: 'paper',
        on: '2026-11-14',
        words: 'Yes, by mail',
        voucher: 'Rosa Oduya',
      },
    ]),
  );
});

test('what cannot begin says why, and what was typed stays', async () => {
  const { user, button } = form('export', async () =>
    Promise.reject(new Error('There is nobody in this group any more.')),
  );
  expect(button().textContent).toBe('Write the file of 4,793 people');
  await user.selectOptions(screen.getByLabelText('As'), 'vCards, for address books');
  await user.click(button());
  expect(await screen.findByText('There is nobody in this group any more.')).toBeTruthy();
  expect(screen.getByLabelText<HTMLSelectElement>('As').value).toBe('vcard');
});
