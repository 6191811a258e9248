import { act, screen } from '@testing-library/react';
import { useState } from 'react';
import { show } from '../testing';
import { Margin } from './Margin';
import { useMargin, useMarginStore } from './margin';

function View({ told }: { told: (count: number) => void }) {
  const [count, setCount] = useState(0);
  useMargin([
    {
      key: 'one',
      tone: 'doubt',
      title: 'A doubt',
      body: 'With a way out.',
      remedy: { words: 'Take it', act: () => told(count) },
    },
  ]);
  return <button onClick={() => setCount(count + 1)}>Count on</button>;
}

test('a remedy does what it means now, though no word of its note has changed', async () => {
  const told: number[] = [];
  const { user } = show(
    <>
      <View told={(count) => told.push(count)} />
      <Margin />
    </>,
  );
  await user.click(screen.getByRole('button', { name: 'Take it' }));
  await user.click(screen.getByRole('button', { name: 'Count on' }));
  await user.click(screen.getByRole('button', { name: 'Take it' }));
  expect(told).toEqual([0, 1]);
});

test('notes go with the view that they are about', () => {
  const { unmount } = show(<View told={() => undefined} />);
  expect(useMarginStore.getState().notes.map(({ key }) => key)).toEqual(['one']);
  act(() => unmount());
  expect(useMarginStore.getState().notes).toEqual([]);
});
