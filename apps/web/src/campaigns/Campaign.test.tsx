import { screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { reply, show, type StubbedAnswers } from '../testing';
import Campaign from './Campaign';

const HULL = {
  ...{ id: 2, name: 'Winter hull appeal', kind: 'appeal', appealCode: 'HULL26', isOpen: true, people: 2 },
  ...{ stages: ['asked', 'pledged', 'gave'], counts: { asked: 1, gave: 1 } },
};
const row = (supporterId: number, lastName: string, stage: string) => ({
  ...{ supporterId, firstName: 'Ada', lastName, stage, putAt: '2026-11-02T10:00:00Z', by: 'Rosa Oduya' },
});
const page = (answers: StubbedAnswers = {}, role: 'organizer' | 'viewer' = 'organizer') => {
  const shown = show(
    <Routes>
      <Route path="/sort/campaigns/:id" element={<Campaign />} />
      <Route path="/sort/campaigns" element={<p>all campaigns</p>} />
    </Routes>,
    {
      role,
      at: '/sort/campaigns/2',
      answers: {
        'GET campaigns/2': HULL,
        'GET campaigns/2/roster': {
          rows: [row(7, 'Lin', 'asked'), row(8, 'Berg', 'gave')],
          total: 2,
          next: null,
        },
        'GET lists': [{ id: 4, name: 'Deck crew', folder: '' }],
        'GET tags': [{ id: 6, name: 'oar makers' }],
        'GET segments': [{ id: 3, name: 'Lapsed' }],
        'GET batches': [{ id: 1, name: 'Harbor day' }],
        'PUT campaigns/2/roster': { people: 1 },
        'POST campaigns/2/roster/off': { people: 1 },
        ...answers,
      },
    },
  );
  return {
    ...shown,
    sent: () =>
      shown.asked
        .filter(({ method }) => method !== 'GET')
        .map(({ method, path, body }) => [method, path, body]),
  };
};

test('how many stand where is told, and one stage is narrowed to', async () => {
  const { user, asked } = page();
  expect(await screen.findByText('appeal, 2 people on the roster, appeal code HULL26')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'gave 1' }));
  await waitFor(() => expect(asked.some(({ path }) => path === 'campaigns/2/roster?stage=gave')).toBe(true));
  expect(screen.getByRole('button', { name: 'pledged 0' })).toBeTruthy();
});

test('a group is put on with a stage; counting its people is not waited for', async () => {
  const { user, asked, sent } = page();
  await user.click(await screen.findByRole('button', { name: 'Put people on' }));
  const put = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Set them to/ });
  expect(put().disabled).toBe(true);
  await user.selectOptions(screen.getByLabelText('Whom'), 'A tag');
  await user.selectOptions(await screen.findByLabelText('Which'), 'oar makers');
  await user.selectOptions(screen.getByLabelText('Stage'), 'pledged');
  await user.dblClick(put());
  await waitFor(() =>
    expect(sent()).toEqual([
      ['PUT', 'campaigns/2/roster', { group: { kind: 'tag', id: 6 }, stage: 'pledged' }],
    ]),
  );
  expect(
    asked
      .filter(({ path }) => /^(tags|lists)/.test(path))
      .every(({ path }) => path.endsWith('?counted=false')),
  ).toBe(true);
});

test.each([
  ['A list', 'Deck crew', { kind: 'list', id: 4 }],
  ['A segment', 'Lapsed', { kind: 'segment', id: 3 }],
  ['A batch', 'Harbor day', { kind: 'batch', id: 1 }],
])('%s is taken off', async (kind, name, group) => {
  const { user, sent } = page();
  await user.click(await screen.findByRole('button', { name: 'Remove people' }));
  await user.selectOptions(screen.getByLabelText('Whom'), kind);
  await screen.findByRole('option', { name });
  await user.selectOptions(screen.getByLabelText('Which'), name);
  await user.click(screen.getByRole('button', { name: 'Remove them' }));
  await waitFor(() => expect(sent()).toEqual([['POST', 'campaigns/2/roster/off', { group }]]));
});

test('what is refused is told in the drawer', async () => {
  const { user } = page({
    'PUT campaigns/2/roster': () =>
      reply(404, {
        title: 'Not found',
        status: 404,
        detail: 'There is no tag here, or it belongs to another chapter.',
      }),
  });
  await user.click(await screen.findByRole('button', { name: 'Put people on' }));
  await user.selectOptions(screen.getByLabelText('Whom'), 'A tag');
  await screen.findByRole('option', { name: 'oar makers' });
  await user.selectOptions(screen.getByLabelText('Which'), 'oar makers');
  await user.click(screen.getByRole('button', { name: 'Set them to asked' }));
  expect((await screen.findByRole('alert')).textContent).toContain('There is no tag here');
});

test('removing it says how many leave its roster, and leads back to the others', async () => {
  const { user, sent } = page({ 'DELETE campaigns/2': () => reply(204, null) });
  await user.click(await screen.findByRole('button', { name: 'Delete' }));
  expect(screen.getByText(/2 people leave its roster/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Delete it, with 2 people on its roster' }));
  expect(await screen.findByText('all campaigns')).toBeTruthy();
  expect(sent()).toEqual([['DELETE', 'campaigns/2', null]]);
});

test('a viewer sees who stands where and moves nobody', async () => {
  page({}, 'viewer');
  expect(await screen.findByText('appeal, 2 people on the roster, appeal code HULL26')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Put people on' })).toBeNull();
  expect(screen.queryByRole('combobox')).toBeNull();
});
