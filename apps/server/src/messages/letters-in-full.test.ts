import { HtmlValidate } from 'html-validate';
import { simpleParser, type ParsedMail } from 'mailparser';
import sharp from 'sharp';
import type { MessageView, Preview } from '@goodword/core/contract';
import { USUAL_STYLE, type HouseStyle, type LetterDoc } from '@goodword/core/letter';
import { openTestHouse, type Client, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, draftText, lastLook, messageAt, resultsOf, send } from '../testing/steps';
import { personBy } from '../testing/supporter';

/*
 * What a letter can hold, as it leaves by SMTP: passages for some people, amounts by what they gave, links
 * that know who follows them, the sender's signature with a picture, the looks of the house. Each person
 * reads what is for them and nothing of the others.
 */
let house: TestHouse;
let client: Client;
let crew: number;
let ann: number;
let bo: number;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  client = house.client;
  await bringIn(
    client,
    'Email,First,Last,Mobile\nann@example.org,Ann,O’Hara,206 555 0101\nbo@example.org,Bo,,206 555 0102\n',
  );
  [ann, bo] = [(await personBy(client, 'ann@example.org')).id, (await personBy(client, 'bo@example.org')).id];
  crew = (await client.post<{ id: number }>('/api/tags', { name: 'Deck crew' })).id;
  await client.put(`/api/supporters/${ann}/tags/${crew}`);
  const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
  await client.post(`/api/supporters/${ann}/gifts`, { amount: 8000, on: yesterday });
});
afterAll(() => house.close());

const text = (words: string, ...marks: object[]) => ({ type: 'text', text: words, marks });
const paragraph = (words: string, ...marks: object[]) => ({
  type: 'paragraph',
  content: [text(words, ...marks)],
});
const doc = (...content: object[]) => ({ type: 'doc', version: 2, content }) as LetterDoc;
const link = (href: string) => ({ type: 'link', attrs: { href } });
const forCrew = (fitting: object, otherwise: object) => ({
  type: 'personal',
  attrs: { tree: { kind: 'tag', tagId: crew, has: true } },
  content: [
    { type: 'fitting', content: [fitting] },
    { type: 'otherwise', content: [otherwise] },
  ],
});
const everybody = () => ({ from: [ann, bo].map((id) => ({ kind: 'person' as const, id })) });
const mailTo = async (address: string): Promise<ParsedMail> =>
  simpleParser(house.sink.mails.filter(({ to }) => to === address).at(-1)!.raw);
const LETTER = () =>
  doc(
    paragraph('Dear {First name}, since {Last gift: date, as year, or "long ago"}'),
    forCrew(paragraph('Boots on!', link('https://ferry.test/crew')), paragraph('Come and see.')),
    { type: 'gifts', attrs: { href: 'https://give.test/hull' } },
    paragraph('Yours', link('https://ferry.test/you?name={Last name, or "friend"}&x=1')),
    { type: 'signature' },
  );
const sent = async (letter: LetterDoc, subject = 'Hello') => {
  const id = await draftEmail(client, everybody(), { letter, subject });
  await send(client, id);
  await messageAt(client, id, 'done');
  return id;
};

test('each reads their own passage, amounts and links, in the HTML and in the plain text', async () => {
  const { id: pictureId } = await client.post<{ id: number }>('/api/images', await picture(600));
  const me = await client.get<Record<string, unknown>>('/api/me');
  const { email: _email, ...was } = me;
  await client.put('/api/me', { ...was, signature: 'Rosa\nFerry keeper', pictureId, was });
  await sent(LETTER());
  const [toAnn, toBo] = [await mailTo('ann@example.org'), await mailTo('bo@example.org')];
  const year = new Date(Date.now() - 86_400_000).getUTCFullYear();
  expect(toAnn.text).toContain(`Dear Ann, since ${year}`);
  expect(toAnn.text).toContain('Boots on! [1]');
  expect(toBo.text).toContain('Dear Bo, since long ago');
  expect(toBo.text).toContain('Come and see.');
  for (const mail of [toBo.text!, String(toBo.html)]) {
    expect(mail).not.toContain('Boots');
    expect(mail).not.toMatch(/\[1\] /);
  }
  // Half, the same and twice what she gave; the usual amounts for who gave nothing.
  expect(toAnn.text).toMatch(/\$40 \[2\]\n\n\$80 \[3\]\n\n\$160 \[4\]/);
  expect(toBo.text).toMatch(/\$25 \[2\]\n\n\$50 \[3\]\n\n\$100 \[4\]/);
  for (const mail of [toAnn, toBo]) {
    expect(mail.text).toContain('Rosa\nFerry keeper');
    expect(mail.html).toContain('Rosa<br>Ferry keeper');
    expect(mail.html).toContain(`/media/${pictureId}/200"`);
  }
});

