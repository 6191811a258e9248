import type { CheckedWords, Page, Preview, SavedWords, SupporterRow } from '@goodword/core/contract';
import type { LetterDoc } from '@goodword/core/letter';
import { registryOf, slotsOf, STANDARD_NAMES } from '@goodword/core/merge';
import sharp from 'sharp';
import { openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, draftText, letterOf } from '../testing/steps';
import { composeEmail, composeText, filledText, mergeFaults, NO_END } from './composer';

const registry = registryOf(STANDARD_NAMES);
const around = {
  registry,
  organization: 'Lantern Ferry Trust',
  imprint: 'Lantern Ferry Trust, 14 Slip Lane',
  why: 'You asked for it.',
  leaveWords: 'Leave',
  language: 'en-US',
  picture: (src: string) => ({ url: () => `https://ferry.test${src}`, width: 800, height: 400 }),
};
const letter = (...content: object[]) => ({ type: 'doc', content }) as LetterDoc;
const paragraph = (text: string, marks: object[] = []) => ({
  type: 'paragraph',
  content: [{ type: 'text', text, marks }],
});

describe('composing an email', () => {
  const doc = letter(
    { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'Planks for {First name}' }] },
    paragraph('Come & see', [{ type: 'link', attrs: { href: 'https://ferry.test/a?b=1&c=2' } }]),
    { type: 'bulletList', content: [{ type: 'listItem', content: [paragraph('oak')] }] },
    { type: 'image', attrs: { src: '/media/3', alt: 'The hull' } },
  );
  const composed = composeEmail(
    { subject: 'For {First name,\tor "you"}', preheader: 'Soon', letter: doc },
    around,
  );
  const filled = filledText(
    composed,
    { firstName: 'Ann <3', leave: 'https://t.test/leave/y', pixel: 'https://t.test/o/z.gif' },
    ['https://t.test/f/x'],
  );

  test('fills every part: values escaped in HTML, as they are in the plain text', () => {
    expect(filled.html).toContain('Planks for Ann &#60;3');
    expect(filled.text).toContain('Planks for Ann <3');
    expect(filled.subject).toBe('For Ann <3');
  });

  test('makes a plain text, with links by number, lists, what is on pictures and the way out', () => {
    expect(filled.text).toContain('Come & see [1]');
    expect(filled.text).toContain('[1] https://t.test/f/x');
    expect(filled.text).toMatch(/\* oak/);
    expect(filled.text).toContain('(The hull)');
    expect(filled.text).toContain('Leave: https://t.test/leave/y');
  });

  test('puts the tracked links, the mark of an open and the way out in their places', () => {
    expect(filled.html).toContain('href="https://t.test/f/x"');
    expect(filled.html).toContain('<img src="https://t.test/o/z.gif" width="1" height="1" alt=""></body>');
    expect(filled.html).toContain('src="https://ferry.test/media/3"');
    expect(composed.links).toEqual(['https://ferry.test/a?b=1&c=2']);
  });

  test('a subject is one line, whatever a name holds', () => {
    expect(filledText(composed, { firstName: 'Ann\r\nBcc: all@example.org' }).subject).toBe(
      'For Ann Bcc: all@example.org',
    );
  });

  test('only what people fill counts as a hole', () => {
    expect(slotsOf({ parts: composed.own }).map((slot) => slot.name)).toEqual(['First name', 'First name']);
  });
});

test("a text keeps its characters: what costs is the writer's to decide", () => {
  const around = {
    ...{ registry, organization: 'Lantern Ferry Trust', locale: 'en-US' },
    ...{ linkUrl: 'https://go.example', shiftTables: [] },
  };
  const composed = composeText('Lantern Ferry: nine… {First name, or "you"}. STOP ends it.', around);
  expect(filledText(composed, {}).text).toBe('Lantern Ferry: nine… you. STOP ends it.');
  const bare = composeText('nine… {First name, or "you"}', around);
  expect(filledText(bare, {}).text).toBe('Lantern Ferry Trust: nine… you Reply STOP to end.');
  expect(filledText(bare, { [NO_END]: '1' }).text).toBe('Lantern Ferry Trust: nine… you');
});

test('faults are found in the subject, the letter, its buttons and the text', () => {
  const doc = letter(
    paragraph('{Nmae}'),
    { type: 'button', attrs: { href: 'https://x.test', label: '{Emial}' } },
    { type: 'image', attrs: { src: '/i/1.png', alt: '{Frist name}' } },
    { type: 'button', attrs: { href: 'https://x.test/{Frist name}', label: 'Go' } },
  );
  const found = mergeFaults(
    { subject: '{Frist name}', preheader: '{Lsat name}', letter: doc, text: '{x' },
    registry,
  );
  expect(found.map(({ where, excerpt, fault }) => [where, excerpt, fault.suggestion])).toEqual([
    ['subject', '{Frist name}', 'First name'],
    ['preheader', '{Lsat name}', 'Last name'],
    ['text', '{', null],
    ['letter', '{Nmae}', null],
    ['letter', '{Emial}', 'Email'],
    ['letter', '{Frist name}', 'First name'],
    ['letter', '{Frist name}', 'First name'],
  ]);
});

