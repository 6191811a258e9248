import { screen, waitFor } from '@testing-library/react';
import type { FieldAdminView } from '@goodword/core/contract';
import { reply, show, type StubbedAnswers } from '../../testing';
import { FieldSheet, NewFieldSheet } from './FieldSheet';

const FIELD = {
  ...{ id: 3, name: 'Favourite crossing', type: 'choice', section: 'On the water', fallback: null, help: '' },
  ...{ sensitive: false, required: false, choices: ['the fog run', 'the dawn boat'], values: 12 },
} as unknown as FieldAdminView;

function sheet(answers: StubbedAnswers = {}) {
  const done: string[] = [];
  const shown = show(
    <FieldSheet field={FIELD} sections={['On the water', 'Membership']} onDone={() => done.push('done')} />,
    {
      role: 'owner',
      answers: { 'GET house/fields/3/choices': [], ...answers },
    },
  );
  return { ...shown, done, changes: () => shown.asked.filter(({ method }) => method !== 'GET') };
}

test('what is changed is kept as a whole; choices are tidied', async () => {
  const { user, changes, done } = sheet({ 'PUT house/fields/3': () => reply(204, null) });
  await user.clear(screen.getByLabelText(/^Name/));
  await user.type(screen.getByLabelText(/^Name/), 'Crossing');
  expect(screen.getByText('In messages: {Crossing}')).toBeTruthy();
  await user.type(
    screen.getByLabelText(/^Choices, one to a line/),
    '{Enter} the fog run {Enter}{Enter}the market boat',
  );
  await user.click(screen.getByRole('checkbox', { name: /^Sensitive/ }));
  await user.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(done).toEqual(['done']));
  expect(changes()[0]!.body).toMatchObject({
    ...{ name: 'Crossing', section: 'On the water', sensitive: true, required: false },
    choices: ['the fog run', 'the dawn boat', 'the market boat'],
  });
});

test('a name that is taken is told, and the sheet stays', async () => {
  const detail = 'There is a field “Crossing” already.';
  const { user, done } = sheet({
    'PUT house/fields/3': () => reply(422, { title: 'No', status: 422, detail }),
  });
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByText(detail)).toBeTruthy();
  expect(done).toEqual([]);
});

test('another type is refused with those who stand in the way, and shown beforehand where all convert', async () => {
  const wont = {
    values: 12,
    wont: 2,
    examples: [{ supporterId: 101, name: '', reason: '"the fog run" is no number' }],
    preview: [],
  };
  const fine = { values: 12, wont: 0, examples: [], preview: [{ from: 'the fog run', to: 'the fog run' }] };
  const { user, changes, done } = sheet({
    'GET house/fields/3/conversion?type=number': wont,
    'GET house/fields/3/conversion?type=text': fine,
    'PUT house/fields/3/type': () => reply(204, null),
  });
  const type = screen.getByLabelText(/^Make it something other than/);
  await user.selectOptions(type, 'number');
  expect(await screen.findByText(/2 of 12 values would not convert/)).toBeTruthy();
  expect(screen.getByRole('link', { name: 'No name on file' }).getAttribute('href')).toBe(
    '/sort/supporters/101',
  );
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Make it number' }).disabled).toBe(true);
  await user.selectOptions(type, 'text');
  expect(await screen.findByText('All 12 values convert.')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Make it text' }));
  await waitFor(() => expect(done).toEqual(['done']));
  expect(changes()).toEqual([{ method: 'PUT', path: 'house/fields/3/type', body: { type: 'text' } }]);
});

test('deleting says how many values go before it is done', async () => {
  const { user, changes, done } = sheet({
    'GET house/fields/3/deletion': { values: 1, blocked: null },
    'DELETE house/fields/3': () => reply(204, null),
  });
  await user.click(screen.getByRole('button', { name: 'Delete the field…' }));
  expect(await screen.findByText('1 value goes with it, for good. Nobody is deleted.')).toBeTruthy();
  expect(changes()).toEqual([]);
  await user.click(screen.getByRole('button', { name: 'Delete Favourite crossing' }));
  await waitFor(() => expect(done).toEqual(['done']));
});

test('one that is used says by what', async () => {
  const { user } = sheet({
    'GET house/fields/3/deletion': {
      values: 1,
      blocked: 'The segment “Menders” asks for it. Change that first.',
    },
  });
  await user.click(screen.getByRole('button', { name: 'Delete the field…' }));
  expect(await screen.findByText('The segment “Menders” asks for it. Change that first.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Delete Favourite crossing' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Leave it as it is' }));
  expect(screen.queryByRole('alertdialog')).toBeNull();
});

describe('a new field', () => {
  const make = (answers: StubbedAnswers = {}) => {
    const done: string[] = [];
    const shown = show(<NewFieldSheet onDone={() => done.push('done')} without={['file']} />, {
      answers: {
        'GET fields': [{ id: 1, name: 'Birthday', section: 'Membership' }],
        'POST fields': { id: 9 },
        ...answers,
      },
    });
    return { ...shown, done };
  };

  test('needs a name, and is of the kinds that can be had here', async () => {
    const { user, asked, done } = make();
    const button = screen.getByRole<HTMLButtonElement>('button', { name: 'Make the field' });
    expect(button.disabled).toBe(true);
    expect(screen.queryByRole('option', { name: 'file' })).toBeNull();
    expect(screen.queryByLabelText(/^Choices/)).toBeNull();
    await user.type(screen.getByLabelText(/^Name/), 'Rowing since');
    await user.selectOptions(screen.getByLabelText('Type'), 'choice');
    await user.type(screen.getByLabelText(/^Choices/), 'early{Enter} late {Enter}early');
    await user.click(button);
    await waitFor(() => expect(done).toEqual(['done']));
    expect(asked.find(({ method }) => method === 'POST')!.body).toEqual({
      ...{ name: 'Rowing since', type: 'choice', fallback: null, section: '' },
      choices: ['early', 'late'],
    });
  });

  test('choices that were typed for another kind do not come along', async () => {
    const { user, asked } = make();
    await user.type(screen.getByLabelText(/^Name/), 'Rowing since');
    await user.selectOptions(screen.getByLabelText('Type'), 'choice');
    await user.type(screen.getByLabelText(/^Choices/), 'early');
    await user.selectOptions(screen.getByLabelText('Type'), 'date');
    await user.click(screen.getByRole('button', { name: 'Make the field' }));
    await waitFor(() =>
      expect(asked.find(({ method }) => method === 'POST')!.body).toMatchObject({
        type: 'date',
        choices: [],
      }),
    );
  });
});
