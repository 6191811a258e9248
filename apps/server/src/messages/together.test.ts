import type { MessageView, TodayView, WordNoteView } from '@goodword/core/contract';
import { openTestHouse, type Client, type TestHouse } from '../testing/harness';
import { bringIn, draftText, lastLook } from '../testing/steps';

/*
 * A writer's draft waits for a go; what was agreed to is fixed by its version. Notes stand beside the words,
 * are answered and settled, and no supporter sees one.
 */
let house: TestHouse;
let [owner, writer, organizer, viewer]: Client[] = [];
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  owner = house.client;
  [writer, organizer, viewer] = [
    await house.as('writer'),
    await house.as('organizer'),
    await house.as('viewer'),
  ];
  await bringIn(owner, 'Email,First,Last,Mobile\nann@example.org,Ann,Li,206 555 0101\n');
});
afterAll(() => house.close());

const view = (id: number) => owner!.get<MessageView>(`/api/messages/${id}`);
const say = async (who: Client, id: number, act: string, note = '', version?: number) =>
  (
    await who.call('POST', `/api/messages/${id}/go`, {
      do: act,
      note,
      version: version ?? (await view(id)).version,
    })
  ).status;
const everybody = async () => {
  const { rows } = await owner!.get<{ rows: { id: number }[] }>('/api/supporters');
  return { from: rows.map(({ id }) => ({ kind: 'person' as const, id })) };
};
const about = { name: 'A text', purpose: 'appeals', listId: null, subject: '', preheader: '', letter: null };
const rewrite = async (who: Client, id: number, text: string) =>
  who.put(`/api/messages/${id}`, { ...about, text, basedOn: (await view(id)).version });

test('handed over, sent back, handed over again, agreed to; what is changed after that has no go', async () => {
  const id = await draftText(owner!, await everybody(), 'Boots on Saturday');
  expect(await say(writer!, id, 'ask', 'The day is right?')).toBe(204);
  const { goes } = await organizer!.get<TodayView>('/api/today');
  expect(goes).toMatchObject([{ id, note: 'The day is right?' }]);
  // Whoever asked isn't asked by their own page.
  expect((await writer!.get<TodayView>('/api/today')).goes).toEqual([]);
  expect([
    await say(writer!, id, 'agree'),
    await say(viewer!, id, 'agree'),
    await say(writer!, id, 'ask'),
  ]).toEqual([403, 403, 409]);
  await owner!.post(`/api/messages/${id}/test`);
  const send = async () => {
    const { digest } = await lastLook(owner!, id);
    return owner!.call<{ detail: string }>('POST', `/api/messages/${id}/send`, { at: null, digest });
  };
  expect((await send()).body.detail).toContain('handed over for a go');
  expect(await say(organizer!, id, 'back', 'It is Sunday.')).toBe(204);
  expect((await view(id)).go).toMatchObject({ state: 'back', note: 'It is Sunday.' });
  await rewrite(writer!, id, 'Boots on Sunday');
  expect(await say(writer!, id, 'ask')).toBe(204);
  // A go is for the words that were read, and for no others.
  const { version } = await view(id);
  await rewrite(writer!, id, 'Boots on Sunday!');
  expect(await say(organizer!, id, 'agree', '', version)).toBe(409);
  expect(await say(organizer!, id, 'agree')).toBe(204);
  expect((await view(id)).go).toMatchObject({ state: 'agreed', version: version + 1 });
  await rewrite(writer!, id, 'Boots on Sunday!!');
  await owner!.post(`/api/messages/${id}/test`);
  expect((await send()).status).toBe(409);
  expect([await say(writer!, id, 'ask'), await say(organizer!, id, 'agree')]).toEqual([204, 204]);
  expect((await send()).status).toBe(202);
  expect(await say(organizer!, id, 'back')).toBe(409);
});

test('who asked may take it back, and nobody gives a go to their own', async () => {
  const id = await draftText(organizer!, {}, 'Mine');
  expect(await say(organizer!, id, 'ask')).toBe(204);
  expect(await say(organizer!, id, 'agree')).toBe(403);
  expect(await say(writer!, id, 'withdraw')).toBe(403);
  expect(await say(organizer!, id, 'withdraw')).toBe(204);
  expect((await view(id)).go).toBeNull();
});

test('two organizers at once: one is told that it stands otherwise', async () => {
  const id = await draftText(owner!, {}, 'Twice');
  await say(writer!, id, 'ask');
  const { version } = await view(id);
  const both = await Promise.all([
    say(organizer!, id, 'agree', '', version),
    say(owner!, id, 'back', 'no', version),
  ]);
  expect(both.sort()).toEqual([204, 409]);
});

test('notes to a place are answered and settled, and an answer opens one again', async () => {
  const id = await draftText(owner!, {}, 'Boots on Saturday');
  const notes = () => viewer!.get<WordNoteView[]>(`/api/messages/${id}/notes`);
  const note = { quote: 'on Saturday', answersId: null, body: 'Sunday?' };
  const made = await organizer!.post<{ id: number }>(`/api/messages/${id}/notes`, note);
  await writer!.post(`/api/messages/${id}/notes`, { quote: '', answersId: made.id, body: 'Yes.' });
  expect(await notes()).toMatchObject([
    { quote: 'on Saturday', body: 'Sunday?', answers: [{ body: 'Yes.' }], settledAt: null },
  ]);
  await writer!.put(`/api/messages/${id}/notes/${made.id}`, { settled: true });
  expect((await notes())[0]!.settledBy).toContain('writer');
  await organizer!.post(`/api/messages/${id}/notes`, { quote: '', answersId: made.id, body: 'No!' });
  expect((await notes())[0]!.settledAt).toBeNull();
  expect((await viewer!.call('POST', `/api/messages/${id}/notes`, note)).status).toBe(403);
  // Of another message, or an answer to an answer: there is no such note.
  const other = await draftText(owner!, {}, 'Another');
  const answered = { quote: '', answersId: made.id, body: 'x' };
  expect((await writer!.call('POST', `/api/messages/${other}/notes`, answered)).status).toBe(404);
  expect(
    (await writer!.call('PUT', `/api/messages/${other}/notes/${made.id}`, { settled: true })).status,
  ).toBe(404);
  await owner!.call('DELETE', `/api/messages/${id}`);
  const left = await house.database.unscoped()('message_note').where({ message_id: id });
  expect(left).toEqual([]);
});
