import { ProblemError } from './api';
import { Keeper, type Saving } from './keeping';

const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));
const problem = (status: number, more: object = {}) =>
  new ProblemError({ type: '', title: '', status, detail: `${status}`, ...more });

/** A server that holds one text and its version, and refuses what is based on an older one. */
function server(value = 'old', version = 3) {
  const held = { value, version, saves: 0, away: false };
  const saving: Saving<string> = {
    save: async (next, basedOn) => {
      if (held.away) throw problem(0);
      if (basedOn !== held.version) throw problem(409, { newer: true });
      held.saves += 1;
      held.value = next;
      return ++held.version;
    },
    load: async () => ({ value: held.value, version: held.version }),
  };
  return { held, saving };
}
const open = ({ held, saving }: ReturnType<typeof server>) =>
  new Keeper('words', { value: held.value, version: held.version }, saving);

beforeEach(() => localStorage.clear());

test('what is typed and left at once is there, whatever the way it was left', async () => {
  const house = server();
  const keeper = open(house);
  keeper.set('new');
  expect(keeper.snapshot()).toMatchObject({ value: 'new', saveState: 'saving' });
  await keeper.flush();
  expect(house.held).toMatchObject({ value: 'new', version: 4, saves: 1 });
  expect(keeper.snapshot().saveState).toBe('saved');
  expect(localStorage).toHaveLength(0);
});

test('what never reached the server is found again, and sent', async () => {
  const house = server();
  house.held.away = true;
  const before = open(house);
  before.set('typed in a tunnel');
  await expect(before.flush()).rejects.toThrow('0');
  expect(before.snapshot().saveState).toBe('waiting');
  // The tab is closed; another one opens when the server is there again.
  house.held.away = false;
  const after = open(house);
  expect(after.snapshot()).toMatchObject({ value: 'typed in a tunnel', saveState: 'saving' });
  await after.flush();
  expect(house.held.value).toBe('typed in a tunnel');
});

test('it is tried again by itself', async () => {
  const house = server();
  house.held.away = true;
  const keeper = open(house);
  keeper.set('new');
  await keeper.flush().catch(() => undefined);
  house.held.away = false;
  await pause(1300);
  expect([house.held.value, keeper.snapshot().saveState]).toEqual(['new', 'saved']);
});

test('what somebody else saved meanwhile is not overwritten until one says so, and both are there', async () => {
  const house = server();
  const mine = open(house);
  const theirs = open(house);
  theirs.set('theirs');
  await theirs.flush();
  mine.set('mine');
  await expect(mine.flush()).rejects.toThrow('409');
  expect(mine.snapshot()).toMatchObject({
    value: 'mine',
    saveState: 'newer',
    theirs: { value: 'theirs', version: 4 },
  });
  // Typed on, it is still not sent.
  mine.set('mine, and more');
  await expect(mine.flush()).rejects.toThrow();
  expect(house.held.value).toBe('theirs');
  mine.keepMine();
  await mine.flush();
  expect(house.held.value).toBe('mine, and more');
});

test('or theirs stays', async () => {
  const house = server();
  const keeper = open(house);
  keeper.set('mine');
  house.held.version += 1;
  house.held.value = 'theirs';
  await keeper.flush().catch(() => undefined);
  keeper.takeTheirs();
  expect(keeper.snapshot()).toMatchObject({ value: 'theirs', saveState: 'saved', theirs: null });
  expect(localStorage).toHaveLength(0);
});

test('kept words meet newer ones on coming back: both are shown', async () => {
  const house = server();
  house.held.away = true;
  open(house).set('mine');
  Object.assign(house.held, { value: 'theirs', version: 9 });
  expect(open(house).snapshot()).toMatchObject({
    value: 'mine',
    saveState: 'newer',
    theirs: { value: 'theirs', version: 9 },
  });
});

test('typed while a save is under way, the later words are saved after it and on top of it', async () => {
  const house = server();
  const keeper = new Keeper<string>(
    'words',
    { value: 'old', version: 3 },
    { ...house.saving, save: async (...one) => (await pause(30), house.saving.save(...one)) },
  );
  keeper.set('a');
  const first = keeper.flush();
  await pause(10);
  keeper.set('ab');
  await first.catch(() => undefined);
  await keeper.flush();
  expect(house.held).toMatchObject({ value: 'ab', version: 5, saves: 2 });
});

test('a refusal is told and not tried for ever', async () => {
  let tries = 0;
  const keeper = new Keeper<string>(
    'words',
    { value: '', version: 0 },
    {
      save: async () => ((tries += 1), Promise.reject(problem(422))),
      load: async () => ({ value: '', version: 0 }),
    },
  );
  keeper.set('{wrong');
  await expect(keeper.flush()).rejects.toThrow('422');
  await pause(1200);
  expect([tries, keeper.snapshot().saveState]).toEqual([1, 'refused']);
});

test('what was not saved before somebody else signs in is never sent in their name, and stays with who typed it', async () => {
  const house = server();
  house.held.away = true;
  const keeper = open(house);
  keeper.set('mine');
  await keeper.flush().catch(() => undefined);
  keeper.end();
  house.held.away = false;
  await pause(1300);
  await expect(keeper.flush()).rejects.toThrow();
  expect([house.held.saves, house.held.value]).toEqual([0, 'old']);
  expect(open(house).snapshot().value).toBe('mine');
});
