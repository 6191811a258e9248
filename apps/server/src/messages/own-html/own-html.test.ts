import { zipSync } from 'fflate';
import { simpleParser } from 'mailparser';
import sharp from 'sharp';
import type { ImageView, LastLook } from '@goodword/core/contract';
import type { LetterDoc } from '@goodword/core/letter';
import { openTestHouse, type TestHouse } from '../../testing/harness';
import { bringIn, draftEmail, lastLook, messageAt, send } from '../../testing/steps';
import { cleanedPage } from './cleaned-page';

/*
 * A page of HTML that was made elsewhere is mailed as it looks: clean, its pictures from the library, its
 * fields filled, its links counted, and with the way out and the address that it lacks.
 */
let house: TestHouse;
let group: { from: { kind: 'batch'; id: number }[] };
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  picturePng = await sharp({ create: { width: 300, height: 120, channels: 3, background: '#8a5a2b' } })
    .png()
    .toBuffer();
  const csv = 'Email,First,Last,Mobile\nann@example.org,Ann <b>& Co</b>,Li,\nbo@example.org,,Lin,\n';
  group = { from: [{ kind: 'batch', id: (await bringIn(house.client, csv)).id }] };
});
afterAll(() => house.close());

let picturePng: Buffer;
const PAGE = `<!DOCTYPE html><html><head><title>Planks</title><style>
  h1 { color: #00796b; font-family: Georgia, serif } .pad { padding: 12px }
  @media (max-width: 600px) { .pad { padding: 4px !important } }
</style></head><body bgcolor="#eeeeee" style="margin:0">
<table class="pad" width="600" align="center"><tr><td>
  <h1>Planks for {First name, or "you"}</h1>
  <p title="For {Last name}">The oak is <b>in</b>. <a href="https://planks.example/?n={First name}">See it</a></p>
  <img src="pictures/oak%20plank.png" alt="A plank of {Organization: name}" width="200">
  <img src="https://far.example/logo.png" alt="Logo">
  <script>alert(1)</script>
</td></tr></table></body></html>`;

async function brought(bytes: Uint8Array, name: string) {
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(bytes)]), name);
  return house.client.call<LetterDoc>('POST', '/api/own-html', form);
}

async function sentHtml(letter: LetterDoc, subject: string): Promise<{ html: string; text: string }> {
  const id = await draftEmail(house.client, group, { subject, letter });
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  const { raw } = house.sink.mails.find(
    (mail) => mail.to === 'ann@example.org' && mail.raw.includes(`Subject: ${subject}`),
  )!;
  const { html, text } = await simpleParser(raw);
  return { html: String(html), text: String(text) };
}

