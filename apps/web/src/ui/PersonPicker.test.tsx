import { act, screen, waitFor } from '@testing-library/react';
import type { FinderHit } from '@goodword/core/contract';
import { show, type RecordedCall } from '../testing';
import { PersonPicker } from './PersonPicker';

const person = (id: number, name: string): FinderHit =>
  ({ kind: 'supporter', id, name, note: `${id}@example.org` }) as FinderHit;

/** A picker whose answers come when they are let go, by what was typed. */
function picking(answers: Record<string, FinderHit[]>) {
  const picked: number[] = [];
  const held: { text: string; answer: () => void }[] = [];
  const shown = show(<PersonPicker label="Who" without={9} onPick={({ id }) => picked.push(id)} />, {
    answers: {
      'GET find': ({ path }: RecordedCall) => {
        const text = new URLSearchParams(path.split('?')[1]).get('text')!;
        return new Promise((done) => held.push({ text, answer: () => done(answers[text] ?? []) }));
      },
    },
  });
  const answer = async (text: string) => {
    await waitFor(() => expect(held.some((one) => one.text === text)).toBe(true));
    await act(async () => held.find((one) => one.text === text)!.answer());
  };
  return { ...shown, picked, answer, box: () => screen.getByRole('combobox', { name: 'Who' }) };
}

test('arrows mark and Enter chooses; whoever it is for is not among them', async () => {
  const { user, picked, answer, box } = picking({
    be: [person(3, 'Bea Berg'), person(9, 'Ben Berg'), person(4, 'Bo Berg')],
  });
  await user.type(box(), 'be');
  await answer('be');
  expect((await screen.findAllByRole('option')).map((one) => one.getAttribute('aria-selected'))).toEqual([
    'true',
    'false',
  ]);
  await user.keyboard('{ArrowDown}{Enter}');
  expect(picked).toEqual([4]);
});

test('Enter before the answer is there chooses from that answer, and not who stands there for fewer letters', async () => {
  const { user, picked, answer, box } = picking({
    be: [person(3, 'Bea Berg')],
    bet: [person(5, 'Bet Moss')],
  });
  await user.type(box(), 'be');
  await answer('be');
  await user.type(box(), 't{Enter}');
  expect(screen.getByRole('option').textContent).toContain('Bea Berg');
  expect(picked).toEqual([]);
  await answer('bet');
  await waitFor(() => expect(picked).toEqual([5]));
});

test('typing on after Enter takes the Enter back', async () => {
  const { user, picked, answer, box } = picking({
    be: [person(3, 'Bea Berg')],
    bet: [person(5, 'Bet Moss')],
  });
  await user.type(box(), 'be{Enter}t');
  await answer('be');
  await answer('bet');
  expect(picked).toEqual([]);
  await user.keyboard('{Enter}');
  expect(picked).toEqual([5]);
});

test('that there is nobody is said when it is known, and one letter asks for nothing', async () => {
  const { user, asked, answer, box } = picking({});
  await user.type(box(), 'q');
  expect([asked, screen.queryByText(/^Nobody/)]).toEqual([[], null]);
  await user.type(box(), 'q');
  expect(screen.queryByText(/^Nobody/)).toBeNull();
  await answer('qq');
  expect(await screen.findByText('Nobody by that name or address.')).toBeTruthy();
});
