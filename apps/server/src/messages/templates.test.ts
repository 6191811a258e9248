import type {
  CheckedWords,
  MessageView,
  Preview,
  StarterView,
  TemplateLine,
  TemplateUses,
  TemplateView,
} from '@goodword/core/contract';
import { letterOfText } from '@goodword/core/letter';
import { openTestHouse, type TestHouse, type Client } from '../testing/harness';
import { bringIn, draftEmail, messageAt, send } from '../testing/steps';
import { personBy } from '../testing/supporter';

/*
 * Templates are words that are kept. What they promise: found by typing, used in messages that remember where
 * they came from, and no message changes with them; team ones and one's own.
 */
let house: TestHouse;
let writer: Client;
let organizer: Client;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  await bringIn(house.client, 'Email,First,Last,Mobile\nada@example.org,Ada,Lin,\n');
  [writer, organizer] = [await house.as('writer'), await house.as('organizer')];
});
afterAll(() => house.close());

const ABOUT = { folder: '', channel: 'email', purpose: 'appeals', listId: null, note: '' } as const;
const words = (subject: string, text: string) => ({
  subject,
  preheader: '',
  letter: letterOfText(text),
  text: '',
});
const make = async (client: Client, name: string, more: object = {}) =>
  (await client.post<{ id: number }>('/api/templates', { ...ABOUT, name, ...more })).id;
const shown = (client: Client, id: number) => client.get<TemplateView>(`/api/templates/${id}`);
const names = async (client: Client, query = '') =>
  (await client.get<TemplateLine[]>(`/api/templates?${query}`)).map(({ name }) => name);
const stand = (client: Client, id: number, wanted: object, was: object) =>
  client.call('PUT', `/api/templates/${id}/standing`, { ...wanted, was });

test("a writer's own is their own until an organizer says that it is the team's", async () => {
  const id = await make(writer, 'Mine', { from: words('Oak', 'For {First name, or "you"}') });
  const viewer = await house.as('viewer');
  expect(await names(writer)).toContain('Mine');
  expect(await names(viewer)).not.toContain('Mine');
  expect((await viewer.call('GET', `/api/templates/${id}`)).status).toBe(404);
  const now = { isTeam: false, archived: false };
  expect((await stand(writer, id, { isTeam: true, archived: false }, now)).status).toBe(403);
  expect((await stand(organizer, id, { isTeam: true, archived: false }, now)).status).toBe(204);
  expect((await stand(organizer, id, { isTeam: true, archived: true }, now)).status).toBe(409);
  expect(await names(viewer)).toContain('Mine');
  const { version, mayChange } = await shown(writer, id);
  expect(mayChange).toBe(false);
  const saved = {
    ...words('Pine', 'x'),
    name: 'Mine',
    folder: '',
    purpose: 'appeals',
    listId: null,
    note: '',
  };
  expect((await writer.call('PUT', `/api/templates/${id}`, { ...saved, basedOn: version })).status).toBe(403);
  expect((await writer.call('DELETE', `/api/templates/${id}`)).status).toBe(403);
  // One of their own of it is theirs to change.
  const copy = await make(writer, 'Mine, changed', { from: { templateId: id } });
  expect(await shown(writer, copy)).toMatchObject({ subject: 'Oak', mayChange: true, isOwn: true });
});

test('a message remembers the template and the version, and a change of the template changes no message', async () => {
  const id = await make(organizer, 'Planks', { from: words('Oak planks', 'They cost 40') });
  const { id: made } = await organizer.post<{ id: number }>('/api/messages', {
    name: 'For the hull',
    channel: 'email',
    purpose: 'news',
    from: { templateId: id },
  });
  const message = () => house.client.get<MessageView>(`/api/messages/${made}`);
  expect(await message()).toMatchObject({
    subject: 'Oak planks',
    purpose: 'news',
    template: { id, version: 1, name: 'Planks' },
  });
  const about = { name: 'Planks', folder: 'Hull', purpose: 'appeals', listId: null, note: 'In winter' };
  const saved = await organizer.put<CheckedWords & { version: number }>(`/api/templates/${id}`, {
    ...about,
    ...words('Pine planks', 'For {Frist name}'),
    basedOn: 1,
  });
  expect(saved.version).toBe(2);
  expect(saved.faults.map(({ suggestion }) => suggestion)).toEqual(['First name']);
  expect(await message()).toMatchObject({ subject: 'Oak planks', template: { version: 1 } });
  const late = await organizer.call('PUT', `/api/templates/${id}`, {
    ...about,
    ...words('x', 'y'),
    basedOn: 1,
  });
  expect(late.status).toBe(409);
  expect((await shown(organizer, id)).subject).toBe('Pine planks');

  expect(await organizer.get<TemplateUses>(`/api/templates/${id}/uses`)).toEqual({
    open: [{ id: made, name: 'For the hull' }],
    gone: 0,
  });
  expect((await organizer.call('DELETE', `/api/templates/${id}`)).status).toBe(204);
  expect(await message()).toMatchObject({
    subject: 'Oak planks',
    template: { id, version: 1, name: null },
  });
});