test('a zip of a page and its pictures: as it looks, with what it lacks added and what was taken out told', async () => {
  const { status, body: letter } = await brought(
    zipSync({ 'campaign/index.html': Buffer.from(PAGE), 'campaign/pictures/oak plank.png': picturePng }),
    'campaign.zip',
  );
  expect(status).toBe(200);
  expect(letter.own!.told).toEqual([
    '1 picture lies in the picture library now.',
    '1 element that does or fetches something was taken out.',
    '1 picture was taken out: they lie elsewhere, or can’t be shown. Bring them in within a zip file, beside the page.',
  ]);
  const [picture] = await house.client.get<ImageView[]>('/api/images');
  expect(picture).toMatchObject({ name: 'oak plank.png', alt: 'A plank of {Organization: name}' });
  const { html, text } = await sentHtml(letter, 'Planks by page');
  // Styles at their elements, queries of the screen kept, the body's look with it.
  expect(html).toMatch(/<h1 style="[^"]*color:\s?#00796b/);
  expect(html).toContain('@media (max-width: 600px)');
  expect(html).toMatch(/<div[^>]*bgcolor="#eeeeee"/);
  // Values can be no markup, in words as in attributes.
  expect(html).toContain('Planks for Ann &#60;b&#62;&#38; Co&#60;/b&#62;');
  expect(html).toContain('title="For Li"');
  expect(html).toContain('alt="A plank of Lantern Ferry Trust"');
  expect(html).toMatch(new RegExp(`src="${house.config.PUBLIC_URL}/media/${picture!.id}`));
  expect(html).not.toMatch(/far\.example|<script|alert/);
  // The link is counted, the way out and the address are there, and who opens it is seen.
  expect(html).toMatch(/href="[^"]*\/f\/[^"]*"[^>]*>See it/);
  expect(html).toMatch(/href="[^"]*\/leave\//);
  expect(html).toContain('1 Slip Lane, Port Alder');
  expect(html).toMatch(/\/o\/[^"]+\.gif/);
  // The plain text is of the same words.
  expect(text).toContain('Planks for Ann <b>& Co</b>');
  expect(text).toMatch(/The oak is in\. See it \[1\]/);
  expect(text).toMatch(/\[1\]:? http/);
});

test('what a page brings itself is not added a second time', async () => {
  const page =
    '<p>Hello</p><p>{Organization: name}, {Organization: postal address}</p><a href="{Link: preferences}">Choose</a>';
  const { body: letter } = await brought(Buffer.from(page), 'page.html');
  const { html } = await sentHtml(letter, 'Own footer');
  expect(html.match(/\/leave\//g)).toHaveLength(1);
  expect(html.match(/1 Slip Lane/g)).toHaveLength(1);
});

test('faults of fields are found in it, and holes are counted', async () => {
  const { body: letter } = await brought(
    Buffer.from('<p>Dear {Frist name} and {First name}</p>'),
    'page.html',
  );
  const id = await draftEmail(house.client, group, { subject: 'Faults', letter });
  const look = await lastLook(house.client, id);
  expect(look.faults.map(({ suggestion }) => suggestion)).toEqual(['First name']);
  expect(look.holes).toEqual([{ name: 'First name', people: 1 }]);
});

test('a page that was tampered with on its way back is refused', async () => {
  const { body: letter } = await brought(Buffer.from('<p>Hello</p>'), 'page.html');
  const save = async (doc: object) => {
    const id = await draftEmail(house.client, group, { subject: 'Tampered' });
    const { version } = await house.client.get<LastLook & { version: number }>(`/api/messages/${id}`);
    const words = { name: 'x', purpose: 'appeals', listId: null, subject: 's', preheader: '', text: '' };
    return house.client.call('PUT', `/api/messages/${id}`, { ...words, letter: doc, basedOn: version });
  };
  const { own } = letter;
  expect((await save({ ...letter, own: { ...own, html: '<p>Hello</p><script>1</script>' } })).status).toBe(
    422,
  );
  expect((await save({ ...letter, content: [{ type: 'paragraph', content: [] }] })).status).toBe(422);
  expect((await save(letter)).status).toBe(200);
});

test.each([
  ['a text', Buffer.from('just words'), 'no page of HTML'],
  ['nothing', Buffer.from(''), 'no page of HTML'],
  ['a zip without a page', zipSync({ 'a.txt': Buffer.from('a') }), 'holds no page'],
  ['a zip that is broken', Buffer.from('PK\u0003\u0004 and no more'), 'can’t be opened'],
  ['a zip that unpacks to far more', zipSync({ 'a.html': Buffer.alloc(13_000_000, 'a') }), 'more than 60 MB'],
  ['a page of nothing', Buffer.from('<script>alert(1)</script>'), 'nothing to read'],
  ['a page too large', Buffer.from(`<p>${'a'.repeat(400_001)}</p>`), 'larger than'],
])('%s is told as such', async (_what, bytes, words) => {
  const { status, body } = await brought(bytes, 'file');
  expect([status, JSON.stringify(body)]).toEqual([422, expect.stringContaining(words)]);
});

test('a page that takes for ever is given up', async () => {
  const rules = Array.from(
    { length: 4000 },
    (_none, i) => `div div div div:nth-child(${i}) > div * { color: red }`,
  );
  const page = `<style>${rules.join('')}</style>${'<div>'.repeat(2000)}x`;
  expect(await cleanedPage(page, 300)).toBeNull();
});
