import { useQuery } from '@tanstack/react-query';
import { screen } from '@testing-library/react';
import { reading } from '../app/reading';
import { reply, show } from '../testing';
import { ProblemNote } from './basics';
import { sentenceOf, useUntold } from './told';

function Untold() {
  const { errors, again } = useUntold();
  return (
    <>
      <p>untold: {errors.map(sentenceOf).join(' and ') || 'nothing'}</p>
      <button onClick={again}>again</button>
    </>
  );
}

const useAsked = (what: 'lists' | 'tags' | 'fields') =>
  useQuery({ ...reading(what), select: (answer: unknown) => String(answer) });
const Tells = () => <ProblemNote error={useAsked('lists').error} />;
const Silent = ({ what = 'tags' }: { what?: 'lists' | 'tags' | 'fields' }) => (
  <p>{what + ': ' + (useAsked(what).data ?? 'none')}</p>
);

const refused = (detail: string) => () => reply(503, { title: 'Busy', status: 503, detail });

test('what a part shows itself is not told again, what nobody shows is', async () => {
  show(
    <>
      <Untold />
      <Tells />
      <Silent />
    </>,
    { answers: { 'GET lists': refused('No lists now.'), 'GET tags': refused('No tags now.') } },
  );
  expect(await screen.findByText('untold: No tags now.')).toBeTruthy();
  expect(screen.getByRole('alert').textContent).toContain('No lists now.');
});

test('one sentence is told once, however many parts it keeps from being read', async () => {
  show(
    <>
      <Untold />
      <Silent />
      <Silent what="fields" />
    </>,
    { answers: { 'GET fields': refused('Too much at once.'), 'GET tags': refused('Too much at once.') } },
  );
  expect(await screen.findByText('untold: Too much at once.')).toBeTruthy();
});

test('asking again asks what failed, and nothing else', async () => {
  let up = false;
  const { user, asked } = show(
    <>
      <Untold />
      <Silent />
      <Silent what="fields" />
    </>,
    {
      answers: {
        'GET tags': () => (up ? 'three' : reply(503, { title: 'Busy', status: 503, detail: 'Not now.' })),
        'GET fields': 'five',
      },
    },
  );
  await screen.findByText('untold: Not now.');
  up = true;
  await user.click(screen.getByText('again'));
  expect(await screen.findByText('tags: three')).toBeTruthy();
  expect(screen.getByText('untold: nothing')).toBeTruthy();
  expect(asked.map(({ path }) => path)).toEqual(['tags', 'fields', 'tags']);
});