test('a link with a field in it leads each to their own page, by way of the count', async () => {
  const id = await sent(LETTER(), 'Links');
  const follow = async (mail: ParsedMail, which: RegExp) => {
    const path = new URL(which.exec(mail.text!)![1]!).pathname;
    const answer = await fetch(`${client.base}${path}`, { redirect: 'manual' });
    return answer.headers.get('location');
  };
  const [toAnn, toBo] = [await mailTo('ann@example.org'), await mailTo('bo@example.org')];
  // A name is a part of the address, whatever is in it.
  expect(await follow(toAnn, /\[5\] (\S+)/)).toBe('https://ferry.test/you?name=O%E2%80%99Hara&x=1');
  expect(await follow(toBo, /\[5\] (\S+)/)).toBe('https://ferry.test/you?name=friend&x=1');
  expect(await follow(toAnn, /\[3\] (\S+)/)).toBe('https://give.test/hull?amount=80');
  expect(await follow(toBo, /\[4\] (\S+)/)).toBe('https://give.test/hull?amount=100');
  expect((await resultsOf(client, id)).counts.clicked).toBe(2);
});

test('letters look as the house says, and what leaves is sound HTML', async () => {
  const was = await client.get<HouseStyle>('/api/organization/style');
  expect(was).toEqual(USUAL_STYLE);
  const faint = await client.call('PUT', '/api/organization/style', {
    style: { ...was, accent: '#7FD1C7' },
    was,
  });
  expect([faint.status, JSON.stringify(faint.body)]).toEqual([422, expect.stringContaining('4.5:1')]);
  const style = {
    ...was,
    main: '#0F766B',
    accent: '#8A1F3D',
    face: 'plain',
    width: 560,
    footer: { en: 'No. 12' },
  };
  await client.put('/api/organization/style', { style, was });
  const late = await client.call('PUT', '/api/organization/style', { style: was, was });
  expect(late.status).toBe(409);
  await sent(LETTER(), 'Looks');
  const { html } = await mailTo('ann@example.org');
  for (const piece of ['bgcolor="#0F766B"', 'color:#8A1F3D', 'width="560"', 'No. 12', 'Arial,Helvetica'])
    expect(html).toContain(piece);
  const validator = new HtmlValidate({
    extends: ['html-validate:standard'],
    // Mail programs know attributes and styles of an older HTML, and no sheet of styles.
    rules: {
      'no-inline-style': 'off',
      'no-deprecated-attr': 'off',
      'long-title': 'off',
      'doctype-style': 'off',
      'no-implicit-button-type': 'off',
      'void-style': 'off',
      'no-trailing-whitespace': 'off',
      'attribute-allowed-values': 'off',
      'attr-quotes': 'off',
    },
  });
  const report = await validator.validateString(String(html));
  expect(
    report.results.flatMap(({ messages }) => messages.map(({ ruleId, message }) => [ruleId, message])),
  ).toEqual([]);
});

test('a passage in a text is for a segment by its name, and what is out of order is told before it leaves', async () => {
  await client.post('/api/segments', { name: 'The crew', tree: { kind: 'tag', tagId: crew, has: true } });
  const id = await draftText(
    client,
    everybody(),
    'Lantern Ferry Trust: {For the crew}boots, {First name}{Otherwise}come along{End}! {Ask: first}? STOP ends it.',
  );
  await send(client, id);
  await messageAt(client, id, 'done');
  const texts = house.gateway.texts.filter(({ text: body }) => body.includes('STOP ends it'));
  expect(
    texts
      .map(({ text: body }) => body)
      .filter((body) => !body.startsWith('Test'))
      .slice(-2)
      .sort(),
  ).toEqual([
    'Lantern Ferry Trust: boots, Ann! $40? STOP ends it.',
    'Lantern Ferry Trust: come along! $25? STOP ends it.',
  ]);
  const waiting = await draftText(client, everybody(), '{For the crew}boots{End}');
  const segments = await client.get<{ id: number; name: string }[]>('/api/segments');
  const { id: segmentId } = segments.find(({ name }) => name === 'The crew')!;
  const tree = { kind: 'tag', tagId: crew, has: true };
  const rename = (name: string) =>
    client.call('PUT', `/api/segments/${segmentId}`, { name, tree, basedOn: 0 });
  // A name that a waiting message goes by stays, and so does the segment.
  const renamed = await rename('Sailors');
  expect([renamed.status, JSON.stringify(renamed.body)]).toEqual([409, expect.stringContaining('A text')]);
  expect((await client.call('DELETE', `/api/segments/${segmentId}`)).status).toBe(409);
  expect((await rename('THE CREW')).status).toBe(200);
  await client.call('DELETE', `/api/messages/${waiting}`);
  const wrong = await draftText(client, everybody(), '{For the crow}boots{End}');
  const { faults } = await lastLook(client, wrong);
  expect(faults.map(({ message }) => message)).toEqual([
    'There is no segment “the crow”. The nearest is “THE CREW”.',
  ]);
});

