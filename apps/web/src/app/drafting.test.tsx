import { screen } from '@testing-library/react';
import { show } from '../testing';
import { differences, Unsaved } from '../ui/Unsaved';
import { useDrafting } from './drafting';

interface Server {
  value: { name: string; lines: string[] };
  version: number;
}

function Editor({ server }: { server: Server }) {
  const draft = useDrafting('thing:7', server);
  return (
    <>
      <Unsaved draft={draft} what="the thing" />
      <input
        aria-label="Name"
        value={draft.value.name}
        onChange={(event) => draft.set({ ...draft.value, name: event.target.value })}
      />
      <p>
        based on {draft.basedOn}, {draft.isChanged ? 'changed' : 'as it is'}
      </p>
      <button onClick={draft.discard}>Put back</button>
      <button onClick={() => draft.saved({ ...server.value, name: 'Oars!' })}>The server has “Oars!”</button>
    </>
  );
}

const at = (name: string, version: number): Server => ({ value: { name, lines: ['a'] }, version });
const name = () => screen.getByLabelText<HTMLInputElement>('Name').value;

beforeEach(() => localStorage.clear());

test('what is typed and left at once is there again, and says that it is not saved', async () => {
  const first = show(<Editor server={at('Oars', 3)} />);
  await first.user.type(screen.getByLabelText('Name'), ' and masts');
  first.unmount();
  show(<Editor server={at('Oars', 3)} />);
  expect(name()).toBe('Oars and masts');
  expect(screen.getByRole('status').textContent).toContain('Not saved yet');
  expect(screen.getByText('based on 3, changed')).toBeTruthy();
});

test('whoever types and puts it back has typed nothing', async () => {
  const { user } = show(<Editor server={at('Oars', 3)} />);
  await user.type(screen.getByLabelText('Name'), 'x');
  expect(localStorage).toHaveLength(1);
  await user.type(screen.getByLabelText('Name'), '{Backspace}');
  expect(screen.getByText('based on 3, as it is')).toBeTruthy();
  expect(localStorage).toHaveLength(0);
});

test('somebody else’s newer save is told, shown where it differs, and overwrites nothing by itself', async () => {
  const first = show(<Editor server={at('Oars', 3)} />);
  await first.user.type(screen.getByLabelText('Name'), '!');
  first.unmount();
  const { user } = show(<Editor server={{ value: { name: 'Sails', lines: ['a', 'b'] }, version: 4 }} />);
  expect(screen.getByRole('alert').textContent).toContain('Two versions');
  expect([name(), screen.getByText('based on 3, changed')]).toEqual(['Oars!', expect.anything()]);
  await user.click(screen.getByRole('button', { name: 'See what differs' }));
  const cells = screen.getAllByRole('cell').map((cell) => cell.textContent);
  expect(cells).toEqual(['name', 'Oars!', 'Sails', 'lines 2', 'nothing', 'b']);
  await user.click(screen.getByRole('button', { name: 'Mine stays' }));
  expect(screen.queryByRole('alert')).toBeNull();
  expect([name(), screen.getByText('based on 4, changed')]).toEqual(['Oars!', expect.anything()]);
});

test('theirs stays: what was typed goes, and is not found again', async () => {
  const first = show(<Editor server={at('Oars', 3)} />);
  await first.user.type(screen.getByLabelText('Name'), '!');
  first.unmount();
  const second = show(<Editor server={at('Sails', 4)} />);
  await second.user.click(screen.getByRole('button', { name: 'Theirs stays' }));
  expect(name()).toBe('Sails');
  second.unmount();
  show(<Editor server={at('Sails', 4)} />);
  expect(screen.getByText('based on 4, as it is')).toBeTruthy();
});

test('where nothing was typed, a newer save is simply shown', () => {
  show(<Editor server={at('Sails', 4)} />);
  expect([name(), screen.getByText('based on 4, as it is')]).toEqual(['Sails', expect.anything()]);
});

test('what is typed while a save is on its way stays, on top of what was saved', async () => {
  const { user } = show(<Editor server={at('Oars', 3)} />);
  await user.type(screen.getByLabelText('Name'), '! And masts');
  // The press sent “Oars!”; the answer comes after more was typed.
  await user.click(screen.getByRole('button', { name: /The server has/ }));
  expect([name(), screen.getByText('based on 3, changed')]).toEqual(['Oars! And masts', expect.anything()]);
  await user.clear(screen.getByLabelText('Name'));
  await user.type(screen.getByLabelText('Name'), 'Oars!');
  await user.click(screen.getByRole('button', { name: /The server has/ }));
  expect([name(), localStorage.length]).toEqual(['Oars', 0]);
});

test('where two things differ is said in words', () => {
  expect(
    differences(
      { postalAddress: 'a', items: [{ required: true }] },
      { postalAddress: 'b', items: [{ required: false }] },
    ),
  ).toEqual([
    { where: 'postal address', mine: 'a', theirs: 'b' },
    { where: 'items 1 required', mine: 'yes', theirs: 'no' },
  ]);
  expect(differences({ a: 1 }, { a: 1 })).toEqual([]);
});
