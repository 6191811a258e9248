import { screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import type { CampaignPlan, StepView } from '@goodword/core/contract';
import { reply, show, type RecordedCall, type StubbedAnswers } from '../../testing';
import CampaignPlanPage from './CampaignPlanPage';

const step = (messageId: number, values: Partial<StepView> = {}): StepView => ({
  ...{
    messageId,
    version: 2,
    name: `Step ${messageId}`,
    channel: 'email',
    state: 'draft',
    day: 0,
    minutes: 600,
  },
  ...{ ownTime: false, at: '2099-12-01T18:00:00Z', rule: null, words: '', isReady: true, went: 0 },
  ...values,
});
const PLAN: CampaignPlan = {
  ...{ version: 3, firstDay: '2099-12-01', reached: 1_200_000, endsFor: ['gave', 'left'], endsAt: ['gave'] },
  goal: { kind: 'money', amount: 4_000_000, by: '2099-12-31' },
  joinsFrom: null,
  steps: [step(5), step(6, { channel: 'text', day: 3, minutes: 1050, at: '2099-12-04T01:30:00Z' })],
};
const EXPECTED = {
  steps: [
    { messageId: 5, group: 10, reached: 8, suppressed: [{ reason: 'fell-out', people: 2 }] },
    { messageId: 6, group: 10, reached: 3, suppressed: [{ reason: 'fell-out', people: 2 }] },
  ],
  gets: [2, 5, 3],
};
const LOOK = {
  ...{ group: 10, reached: 8, suppressed: [], parts: null, texts: null, holes: [], faults: [], doubts: [] },
  ...{ inOrder: [], asks: [], second: null, hours: null },
};
const LOOKS = {
  steps: [
    { messageId: 5, look: { ...LOOK, digest: 'five' } },
    { messageId: 6, look: { ...LOOK, reached: 3, digest: 'six' } },
  ],
  gets: [2, 5, 3],
};
const page = (answers: StubbedAnswers = {}, role: 'organizer' | 'viewer' = 'organizer') =>
  show(
    <Routes>
      <Route path="/send/campaigns/:id" element={<CampaignPlanPage />} />
    </Routes>,
    {
      ...{ role, at: '/send/campaigns/2' },
      answers: {
        'GET campaigns/2': {
          ...{ id: 2, name: 'Winter hull', kind: 'appeal', appealCode: 'HULL26', isOpen: true, people: 10 },
          ...{ stages: ['asked', 'gave'], counts: { asked: 10 } },
        },
        'GET campaigns/2/plan': PLAN,
        'GET campaigns/2/plan/expected': EXPECTED,
        'GET segments': [{ id: 3, name: 'Lapsed' }],
        'POST campaigns/2/plan/look': LOOKS,
        'POST campaigns/2/plan/go': null,
        'PUT campaigns/2/plan': { version: 4 },
        'PUT campaigns/2/steps/5': { version: 3 },
        'POST campaigns/2/steps': { id: 9 },
        ...answers,
      },
    },
  );

test('a campaign reads as a sentence, its steps as others, each with how many it would come to', async () => {
  page();
  expect(await screen.findByText(/^\$12,000 of \$40,000 by .*, appeal code HULL26, 2 steps$/)).toBeTruthy();
  expect(
    screen.getByRole('button', { name: /^When it is over for somebody: give, opt out, are at “gave”/ }),
  ).toBeTruthy();
  expect(await screen.findByText('about 8')).toBeTruthy();
  expect(screen.getByRole('button', { name: /^Days after the first one: .*, 3 days later$/ })).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Time: 17:30' })).toBeTruthy();
});

test('what ends it, and whom a step is for, are changed where they are read', async () => {
  const { user, asked } = page();
  await user.click(await screen.findByRole('button', { name: /^When it is over/ }));
  await user.click(screen.getByRole('checkbox', { name: 'they reply' }));
  await waitFor(() =>
    expect(asked.find(({ method, path }) => method === 'PUT' && path === 'campaigns/2/plan')?.body).toEqual({
      ...{ firstDay: '2099-12-01', goal: PLAN.goal, endsFor: ['gave', 'left', 'replied'], endsAt: ['gave'] },
      ...{ joinsFrom: null, basedOn: 3 },
    }),
  );
  await user.keyboard('{Escape}');
  await user.click(screen.getAllByRole('button', { name: /^Time: 10:00/ })[0]!);
  await user.click(screen.getByRole('checkbox', { name: 'where each of them is' }));
  await waitFor(() =>
    expect(asked.find(({ path }) => path === 'campaigns/2/steps/5')?.body).toEqual({
      ...{ day: 0, minutes: 600, ownTime: true, rule: null, basedOn: 2 },
    }),
  );
});

test('changes in haste build on each other, each from the version that the one before made', async () => {
  let kept = PLAN;
  const { user, asked } = page({
    'GET campaigns/2/plan': () => kept,
    'PUT campaigns/2/plan': ({ body }: RecordedCall) => {
      kept = { ...kept, ...(body as Partial<CampaignPlan>), version: kept.version + 1 };
      return { version: kept.version };
    },
  });
  await user.click(await screen.findByRole('button', { name: /^When it is over/ }));
  await user.click(screen.getByRole('checkbox', { name: 'they reply' }));
  await user.click(screen.getByRole('checkbox', { name: 'they give' }));
  const sent = () => asked.filter(({ method, path }) => method === 'PUT' && path === 'campaigns/2/plan');
  await waitFor(() => expect(sent()).toHaveLength(2));
  expect(sent().map(({ body }) => body)).toMatchObject([
    { endsFor: ['gave', 'left', 'replied'], basedOn: 3 },
    { endsFor: ['left', 'replied'], basedOn: 4 },
  ]);
});

test('a day is taken when it is typed, not at its first figure, and none that is not', async () => {
  const { user, asked } = page();
  const sent = () => asked.filter(({ path }) => path === 'campaigns/2/steps/5');
  const day = await screen.findByRole('button', { name: /^Days after the first one: Tuesday/ });
  await user.click(day);
  const typed = screen.getByRole('textbox', { name: /^Days after the first one/ });
  await user.clear(typed);
  await user.type(typed, '12');
  expect(sent()).toHaveLength(0);
  await user.keyboard('{Enter}');
  await waitFor(() => expect(sent()).toHaveLength(1));
  expect(sent()[0]!.body).toMatchObject({ day: 12, basedOn: 2 });
  await user.click(await screen.findByRole('button', { name: /^Days after the first one: Tuesday/ }));
  await user.type(screen.getByRole('textbox', { name: /^Days after the first one/ }), 'x{Enter}');
  expect(sent()).toHaveLength(1);
});

test('a double click takes one step out, and not the one that moves there', async () => {
  const { user, asked } = page({ 'DELETE campaigns/2/steps/5': null, 'DELETE campaigns/2/steps/6': null });
  await user.dblClick((await screen.findAllByRole('button', { name: 'Take it out' }))[0]!);
  await waitFor(() => expect(asked.some(({ method }) => method === 'DELETE')).toBe(true));
  expect(asked.filter(({ method }) => method === 'DELETE').map(({ path }) => path)).toEqual([
    'campaigns/2/steps/5',
  ]);
});

test('a step is added with its day and time, and what is no time is told', async () => {
  const { user, asked } = page();
  await user.click(await screen.findByRole('button', { name: /^Add a step/ }));
  await user.type(screen.getByLabelText('What it is called'), 'From the slipway');
  await user.selectOptions(screen.getByLabelText('What goes out'), 'post');
  const time = screen.getByRole('textbox', { name: /^Time of day/ });
  await user.clear(time);
  await user.type(time, 'noonish');
  expect(screen.getByText('This is no time. Write it like 17:30.')).toBeTruthy();
  const add = screen.getByRole<HTMLButtonElement>('button', { name: 'Add the step' });
  expect(add.disabled).toBe(true);
  await user.clear(time);
  await user.type(time, '9');
  await user.click(add);
  await waitFor(() =>
    expect(asked.find(({ method, path }) => method === 'POST' && path === 'campaigns/2/steps')?.body).toEqual(
      {
        ...{ name: 'From the slipway', channel: 'post', day: 6, minutes: 540, ownTime: false },
      },
    ),
  );
});

test('all steps are looked at, and set going by the looks that were seen', async () => {
  const { user, asked } = page();
  await user.click(await screen.findByRole('button', { name: 'Last look at all steps' }));
  const looked = await screen.findByRole('dialog', { name: 'Last look at the campaign' });
  const gets = within(looked).getByRole('region', { name: 'Who gets how many' });
  expect(
    within(gets)
      .getAllByRole('listitem')
      .map((line) => line.textContent),
  ).toEqual([...['none2', '1 of 2 steps5', '2 of 2 steps3']]);
  await user.dblClick(within(looked).getByRole('button', { name: 'Set 2 steps going' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  const sent = asked.filter(({ path }) => path === 'campaigns/2/plan/go');
  expect(sent.map(({ body }) => body)).toEqual([
    {
      looks: [
        { messageId: 5, digest: 'five' },
        { messageId: 6, digest: 'six' },
      ],
    },
  ]);
});

test.each([
  ['nobody would get', { reached: 0 }, 'Nobody would get it now.'],
  ['is not agreed to', { second: { holds: false } }, 'Another organizer has to agree to it first.'],
  ['is not in order', { faults: [{ message: 'It has no subject.' }] }, 'It has no subject.'],
])('a step that %s keeps all from being set going, and says so', async (_what, part, words) => {
  const { user } = page({
    'POST campaigns/2/plan/look': {
      ...LOOKS,
      steps: [{ messageId: 5, look: { ...LOOK, digest: 'five', ...part } }],
    },
  });
  await user.click(await screen.findByRole('button', { name: 'Last look at all steps' }));
  expect(await screen.findByText(words)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Set 1 step going' }).disabled).toBe(true);
});

test('what the server refuses is told, and the look stays open', async () => {
  const { user } = page({
    'POST campaigns/2/plan/go': reply(409, { detail: '“Step 5” would leave at a time that is over.' }),
  });
  await user.click(await screen.findByRole('button', { name: 'Last look at all steps' }));
  await user.click(await screen.findByRole('button', { name: 'Set 2 steps going' }));
  expect(await screen.findByText('“Step 5” would leave at a time that is over.')).toBeTruthy();
});

test('a step that is set going is read, not changed, and can be taken back; a viewer changes nothing', async () => {
  const going = { 'GET campaigns/2/plan': { ...PLAN, steps: [step(5, { state: 'scheduled' })] } };
  const { user, asked, unmount } = page({ ...going, 'POST messages/5/unschedule': null });
  expect(await screen.findByText('set going')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /^Time/ })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Take it back' }));
  await waitFor(() => expect(asked.some(({ path }) => path === 'messages/5/unschedule')).toBe(true));
  unmount();
  page(going, 'viewer');
  expect(await screen.findByText('It goes to the 10 on its roster.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /^(Take|Add|Last look)/ })).toBeNull();
});

test('the path of one person says what each step comes to, and why not', async () => {
  const { user } = page({
    'GET find?text=ada': [{ kind: 'supporter', id: 7, name: 'Ada Lin', note: '' }],
    'GET campaigns/2/plan/path?supporterId=7': [
      {
        messageId: 5,
        at: '2099-12-01T18:00:00Z',
        came: null,
        verdict: 'send',
        fall: null,
        words: 'Will get it',
      },
      { messageId: 6, at: null, came: null, verdict: 'said-no', fall: null, words: 'Opted out' },
    ],
  });
  await user.type(await screen.findByRole('combobox', { name: 'Whose path' }), 'ada');
  await user.click(await screen.findByText('Ada Lin'));
  expect(await screen.findByText('Gets 1 of 2 steps')).toBeTruthy();
  expect(screen.getByText('Opted out')).toBeTruthy();
});