test('a sentence that says nobody, or something gone, is refused when it is saved', async () => {
  const id = await draftEmail(client, everybody());
  const { version, ...message } = await client.get<MessageView>(`/api/messages/${id}`);
  const save = (letter: object) =>
    client.call('PUT', `/api/messages/${id}`, {
      ...{ name: message.name, purpose: 'appeals', listId: null, subject: 'x', preheader: '', text: '' },
      letter,
      basedOn: version,
    });
  const personal = (tree: object) => ({
    type: 'personal',
    attrs: { tree },
    content: [{ type: 'fitting' }, { type: 'otherwise' }],
  });
  const odd = await save(doc(personal({ kind: 'stars', at: 3 })));
  expect([odd.status, JSON.stringify(odd.body)]).toEqual([422, expect.stringContaining('Choose anew')]);
  expect((await save(doc(personal({ kind: 'tag', tagId: 999_999, has: true })))).status).toBe(422);
  // A tag that a passage asks for can't go while the message waits.
  const { id: tag } = await client.post<{ id: number }>('/api/tags', { name: 'Rowers' });
  expect((await save(doc(personal({ kind: 'tag', tagId: tag, has: true })))).status).toBe(200);
  const gone = await client.call('DELETE', `/api/tags/${tag}`);
  expect([gone.status, JSON.stringify(gone.body)]).toEqual([409, expect.stringContaining('A letter')]);
});

test('a service message that has amounts to give in it asks, whatever its words say', async () => {
  const gifts = { type: 'gifts', attrs: { href: 'https://give.test/hull' } };
  const asked = async (letter: LetterDoc) => {
    const id = await draftEmail(client, everybody(), { purpose: 'service', letter });
    return (await lastLook(client, id)).asks;
  };
  expect(await asked(doc(paragraph('Your crossing is on Friday.')))).toEqual([]);
  expect(await asked(doc(paragraph('Your crossing is on Friday.'), gifts))).toEqual(['amounts to give']);
  expect(await asked(doc(forCrew(paragraph('Would {Ask: first} do?'), paragraph('Hello'))))).toContain(
    'amounts to give',
  );
});

test('a message in another language has its dates, amounts and way out in it', async () => {
  const id = await draftEmail(client, everybody(), { letter: LETTER() });
  const { version } = await client.get<MessageView>(`/api/messages/${id}`);
  await client.put(`/api/messages/${id}`, {
    ...{ name: 'Auf Deutsch', purpose: 'appeals', listId: null, preheader: '', text: '' },
    subject: 'Seit {Last gift: date, as day and month, or "je"}',
    letter: LETTER(),
    locale: 'de-DE',
    ask: {
      ...{ shares: [1, 2, 3], of: 'largest', months: null, friendly: false, least: 100, most: 20_000 },
      otherwise: [1000, 2000, 3000],
    },
    basedOn: version,
  });
  const [forAnn, forBo] = [
    await client.get<Preview>(`/api/messages/${id}/preview?supporterId=${ann}`),
    await client.get<Preview>(`/api/messages/${id}/preview?supporterId=${bo}`),
  ];
  expect(forAnn.html).toContain('<html lang="de-DE"');
  expect(forAnn.text).toContain('Abbestellen oder wählen');
  expect(forAnn.text.replace(/\u00a0/g, ' ')).toContain('80 $ [2]\n\n160 $ [3]\n\n200 $ [4]');
  expect(forBo.text.replace(/\u00a0/g, ' ')).toContain('10 $ [2]\n\n20 $ [3]\n\n30 $ [4]');
  expect(forBo.subject).toBe('Seit je');
  expect(forAnn.subject).toMatch(/^Seit \d{1,2}\. \p{L}+$/u);
});

async function picture(width: number): Promise<FormData> {
  const bytes = await sharp({ create: { width, height: width / 2, channels: 3, background: '#0F766B' } })
    .jpeg()
    .toBuffer();
  const form = new FormData();
  form.append('alt', 'A boat');
  form.append('file', new Blob([new Uint8Array(bytes)]), 'boat.jpg');
  return form;
}

test('a picture is had in steps of sizes, each made once, and in no others', async () => {
  const { id } = await client.post<{ id: number }>('/api/images', await picture(1200));
  const widthOf = async (path: string) => {
    const answer = await fetch(`${client.base}/media/${id}${path}`);
    return answer.ok
      ? (await sharp(Buffer.from(await answer.arrayBuffer())).metadata()).width
      : answer.status;
  };
  expect(await Promise.all([widthOf(''), widthOf('/300'), widthOf('/300'), widthOf('/1200')])).toEqual([
    1200, 300, 300, 1200,
  ]);
  expect(await Promise.all([widthOf('/301'), widthOf('/0'), widthOf('/5000'), widthOf('/x')])).toEqual([
    422, 422, 422, 422,
  ]);
});
