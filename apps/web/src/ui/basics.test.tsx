import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { Button } from './basics';

/** Presses, as they came through to what a button does. */
function pressed(weight?: 'main' | 'plain' | 'grave'): { button: HTMLElement; times: () => number } {
  let times = 0;
  render(<Button {...(weight ? { weight } : {})} onClick={() => (times += 1)} children="Bring them in" />);
  return { button: screen.getByRole('button', { name: 'Bring them in' }), times: () => times };
}

test.each(['main', 'grave'] as const)('a double click on a %s button is one press', async (weight) => {
  const { button, times } = pressed(weight);
  await userEvent.dblClick(button);
  expect(times()).toBe(1);
});

test('two presses one after the other are two, by mouse and by keys', async () => {
  const { button, times } = pressed('main');
  fireEvent.click(button, { detail: 1 });
  fireEvent.click(button, { detail: 1 });
  button.focus();
  await userEvent.keyboard('{Enter} ');
  expect(times()).toBe(4);
});

test('a plain button may be pressed fast', async () => {
  const { button, times } = pressed();
  await userEvent.dblClick(button);
  expect(times()).toBe(2);
});

test('the second click of a double click does not land on what took the place of the button', async () => {
  const done: string[] = [];
  function Steps() {
    const [step, setStep] = useState(1);
    return (
      <Button
        weight="main"
        onClick={() => (done.push(`step ${step}`), setStep(step + 1))}
        children={`Step ${step}`}
      />
    );
  }
  render(<Steps />);
  await userEvent.dblClick(screen.getByRole('button'));
  expect(done).toEqual(['step 1']);
  expect(screen.getByRole('button', { name: 'Step 2' })).toBeTruthy();
});

test('a plain button that makes something makes one of it at a double click', async () => {
  let times = 0;
  render(<Button once onClick={() => (times += 1)} children="Write with it" />);
  await userEvent.dblClick(screen.getByRole('button', { name: 'Write with it' }));
  expect(times).toBe(1);
});