test('made from a message that was sent, and counted by what comes from it, to one person too', async () => {
  const { id: ada } = await personBy(house.client, 'ada@example.org');
  const sent = await draftEmail(
    house.client,
    { from: [{ kind: 'person', id: ada }] },
    { letter: letterOfText('Thank you, {First name, or "friend"}') },
  );
  await send(house.client, sent);
  await messageAt(house.client, sent, 'done');
  const id = await make(organizer, 'Thanks kept', { from: { messageId: sent } });
  expect(JSON.stringify((await shown(organizer, id)).letter)).toContain('Thank you');
  const preview = await organizer.get<Preview>(`/api/templates/${id}/preview?supporterId=${ada}`);
  expect(preview.text).toContain('Thank you, Ada');
  await organizer.post(`/api/supporters/${ada}/messages`, {
    channel: 'email',
    purpose: 'appeals',
    subject: 'Once more',
    letter: letterOfText('Thank you again'),
    text: '',
    templateId: id,
  });
  expect(await shown(organizer, id)).toMatchObject({ uses: 1 });
  expect((await organizer.get<TemplateUses>(`/api/templates/${id}/uses`)).open).toEqual([]);
  expect((await names(organizer))[0]).toBe('Thanks kept');
});

test('found by what is typed, for one channel, and archived ones apart', async () => {
  await make(organizer, 'Harbour text', { channel: 'text', from: { starter: 'winter-appeal' } });
  const id = await make(organizer, 'Mast letter', { note: 'Before the regatta' });
  expect(await names(organizer, 'search=regat')).toEqual(['Mast letter']);
  expect(await names(organizer, 'search=harb&channel=email')).toEqual([]);
  expect(await names(organizer, 'search=harb&channel=text')).toEqual(['Harbour text']);
  const was = { isTeam: false, archived: false };
  await stand(organizer, id, { isTeam: false, archived: true }, was);
  expect(await names(organizer, 'search=mast')).toEqual([]);
  expect(await names(organizer, 'search=mast&archived=true')).toEqual(['Mast letter']);
  const { version } = await shown(organizer, id);
  const late = { ...words('x', 'y'), name: 'Mast', folder: '', purpose: 'news', listId: null, note: '' };
  expect((await organizer.call('PUT', `/api/templates/${id}`, { ...late, basedOn: version })).status).toBe(
    409,
  );
});

test('a starter has blanks, and nothing leaves while one is open', async () => {
  const starters = await writer.get<StarterView[]>('/api/starters');
  expect(starters.length).toBe(12);
  const { id } = await writer.post<{ id: number }>('/api/messages', {
    name: 'Welcome them',
    channel: 'email',
    purpose: 'news',
    from: { starter: 'welcome' },
  });
  const { faults } = await writer.get<CheckedWords>(`/api/messages/${id}/faults`);
  expect(faults.filter(({ message }) => message.startsWith('Fill in the blank')).length).toBe(3);
  const wrong = await writer.call('POST', '/api/messages', {
    name: 'x',
    channel: 'text',
    purpose: 'news',
    from: { starter: 'update' },
  });
  expect([wrong.status, JSON.stringify(wrong.body)]).toEqual([422, expect.stringContaining('no starter')]);
});

test('what a teammate wrote for themselves goes to whoever goes on with their work', async () => {
  const mates = await house.client.get<{ id: number; name: string }[]>('/api/session/teammates');
  const of = (word: string) => mates.find(({ name }) => name.toLowerCase().includes(word))!.id;
  const id = await make(writer, 'Left behind');
  await house.client.post(`/api/team/${of('writer')}/take-out`, { handTo: of('organizer') });
  expect(await shown(organizer, id)).toMatchObject({ isOwn: true });
});
