import { screen, waitFor, within } from '@testing-library/react';
import type { StarterView, TemplateLine } from '@goodword/core/contract';
import { hrefsIn, letterFault, letterOfText, letterTexts, NO_WORDS } from '@goodword/core/letter';
import { show, type StubbedAnswers } from '../../testing';
import { pastedWords } from '../pastedWords';
import { BeginWith, type BegunFrom } from './BeginWith';
import { NewTemplate } from './NewTemplate';
import Templates from './Templates';

const LINE = {
  id: 3,
  name: 'Winter hull',
  folder: 'Appeals',
  channel: 'email',
  purpose: 'appeals',
  listId: null,
  note: 'Before the frost',
  isTeam: true,
  isOwn: false,
  owner: 'Rosa Oduya',
  uses: 4,
  archived: false,
  updatedAt: '2026-11-01T00:00:00.000Z',
  beginning: 'Dear',
} as TemplateLine;
const STARTER: StarterView = {
  key: 'welcome',
  name: 'Welcome',
  note: 'The day after',
  purpose: 'news',
  words: [{ channel: 'email', words: { ...NO_WORDS, subject: 'Good that you are here' } }],
};
const ANSWERS: StubbedAnswers = {
  'GET templates': ({ path }: { path: string }) => {
    const asked = new URLSearchParams(path.split('?')[1]);
    return LINE.name.toLowerCase().includes((asked.get('search') ?? '').toLowerCase()) ? [LINE] : [];
  },
  'GET starters': [STARTER],
  'GET lists': [],
  'GET messages': [],
};

test('words to begin with are found by typing part of a name, and a blank sheet stays', async () => {
  const chosen: BegunFrom[] = [];
  const { user } = show(<BeginWith channel="email" chosen={null} onChoose={(one) => chosen.push(one)} />, {
    answers: ANSWERS,
  });
  await user.click(screen.getByRole('button', { name: 'Begin with a blank sheet' }));
  expect(await screen.findByText('Winter hull')).toBeDefined();
  expect(screen.getByText('Welcome')).toBeDefined();
  await user.keyboard('hull');
  await waitFor(() => expect(screen.queryByText('Welcome')).toBeNull());
  await user.keyboard('{Enter}');
  expect(chosen).toMatchObject([{ of: 'template', template: { id: 3 } }]);
});

test('Enter before the answer is there takes the first of the answer, and not what stood there before', async () => {
  const chosen: BegunFrom[] = [];
  const other = { ...LINE, id: 8, name: 'Ferry news' };
  let answer: (lines: unknown) => void = () => undefined;
  const { user } = show(<BeginWith channel="email" chosen={null} onChoose={(one) => chosen.push(one)} />, {
    answers: {
      ...ANSWERS,
      'GET starters': [],
      'GET templates': ({ path }: { path: string }) =>
        path.includes('search=hull') ? new Promise((done) => (answer = done)) : [other, LINE],
    },
  });
  await user.click(screen.getByRole('button', { name: 'Begin with a blank sheet' }));
  expect(await screen.findByText('Ferry news')).toBeDefined();
  await user.keyboard('hull{Enter}');
  expect(chosen).toEqual([]);
  answer([LINE]);
  await waitFor(() => expect(chosen).toMatchObject([{ of: 'template', template: { id: 3 } }]));
});

test('a starter of another channel is not offered', async () => {
  const { user } = show(<BeginWith channel="text" chosen={null} onChoose={() => undefined} />, {
    answers: { ...ANSWERS, 'GET templates': [] },
  });
  await user.click(screen.getByRole('button', { name: 'Begin with a blank sheet' }));
  expect(await screen.findByText('a blank sheet', { selector: '[cmdk-item]' })).toBeDefined();
  expect(screen.queryByText('Welcome')).toBeNull();
});

test('the list says what each is for, whose, and how often it was used', async () => {
  const { user } = show(<Templates />, { answers: ANSWERS });
  const region = await screen.findByRole('region', { name: 'Templates' });
  expect(region.textContent).toContain('Email, appeals, the team’s');
  expect(region.textContent).toContain('used 4 times');
  await user.type(screen.getByLabelText('Find a template'), 'oars');
  expect(await screen.findByText('None like that')).toBeDefined();
});

test('one is made from a starter, with its name, note and purpose to begin with', async () => {
  const done = jest.fn();
  const { user, asked } = show(<NewTemplate folders={['Thanks']} onDone={done} />, {
    answers: { ...ANSWERS, 'POST templates': { id: 9 } },
  });
  await user.click(await screen.findByLabelText(/Welcome/));
  await user.type(screen.getByLabelText('Folder'), 'New people');
  await user.click(screen.getByRole('button', { name: 'Make the template' }));
  await waitFor(() => expect(done).toHaveBeenCalledWith(9));
  expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({
    name: 'Welcome',
    folder: 'New people',
    channel: 'email',
    purpose: 'news',
    listId: null,
    note: 'The day after',
    from: { starter: 'welcome' },
  });
});

test('what was typed of a new one is there again, and nothing is asked of other channels', async () => {
  const first = show(<NewTemplate folders={[]} onDone={() => undefined} />, { answers: ANSWERS });
  await first.user.type(await screen.findByLabelText('Name'), 'Half made');
  first.unmount();
  show(<NewTemplate folders={[]} onDone={() => undefined} />, { answers: ANSWERS });
  expect((await screen.findByLabelText<HTMLInputElement>('Name')).value).toBe('Half made');
  const form = screen.getByLabelText('Name').closest('form')!;
  expect(within(form).queryByLabelText('Which message')).toBeNull();
});

test('pasted words become what the channel has: plain words, and HTML without its looks', () => {
  expect(pastedWords('Dear friend,\n\n- oak\n- pine', 'email').letter).toEqual(
    letterOfText('Dear friend,\n\n- oak\n- pine'),
  );
  const html =
    '<h2 style="color:red">Planks</h2><p>For <b>you</b>: <a href="https://ferry.test/a" class="x">see</a></p><script>alert(1)</script>';
  const { letter } = pastedWords(html, 'email');
  expect(letter!.content!.map(({ type }) => type)).toEqual(['heading', 'paragraph']);
  const all = JSON.stringify(letter);
  expect(all).toContain('{"href":"https://ferry.test/a"}');
  expect(all).not.toMatch(/red|alert|class/);
  // A link that can't be mailed is none, and its words stay.
  const odd = pastedWords(
    '<p><a href="/rel">rel</a> <a href="javascript:alert(1)">bad</a> <a href="https://ok.test/?a=1&b=2">ok</a></p>',
    'email',
  ).letter!;
  expect(letterFault(odd)).toBeNull();
  expect(letterTexts(odd).join('')).toBe('rel bad ok');
  expect(hrefsIn(odd)).toEqual(['https://ok.test/?a=1&b=2']);
  expect(pastedWords('<p>One</p><p>two<br>three</p>', 'text').text).toBe('One\ntwo\nthree');
  expect(pastedWords('2 < 3 and a > b', 'text').text).toBe('2 < 3 and a > b');
});
