import { screen, waitFor } from '@testing-library/react';
import { Route, Routes, useParams } from 'react-router';
import type { ComparisonView, MessageView } from '@goodword/core/contract';
import { show, type StubbedAnswers } from '../testing';
import { ComparisonSentence } from './ComparisonSentence';
import { waitedWords } from './measures';
import { WordingsCame } from './WordingsCame';
import { WordingsLine } from './WordingsLine';

const ONE = { id: 4, name: 'Hull', subject: 'The starboard side', state: 'sending' as const, sender: null };
const COMPARED: ComparisonView = {
  ...{ messageId: 4, version: 2, share: 20, measure: 'clicked', hours: 24 },
  wordings: [
    { ...ONE, came: 100, did: 10, gone: 100, beside: null },
    {
      ...{ ...ONE, id: 9, name: 'Hull, wording 2', subject: 'Forty planks', sender: 'June Marsh' },
      ...{ came: 98, did: 21, gone: 98, beside: { more: 0.114, low: 0.012, high: 0.215 } },
    },
  ],
  better: { id: 9, differs: true },
  ...{ rest: 800, leaving: 0, decidesAt: '2026-12-02T18:00:00Z', decided: null },
};

function came(
  comparison: ComparisonView,
  role: 'organizer' | 'writer' = 'organizer',
  more: StubbedAnswers = {},
) {
  return show(
    <Routes>
      <Route path="/hear-back/4" element={<WordingsCame comparison={comparison} shown={4} />} />
    </Routes>,
    { role, at: '/hear-back/4', answers: { 'POST messages/4/comparison/choose': null, ...more } },
  );
}

test('says who waits for what until when, and what is known; an organizer chooses, once asked', async () => {
  const { user, asked } = came(COMPARED);
  expect(
    await screen.findByText(/^800 people wait for the better one; that is decided Dec 2, 2026/),
  ).toBeTruthy();
  expect(screen.getByText('By what is known so far, wording 2 is the better one.')).toBeTruthy();
  expect(
    screen.getByRole('row', { name: /wording 2 Forty planks, from June Marsh 98 21 21.4% \+11.4%/ }),
  ).toBeTruthy();
  await user.click(screen.getAllByRole('button', { name: 'The rest gets this one' })[1]!);
  await user.click(screen.getByRole('button', { name: 'Send it to 800' }));
  await waitFor(() =>
    expect(asked.find(({ path }) => path === 'messages/4/comparison/choose')?.body).toEqual({ wordingId: 9 }),
  );
});

test('nobody else chooses, and nobody while some of those drawn have not got it', async () => {
  came(COMPARED, 'writer');
  await screen.findByText(/^800 people wait/);
  expect(screen.queryByRole('button', { name: 'The rest gets this one' })).toBeNull();
});

test('while they leave it says so, and offers no choice yet', async () => {
  came({ ...COMPARED, leaving: 12 });
  await screen.findByText(/First those leave who were drawn for one of them/);
  expect(screen.queryByRole('button', { name: 'The rest gets this one' })).toBeNull();
});

test('decided by what people did, or by whom; no difference is called that', async () => {
  const by = { decided: { id: 4, at: '2026-12-02T18:00:00Z', by: null }, rest: 0 };
  came({ ...COMPARED, ...by, better: { id: 4, differs: false } });
  expect(await screen.findByText(/^By what people did, the rest gets the first; decided Dec 2/)).toBeTruthy();
  expect(screen.getByText('By what is known so far, no difference is seen.')).toBeTruthy();
});

describe('how they are compared', () => {
  const sentence = (
    comparison: ComparisonView,
    people: number | null,
    role: 'writer' | 'viewer' = 'writer',
  ) =>
    show(
      <ComparisonSentence
        comparison={comparison}
        channel="email"
        people={people}
        onChange={() => undefined}
      />,
      {
        role,
        answers: { 'PUT messages/4/comparison': { version: 3 }, 'GET messages/4/comparison': comparison },
      },
    );

  test('is a sentence whose words are changed where they stand', async () => {
    const { user, asked } = sentence(COMPARED, 40_000);
    await user.click(
      await screen.findByRole('button', { name: 'By what the better one is told: more clicked' }),
    );
    await user.click(screen.getByRole('button', { name: 'more gave after' }));
    await waitFor(() =>
      expect(asked.find(({ method }) => method === 'PUT')?.body).toEqual({
        ...{ share: 20, measure: 'gave', hours: 24, basedOn: 2 },
      }),
    );
    // 4,000 each tell 3 % from 4.2 % (the core's own reckoning is tested there).
    expect(screen.getByText(/^About 4,000 people get each first: enough to tell 3% from 4\.2%/)).toBeTruthy();
  });

  test('says where people are too few, warns of opens, and asks a viewer nothing', async () => {
    sentence({ ...COMPARED, measure: 'opened', share: 10 }, 100, 'viewer');
    expect(
      await screen.findByText(/^About 5 people get each first: too few to tell a difference by/),
    ).toBeTruthy();
    expect(screen.getByText(/Opens are unsure/)).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });

  test('with all of them nobody waits', async () => {
    sentence({ ...COMPARED, share: 100 }, null);
    expect(await screen.findByText(/Told afterwards: which/)).toBeTruthy();
  });
});

test('hours are told as days where they are', () => {
  expect([1, 24, 48, 168, 30].map(waitedWords)).toEqual([
    '1 hour',
    '24 hours',
    '2 days',
    '7 days',
    '30 hours',
  ]);
});

test('a new wording is there to write in at once, however long the rest is read again', async () => {
  const draft = {
    id: 4,
    channel: 'email',
    state: 'draft',
    wordingOf: null,
    campaignId: null,
    automationId: null,
  };
  const Draft = () => (
    <>
      <h1>{useParams().id}</h1>
      <WordingsLine message={draft as MessageView} flush={() => Promise.resolve()} />
    </>
  );
  let reads = 0;
  const { user } = show(
    <Routes>
      <Route path="/write/:id" element={<Draft />} />
    </Routes>,
    {
      at: '/write/4',
      answers: {
        'POST messages/4/wordings': { id: 9 },
        'GET messages/4/comparison': () =>
          reads++ === 0 ? { ...COMPARED, wordings: [ONE] } : new Promise(() => undefined),
      },
    },
  );
  await user.click(await screen.findByRole('button', { name: 'Compare it with another wording' }));
  expect(await screen.findByRole('heading', { name: '9' })).toBeTruthy();
  expect(reads).toBe(2);
});
