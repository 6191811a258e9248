import type { TemplateView, WordVersion } from '@goodword/core/contract';
import { letterOfText } from '@goodword/core/letter';
import { openTestHouse, type Client, type TestHouse } from '../testing/harness';
import { draftText } from '../testing/steps';

/*
 * What was written before can be read and taken again: what one person wrote in one go is one version, what
 * another wrote is another, and the beginning is never lost.
 */
let house: TestHouse;
let owner: Client;
let writer: Client;
beforeAll(async () => {
  house = await openTestHouse();
  owner = house.client;
  writer = await house.as('writer');
});
afterAll(() => house.close());

const versions = (what: string) => owner.get<WordVersion[]>(`/api/${what}/versions`);
const about = { name: 'A text', purpose: 'appeals', listId: null, subject: '', preheader: '', letter: null };

test('of a message: by whom, in one go or in several, from the first word on', async () => {
  const id = await draftText(owner, {}, 'one');
  const save = (client: Client, text: string, basedOn: number) =>
    client.put<{ version: number }>(`/api/messages/${id}`, { ...about, text, basedOn });
  await save(owner, 'one two', 1);
  await save(writer, 'one two three', 2);
  await save(writer, 'one two three four', 3);
  await save(owner, 'five', 4);
  const all = await versions(`messages/${id}`);
  expect(all.map(({ words, by, version }) => [words.text, by, version])).toEqual([
    ['five', 'The owner', 5],
    ['one two three four', expect.stringContaining('writer'), 4],
    ['one two', 'The owner', 2],
    ['', null, 0],
  ]);
  // A pause begins a new one.
  await house.database
    .unscoped()('words_version')
    .update({ changed_at: new Date(Date.now() - 3_600_000) });
  await save(owner, 'six', 5);
  expect((await versions(`messages/${id}`)).map(({ words }) => words.text).slice(0, 2)).toEqual([
    'six',
    'five',
  ]);
  // Taken again by saving it.
  await save(owner, all[2]!.words.text, 6);
  expect((await versions(`messages/${id}`))[0]).toMatchObject({ version: 7, words: { text: 'one two' } });
  await owner.call('DELETE', `/api/messages/${id}`);
  expect((await owner.call('GET', `/api/messages/${id}/versions`)).status).toBe(404);
});

test('of very many the oldest go', async () => {
  const id = await draftText(owner, {}, 'zero');
  for (let at = 1; at <= 105; at++)
    await (at % 2 ? writer : owner).put(`/api/messages/${id}`, { ...about, text: `nr ${at}`, basedOn: at });
  const all = await versions(`messages/${id}`);
  expect([all.length, all[0]!.words.text, all.at(-1)!.words.text]).toEqual([100, 'nr 105', 'nr 6']);
  const [row] = (await house.database.unscoped()('words_version').where('of_id', id).count('* as n')) as [
    { n: number },
  ];
  expect(Number(row.n)).toBe(100);
});

test('of a template, for whoever may see it', async () => {
  const { id } = await owner.post<{ id: number }>('/api/templates', {
    ...{ name: 'Hull', folder: '', channel: 'email', purpose: 'appeals', listId: null, note: '' },
    from: { subject: 'Oak', preheader: '', letter: letterOfText('planks'), text: '' },
  });
  const { name, folder, purpose, listId, note } = await owner.get<TemplateView>(`/api/templates/${id}`);
  await owner.put(`/api/templates/${id}`, {
    ...{ name, folder, purpose, listId, note },
    ...{ subject: 'Pine', preheader: '', letter: letterOfText('boards'), text: '', basedOn: 1 },
  });
  const all = await versions(`templates/${id}`);
  expect(all.map(({ words, by }) => [words.subject, by])).toEqual([
    ['Pine', 'The owner'],
    ['Oak', 'The owner'],
  ]);
  expect((await writer.call('GET', `/api/templates/${id}/versions`)).status).toBe(404);
});
