import { screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { show } from '../testing';
import { Confirm, Drawer } from './dialogs';

function Asking({ onAct }: { onAct: () => Promise<unknown> }) {
  const [open, setOpen] = useState(true);
  return (
    <>
      <p>{open ? 'asking' : 'asked'}</p>
      <Confirm
        open={open}
        onClose={() => setOpen(false)}
        title="Delete 3 lists?"
        body="People stay."
        act="Delete them"
        onAct={onAct}
      />
    </>
  );
}

test('what is confirmed is done once, however often it is pressed, and then the question goes', async () => {
  let done = 0;
  let end: () => void = () => undefined;
  const { user } = show(<Asking onAct={() => new Promise<void>((ended) => ((done += 1), (end = ended)))} />);
  const act = screen.getByRole('button', { name: 'Delete them' });
  await user.click(act);
  await user.click(act);
  expect(done).toBe(1);
  end();
  await screen.findByText('asked');
});

test('what fails is told in the question itself, which stays and can be put again', async () => {
  let times = 0;
  const { user } = show(
    <Asking
      onAct={async () => {
        times += 1;
        if (times === 1) throw new Error('A form still uses one of them.');
      }}
    />,
  );
  await user.click(screen.getByRole('button', { name: 'Delete them' }));
  expect(await screen.findByText('A form still uses one of them.')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Delete them' }));
  await screen.findByText('asked');
});

test('Escape and the other button leave it as it is', async () => {
  let done = 0;
  const one = show(<Asking onAct={async () => (done += 1)} />);
  await one.user.keyboard('{Escape}');
  await screen.findByText('asked');
  one.unmount();
  const other = show(<Asking onAct={async () => (done += 1)} />);
  await other.user.click(screen.getByRole('button', { name: 'Leave it as it is' }));
  await screen.findByText('asked');
  expect(done).toBe(0);
});

test('a drawer is closed by its button, and by Escape', async () => {
  const closed: string[] = [];
  const { user } = show(
    <Drawer open onClose={() => closed.push('closed')} title="Who they are" note="Of this batch">
      <p>Rows</p>
    </Drawer>,
  );
  await user.click(screen.getByRole('button', { name: 'Close' }));
  await user.keyboard('{Escape}');
  await waitFor(() => expect(closed).toEqual(['closed', 'closed']));
});