describe('over the API', () => {
  let house: TestHouse;
  beforeAll(async () => {
    house = await openTestHouse();
    house.startWorker();
    await bringIn(
      house.client,
      'Email,First,Last,Mobile\nann@example.org,Ann,Reyes,206 555 0101\nnameless@example.org,,,206 555 0102\n',
    );
  });
  afterAll(() => house.close());
  const person = async (search: string) =>
    (await house.client.get<Page<SupporterRow>>(`/api/supporters?search=${search}`)).rows[0]!.id;

  test('a preview is what that person would get, and tells their holes', async () => {
    const id = await draftEmail(
      house.client,
      {},
      { subject: 'Hi {First name}', letter: letterOf('From {Sender: name} to {Full name, or "you"}') },
    );
    const preview = async (search: string) =>
      house.client.get<Preview>(`/api/messages/${id}/preview?supporterId=${await person(search)}`);
    expect(await preview('ann@')).toMatchObject({
      subject: 'Hi Ann',
      holes: [],
      text: expect.stringContaining('From The owner to Ann Reyes') as string,
    });
    expect(await preview('nameless@')).toMatchObject({
      subject: 'Hi',
      holes: ['First name'],
      text: expect.stringContaining('to you') as string,
    });
  });

  test('a text preview counts its parts with the values in', async () => {
    const id = await draftText(house.client, {}, `{First name}${'x'.repeat(158)}`);
    const preview = await house.client.get<Preview>(
      `/api/messages/${id}/preview?supporterId=${await person('ann@')}`,
    );
    // The name and the way out that a text must carry count too.
    expect(preview.text).toMatch(/^Lantern Ferry Trust: Annx{158} Reply STOP to end\.$/);
    expect(preview.parts).toBe(2);
  });

  test('a message is for a purpose or for a public list, never both or an internal one', async () => {
    const id = await draftEmail(house.client, {});
    const list = await house.client.post<{ id: number }>('/api/lists', {
      name: 'Crew',
      isPublic: false,
      description: '',
    });
    const save = (values: object) =>
      house.client.call<{ detail: string }>('PUT', `/api/messages/${id}`, {
        name: 'x',
        purpose: null,
        listId: null,
        subject: '',
        preheader: '',
        letter: null,
        text: '',
        basedOn: 1,
        ...values,
      });
    expect((await save({})).body.detail).toContain('either a purpose or a public list');
    expect((await save({ purpose: 'news', listId: list.id })).status).toBe(422);
    expect((await save({ listId: list.id })).body.detail).toContain('internal');
    await house.client.put(`/api/lists/${list.id}`, {
      name: 'Crew',
      isPublic: true,
      description: '',
      basedOn: 0,
    });
    expect((await save({ listId: list.id })).status).toBe(200);
  });

  test('a picture is decoded and written anew; anything else is refused in a sentence', async () => {
    const upload = (bytes: Buffer, alt = 'A hull') => {
      const form = new FormData();
      form.append('alt', alt);
      form.append('file', new Blob([new Uint8Array(bytes)]), 'hull.png');
      return house.client.call<{ id: number; detail: string }>('POST', '/api/images', form);
    };
    const png = await sharp({ create: { width: 2000, height: 1000, channels: 3, background: '#0f766b' } })
      .png()
      .toBuffer();
    const { body } = await upload(png);
    const [view] =
      await house.client.get<{ id: number; alt: string; width: number; height: number; src: string }[]>(
        '/api/images',
      );
    expect(view).toMatchObject({
      id: body.id,
      alt: 'A hull',
      width: 1200,
      height: 600,
      src: `/media/${body.id}`,
    });
    const served = await fetch(`${house.config.PUBLIC_URL}${view!.src}`);
    expect([served.status, served.headers.get('content-type')]).toEqual([200, 'image/jpeg']);
    const refused = await upload(Buffer.from('<html><script>alert(1)</script></html>'));
    expect([refused.status, refused.body.detail]).toEqual([422, expect.stringContaining('not a picture')]);
  });

  test('what is worth a second look is told with every save, and holds nothing back', async () => {
    const id = await draftEmail(
      house.client,
      {},
      { letter: letterOf('Give', 'http://give.ferry.test/hull') },
    );
    const checked = await house.client.get<CheckedWords>(`/api/messages/${id}/faults`);
    expect(checked).toEqual({
      faults: [],
      doubts: [expect.stringContaining('http://give.ferry.test/hull') as string],
    });
    const long = Array.from({ length: 900 }, () => paragraph('A plank of oak, and another. '.repeat(6)));
    const saved = await house.client.put<SavedWords>(`/api/messages/${id}`, {
      name: 'Long',
      purpose: 'news',
      listId: null,
      subject: 'Planks',
      preheader: '',
      letter: letter(...long),
      text: '',
      basedOn: 1,
    });
    expect(saved).toMatchObject({ faults: [], doubts: [expect.stringMatching(/weighs \d{3} kB/) as string] });
  });

  test('a draft that has left keeps its words', async () => {
    const id = await draftEmail(house.client, {});
    await house.database.unscoped()('message').where({ id }).update({ state: 'done' });
    expect((await house.client.call('DELETE', `/api/messages/${id}`)).status).toBe(409);
    const save = await house.client.call('PUT', `/api/messages/${id}`, {
      name: 'x',
      purpose: 'news',
      listId: null,
      subject: 's',
      preheader: '',
      letter: null,
      text: '',
      basedOn: 1,
    });
    expect(save.status).toBe(409);
  });
});
