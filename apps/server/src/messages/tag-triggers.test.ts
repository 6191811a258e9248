import type { MessageView, RecordView, SegmentCount, TagView } from '@goodword/core/contract';
import { createTransport } from 'nodemailer';
import { MailInService } from '../inbound/mail-in.service';
import { gathering, HEAD } from '../testing/gathering';
import { openTestHouse, eventually, type TestHouse } from '../testing/harness';
import { agreed, bringIn, draftEmail, draftText, messageAt, send } from '../testing/steps';

let house: TestHouse;
let batchId: number;
const { record } = gathering(() => house);

beforeAll(async () => {
  house = await openTestHouse();
  house.app.get(MailInService).listen(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
  house.startWorker();
  const rows = ['ann@example.org,Ann,Reyes,206 555 0151', 'bea@example.org,Bea,Okoro,206 555 0152'];
  const permission = { email: agreed('appeals'), text: agreed('appeals') };
  batchId = (await bringIn(house.client, `${HEAD}${rows.join('\n')}\n`, { permission })).id;
});
afterAll(() => house.close());

const everyone = () => ({ from: [{ kind: 'batch' as const, id: batchId }] });
const tag = async (name: string) => (await house.client.post<{ id: number }>('/api/tags', { name })).id;
const save = async (id: number, tagTriggers: object[], client = house.client) => {
  const { tagTriggers: was } = await house.client.get<MessageView>(`/api/messages/${id}`);
  return client.call<{ detail: string }>('PUT', `/api/messages/${id}/tag-triggers`, { tagTriggers, was });
};
const tagsOf = async (search: string) =>
  (await record(search)).tags.map(({ name, how }) => `${name}, ${how}`);
const mailTo = (to: string) =>
  [...house.sink.mails]
    .reverse()
    .find((mail) => mail.to === to)!
    .raw.replace(/=\r\n/g, '')
    .replace(/=3D/g, '=');
const follow = async (to: string) => {
  const [link] = /\/f\/[a-z2-7]+/.exec(mailTo(to))!;
  expect((await house.client.call('GET', link)).status).toBe(302);
};
const answer = async (to: string, text: string) => {
  const [address] = /answer-[a-z2-7]+@[a-z.]+/.exec(mailTo(to))!;
  const transport = createTransport({
    host: '127.0.0.1',
    port: house.config.INBOUND_SMTP_PORT,
    secure: false,
    ignoreTLS: true,
  });
  await transport.sendMail({ from: to, to: address, subject: 'Re: Hello', text });
  transport.close();
};

describe('an email', () => {
  let id: number;
  let [followers, answerers]: number[] = [];

  beforeAll(async () => {
    [followers, answerers] = [await tag('clicked the hull'), await tag('wrote back')];
    id = await draftEmail(house.client, everyone());
    expect(
      (
        await save(id, [
          { on: 'clicked', tagId: followers },
          { on: 'replied', tagId: answerers },
        ])
      ).status,
    ).toBe(204);
    await send(house.client, id);
    await messageAt(house.client, id, 'done');
  });

  test('tags whoever clicks a link, once, and the record says by what', async () => {
    await follow('ann@example.org');
    await follow('ann@example.org');
    expect(await tagsOf('ann@')).toEqual(['clicked the hull, by what they did with “A letter”']);
    expect(await tagsOf('bea@')).toEqual([]);
    const tree = { kind: 'tag', tagId: followers, has: true };
    expect((await house.client.post<SegmentCount>('/api/segments/count', { tree, reach: false })).total).toBe(
      1,
    );
  });

  test('whoever took the tag off by hand does not get it back by following again', async () => {
    const ann: RecordView = await record('ann@');
    await house.client.call('DELETE', `/api/supporters/${ann.id}/tags/${followers}`);
    await follow('ann@example.org');
    expect(await tagsOf('ann@')).toEqual([]);
  });

  test('tags whoever answers by mail', async () => {
    await answer('bea@example.org', 'I can bring paint.');
    await eventually(
      'the tag',
      () => tagsOf('bea@'),
      (tags) => tags.length === 1,
    );
    expect(await tagsOf('bea@')).toEqual(['wrote back, by what they did with “A letter”']);
  });

  test('may change when it has gone, and counts from then on', async () => {
    const later = await tag('came later');
    await save(id, [{ on: 'clicked', tagId: later }]);
    await follow('bea@example.org');
    expect(await tagsOf('bea@')).toContain('came later, by what they did with “A letter”');
  });
});

test('a text tags whoever answers it, and not who says stop', async () => {
  const id = await draftText(house.client, everyone());
  await save(id, [{ on: 'replied', tagId: await tag('texted back') }]);
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  const text = (key: string, from: string, words: string) =>
    house.client.hook({ type: 'inbound', id: key, from, to: '+12065550100', text: words });
  await text('d-1', '+12065550151', 'I am in');
  await text('d-2', '+12065550152', 'STOP');
  expect(await tagsOf('ann@')).toContain('texted back, by what they did with “A text”');
  expect((await tagsOf('bea@')).join()).not.toContain('texted back');
});

test('a tag that a message is still to put on can not be deleted; one of a message that has gone can, and is passed over', async () => {
  const needed = await tag('needed');
  const id = await draftEmail(house.client, everyone());
  await save(id, [{ on: 'clicked', tagId: needed }]);
  const refused = await house.client.call<{ detail: string }>('DELETE', `/api/tags/${needed}`);
  expect([refused.status, refused.body.detail]).toEqual([
    409,
    expect.stringContaining('The message “A letter” still needs it'),
  ]);
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  expect((await house.client.call('DELETE', `/api/tags/${needed}`)).status).toBeLessThan(300);
  await follow('ann@example.org');
  expect((await tagsOf('ann@')).join()).not.toContain('needed');
});

test('two tags made one are one in the message too', async () => {
  const [from, into] = [await tag('old word'), await tag('new word')];
  const id = await draftEmail(house.client, everyone());
  await save(id, [
    { on: 'clicked', tagId: from },
    { on: 'clicked', tagId: into },
    { on: 'replied', tagId: from },
  ]);
  await house.client.post(`/api/tags/${from}/join`, { intoId: into });
  expect((await house.client.get<MessageView>(`/api/messages/${id}`)).tagTriggers).toEqual([
    { on: 'clicked', tagId: into },
    { on: 'replied', tagId: into },
  ]);
  expect((await house.client.get<TagView[]>('/api/tags')).map(({ name }) => name)).not.toContain('old word');
});

test.each<[string, object[], number]>([
  ['a tag that is not there', [{ on: 'clicked', tagId: 999_999 }], 404],
  ['an opening, which is too unsure', [{ on: 'opened', tagId: 1 }], 422],
  [
    'the same twice',
    [
      { on: 'replied', tagId: 1 },
      { on: 'replied', tagId: 1 },
    ],
    422,
  ],
])('%s is refused', async (_name, triggers, status) => {
  const id = await draftEmail(house.client, everyone());
  expect((await save(id, triggers)).status).toBe(status);
  expect((await house.client.get<MessageView>(`/api/messages/${id}`)).tagTriggers).toEqual([]);
});

test('is an organizer’s to settle, and of another chapter’s message nobody’s', async () => {
  const id = await draftEmail(house.client, everyone());
  expect((await save(id, [], await house.as('writer'))).status).toBe(403);
  const own = await house.as('organizer', house.chapters[0]!);
  const theirs = await draftEmail(own, {});
  expect((await save(theirs, [], await house.as('organizer', house.chapters[1]!))).status).toBe(404);
});
