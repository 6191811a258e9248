import sharp from 'sharp';
import type { ImageView, MessageView } from '@goodword/core/contract';
import { openTestHouse, type Client, type TestHouse } from '../testing/harness';
import { draftEmail } from '../testing/steps';

/*
 * The library says what still needs a picture, and keeps it for as long; what is on it is said once, and
 * letters keep their own words.
 */
let house: TestHouse;
let client: Client;
beforeAll(async () => {
  house = await openTestHouse();
  client = house.client;
});
afterAll(() => house.close());

async function added(name: string): Promise<number> {
  const bytes = await sharp({ create: { width: 400, height: 200, channels: 3, background: '#0F766B' } })
    .jpeg()
    .toBuffer();
  const form = new FormData();
  form.append('alt', 'A boat');
  form.append('file', new Blob([new Uint8Array(bytes)]), name);
  return (await client.post<{ id: number }>('/api/images', form)).id;
}
const shown = async (id: number) =>
  (await client.get<ImageView[]>('/api/images')).find((one) => one.id === id);
const remove = (id: number) => client.call('DELETE', `/api/images/${id}`);

test('a picture is deleted when nothing needs it any more, with all its sizes', async () => {
  const id = await added('boat.jpg');
  const letter = { type: 'doc', content: [{ type: 'image', attrs: { src: `/media/${id}`, alt: 'A boat' } }] };
  const message = await draftEmail(client, {}, { letter });
  const { id: template } = await client.post<{ id: number }>('/api/templates', {
    ...{ name: 'Boats', folder: '', channel: 'email', purpose: 'news', listId: null, note: '' },
    from: { messageId: message },
  });
  await fetch(`${client.base}/media/${id}/100`);
  expect((await shown(id))?.usedBy.sort()).toEqual(['A letter', 'Boats']);
  const refused = await remove(id);
  expect([refused.status, JSON.stringify(refused.body)]).toEqual([409, expect.stringContaining('Boats')]);
  await client.call('DELETE', `/api/messages/${message}`);
  expect((await remove(id)).status).toBe(409);
  await client.call('DELETE', `/api/templates/${template}`);
  expect((await remove(id)).status).toBe(204);
  expect(await shown(id)).toBeUndefined();
  expect((await fetch(`${client.base}/media/${id}`)).status).toBe(404);
  expect((await fetch(`${client.base}/media/${id}/100`)).status).toBe(404);
});

test('what is on it and where it lies is changed, of two at once by one; letters keep their words', async () => {
  const id = await added('mast.jpg');
  const letter = { type: 'doc', content: [{ type: 'image', attrs: { src: `/media/${id}`, alt: 'A boat' } }] };
  const message = await draftEmail(client, {}, { letter });
  const was = { name: 'mast.jpg', alt: 'A boat', folder: '' };
  const now = { name: 'The mast', alt: 'A mast of oak', folder: 'Hull' };
  const both = await Promise.all([
    client.call('PUT', `/api/images/${id}`, { ...now, was }),
    client.call('PUT', `/api/images/${id}`, { ...now, folder: 'Boats', was }),
  ]);
  expect(both.map(({ status }) => status).sort()).toEqual([204, 409]);
  expect(await shown(id)).toMatchObject({ name: 'The mast', alt: 'A mast of oak' });
  const { letter: kept } = await client.get<MessageView>(`/api/messages/${message}`);
  expect(JSON.stringify(kept)).toContain('A boat');
  const viewer = await house.as('viewer');
  expect((await viewer.call('DELETE', `/api/images/${id}`)).status).toBe(403);
});
