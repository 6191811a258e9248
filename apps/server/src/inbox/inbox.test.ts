import { createTransport } from 'nodemailer';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import type {
  PermissionReport,
  RecordView,
  ThreadsView,
  ThreadView,
  TodayView,
} from '@goodword/core/contract';
import { MailInService } from '../inbound/mail-in.service';
import { eventually, openTestHouse, pause, type TestHouse } from '../testing/harness';
import {
  agreed,
  bringIn,
  draftEmail,
  draftText,
  letterOf,
  messageAt,
  resultsOf,
  send,
} from '../testing/steps';
import { mailTo, openedStatuses, personBy } from '../testing/supporter';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.app.get(MailInService).listen(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
  house.startWorker();
});
afterAll(() => house.close());

const NUMBER = '+12065550100';
let ids = 0;
const texted = (from: string, text: string) =>
  house.client.hook({ type: 'inbound', id: `inbox-${(ids += 1)}`, from, to: NUMBER, text });

interface Written {
  subject?: string;
  words: string;
  messageId?: string;
  headers?: string[];
  files?: { filename: string; content: Buffer | string }[];
  sender?: string;
}

/** An answer as a mail program writes it. */
async function mailed(to: string, written: Written): Promise<void> {
  const smtp = createTransport({ host: '127.0.0.1', port: house.config.INBOUND_SMTP_PORT, ignoreTLS: true });
  await smtp.sendMail({
    envelope: { from: written.sender ?? 'someone@example.org', to: [to] },
    from: 'Someone <someone@example.org>',
    to,
    subject: written.subject ?? 'Re: A mail',
    messageId: written.messageId ?? `<${crypto.randomUUID()}@example.org>`,
    text: written.words,
    attachments: written.files ?? [],
    headers: (written.headers ?? []).map((line) => {
      const [key, value] = line.split(': ');
      return { key: key!, value: value! };
    }),
  });
}

const page = (query = '') => house.client.get<ThreadsView>(`/api/replies${query}`);
const lineOf = async (name: string, query = '') =>
  (await page(query)).threads.find((line) => line.name.startsWith(name));
const threadOf = async (name: string, query = '') =>
  house.client.get<ThreadView>(`/api/replies/${(await lineOf(name, query))!.replyId}`);
const wordsOf = ({ items }: ThreadView) => items.map(({ kind, words }) => [kind, words]);

interface Somebody {
  id: number;
  replyTo: string;
  messageId: number;
}

/** Somebody who has had a mail from us, and where they answer it. */
async function somebody(name: string, mobile = ''): Promise<Somebody> {
  const csv = `Email,First,Last,Mobile\n${name.toLowerCase()}@example.org,${name},Reed,${mobile}\n`;
  const permission = { email: agreed('appeals', 'news'), text: agreed('all') };
  const batch = await bringIn(house.client, csv, mobile ? { permission } : {});
  const messageId = await draftEmail(
    house.client,
    { from: [{ kind: 'batch', id: batch.id }] },
    { subject: `To ${name}` },
  );
  await send(house.client, messageId);
  await messageAt(house.client, messageId, 'done');
  const { replyTo } = await mailTo(house, `${name.toLowerCase()}@example.org`, '/leave');
  return { id: (await personBy(house.client, `${name.toLowerCase()}@example.org`)).id, replyTo, messageId };
}

const answerTo = (thread: ThreadView, words: string, more: object = {}) =>
  house.client.call<{ id: number }>('POST', `/api/supporters/${thread.supporterId}/messages`, {
    channel: 'email',
    purpose: 'service',
    subject: `Re: ${thread.subject}`,
    letter: letterOf(words),
    text: '',
    answers: { replyId: thread.replyId, after: thread.after },
    ...more,
  });

describe('a thread', () => {
  test('is all that one person wrote, by mail and by text, in the order in which it came', async () => {
    const ana = await somebody('Ana', '206 555 0141');
    await mailed(ana.replyTo, { words: 'Is there parking?' });
    await texted('+12065550141', 'I asked by mail too');
    const line = await lineOf('Ana');
    expect(line).toMatchObject({ words: 'I asked by mail too', channel: 'text', waiting: 2, unread: true });
    const thread = await threadOf('Ana');
    expect(wordsOf(thread)).toEqual([
      ['in', 'Is there parking?'],
      ['in', 'I asked by mail too'],
    ]);
    expect(thread.items[0]!.message).toEqual({ id: ana.messageId, name: expect.any(String) as string });
    // Named by any reply of theirs, it is the same thread.
    expect(await house.client.get(`/api/replies/${thread.items[0]!.id}`)).toEqual(thread);
  });

  test('is done to what was seen: what comes later is open, and brings it back', async () => {
    const { replyId } = (await lineOf('Ana'))!;
    await texted('+12065550141', 'One thing more');
    await house.client.post(`/api/replies/${replyId}/handled`, { handled: true });
    expect(await lineOf('Ana')).toMatchObject({ words: 'One thing more', waiting: 1 });
    const newest = (await lineOf('Ana'))!.replyId;
    await house.client.post(`/api/replies/${newest}/handled`, { handled: true });
    expect(await lineOf('Ana')).toBeUndefined();
    expect(await lineOf('Ana', '?view=done')).toMatchObject({ waiting: 0, unread: false });
    await house.client.post(`/api/replies/${newest}/handled`, { handled: false });
    expect(await lineOf('Ana')).toMatchObject({ waiting: 1, unread: false });
    await house.client.post(`/api/replies/${newest}/handled`, { handled: true });
  });

  test('of a number that is nobody’s is of the number', async () => {
    await texted('+12065550149', 'Who are you?');
    expect(await lineOf('+12065550149')).toMatchObject({ supporterId: null, waiting: 1 });
    const thread = await threadOf('+12065550149');
    expect([thread.supporterId, wordsOf(thread)]).toEqual([null, [['in', 'Who are you?']]]);
  });

  test('is found by a name, by words and by the message, and percent signs are only signs', async () => {
    const found = async (q: string) =>
      (await page(`?q=${encodeURIComponent(q)}`)).threads.map(({ name }) => name);
    expect(await found('who are')).toEqual(['+12065550149']);
    expect(await found('%')).toEqual([]);
    expect((await page('?view=done&q=Ana%20Re')).threads.map(({ name }) => name)).toEqual(['Ana Reed']);
  });
});

describe('what comes in', () => {
  test('two people’s mails with one Message-ID are two, two of one person too, and one that comes again is one', async () => {
    const [bo, cy] = [await somebody('Bo'), await somebody('Cy')];
    const messageId = '<one-for-all@example.org>';
    await mailed(bo.replyTo, { words: 'From Bo', messageId });
    await mailed(cy.replyTo, { words: 'From Cy', messageId });
    await mailed(cy.replyTo, { words: 'From Cy again', messageId });
    await mailed(cy.replyTo, { words: 'From Cy', messageId });
    expect(wordsOf(await threadOf('Bo'))).toEqual([['in', 'From Bo']]);
    expect(wordsOf(await threadOf('Cy'))).toEqual([
      ['in', 'From Cy'],
      ['in', 'From Cy again'],
    ]);
  });

  test('answers of machines are kept, fold away and are nobody’s word (RFC 3834)', async () => {
    const di = await somebody('Di');
    await mailed(di.replyTo, { words: 'I am away. STOP', headers: ['Auto-Submitted: auto-replied'] });
    await mailed(di.replyTo, { subject: 'Automatische Antwort: To Di', words: 'Ich bin bis Montag weg.' });
    await mailed(di.replyTo, { subject: 'Out of office', words: 'Back on Monday', sender: '' });
    expect(await lineOf('Di')).toBeUndefined();
    expect((await resultsOf(house.client, di.messageId)).counts.replied).toBe(0);
    expect(openedStatuses(await house.client.get<RecordView>(`/api/supporters/${di.id}`))).not.toContain(
      'email all no',
    );
    await mailed(di.replyTo, { words: 'Now it is me' });
    const { items } = await threadOf('Di');
    expect(items.map(({ keyword }) => keyword)).toEqual(['machine', 'machine', 'machine', 'none']);
  });

  test('under a machine’s subject alone, somebody who asks to stop is heard', async () => {
    const ed = await somebody('Ed');
    await mailed(ed.replyTo, { subject: 'Automatic reply: To Ed', words: 'Stop' });
    const record = await house.client.get<RecordView>(`/api/supporters/${ed.id}`);
    expect(openedStatuses(record)).toContain('email all no');
  });

  test('files are kept by what they are, bounded, and downloaded only; of the others it is told why', async () => {
    const fay = await somebody('Fay');
    const pdf = Buffer.from('%PDF-1.4\n1 0 obj\n<<>>\nendobj\n');
    const files = [
      { filename: '../../etc/a "form".pdf', content: pdf },
      { filename: 'photo.jpg', content: Buffer.from('MZ\u0090\u0000 a program that says it is a picture') },
      { filename: 'page.html', content: '<script>alert(1)</script>' },
      { filename: 'nothing.txt', content: '' },
      ...Array.from({ length: 11 }, (_one, i) => ({ filename: `note ${i}.txt`, content: `Note ${i}` })),
    ];
    await mailed(fay.replyTo, { words: 'Here they are', files });
    const thread = await threadOf('Fay');
    const [{ files: came, id: replyId }] = thread.items as [ThreadView['items'][number]];
    expect(came.map(({ name, refused }) => [name, refused]).slice(0, 4)).toEqual([
      ['a  form .pdf', null],
      ['photo.jpg', 'kind'],
      ['page.html', 'kind'],
      ['nothing.txt', 'empty'],
    ]);
    expect(came.filter(({ refused }) => refused === null)).toHaveLength(10);
    expect(came.filter(({ refused }) => refused === 'many')).toHaveLength(2);
    const got = await house.client.call('GET', `/api/replies/${replyId}/files/${came[0]!.id}`);
    expect([got.status, got.text, got.headers.get('content-type')]).toEqual([
      200,
      pdf.toString(),
      'application/octet-stream',
    ]);
    expect(got.headers.get('content-disposition')).toMatch(/^attachment/);
    expect(got.headers.get('x-content-type-options')).toBe('nosniff');
    const at = (id: number) => house.client.call('GET', `/api/replies/${replyId}/files/${id}`);
    expect([(await at(came[1]!.id)).status, (await at(999_999)).status]).toEqual([404, 404]);
    const [, otherChapter] = house.chapters;
    const east = await house.as('organizer', otherChapter);
    expect((await east.call('GET', `/api/replies/${replyId}/files/${came[0]!.id}`)).status).toBe(404);
    expect((await east.call('GET', `/api/replies/${replyId}`)).status).toBe(404);
  });

  test('a mail that comes twice leaves no file behind that nobody knows', async () => {
    const gus = await somebody('Gus');
    const folder = join(house.config.DATA_DIR, 'files');
    const mail = { words: 'One', messageId: '<g@example.org>', files: [{ filename: 'a.txt', content: 'A' }] };
    await mailed(gus.replyTo, mail);
    const before = readdirSync(folder).length;
    await mailed(gus.replyTo, mail);
    expect(readdirSync(folder)).toHaveLength(before);
  });
});

describe('an answer', () => {
  test('goes under what it answers, is done in the same stroke, and stands in the thread as it was read', async () => {
    const hal = await somebody('Hal');
    await mailed(hal.replyTo, { words: 'When do you open?', messageId: '<hal.1@example.org>' });
    const sent = await answerTo(await threadOf('Hal'), 'Dear {First name}, at nine.');
    expect(sent.status).toBe(202);
    const mails = () => house.sink.mails.filter(({ to }) => to === 'hal@example.org');
    await eventually('the answer', mails, (found) => found.length === 2);
    expect(mails()[1]!.raw).toMatch(/^In-Reply-To: <hal\.1@example\.org>\r?$/m);
    expect(mails()[1]!.raw).toMatch(/^References: <hal\.1@example\.org>\r?$/m);
    expect(await lineOf('Hal')).toBeUndefined();
    const thread = await threadOf('Hal', '?view=done');
    expect(wordsOf(thread)).toEqual([
      ['in', 'When do you open?'],
      ['out', 'Dear Hal, at nine.'],
    ]);
    expect(thread.items[1]).toMatchObject({ by: 'The owner', subject: 'Re: Re: A mail' });
  });

  test('by text stands there as it was read, whatever letter was begun beside it', async () => {
    const hue = await somebody('Hue', '206 555 0146');
    await texted('+12065550146', 'Which pier?');
    const text = { channel: 'text', text: 'The east one, {First name}', letter: letterOf('Dear friend') };
    expect((await answerTo(await threadOf('Hue'), '', text)).status).toBe(202);
    const sent = () => house.gateway.texts.filter(({ to }) => to === '+12065550146');
    await eventually('the text', sent, (found) => found.length === 1);
    expect(sent()[0]!.text).toContain('The east one, Hue');
    const thread = await threadOf('Hue', '?view=done');
    expect(wordsOf(thread).at(-1)).toEqual(['out', 'The east one, Hue']);
    expect(thread.supporterId).toBe(hue.id);
  });

  test('to a text needs no permission beyond their having written, and a STOP closes that too', async () => {
    const csv = 'Email,First,Last,Mobile\n,Ivo,Reed,206 555 0147\n';
    await bringIn(house.client, csv, {
      permission: { email: { said: 'nothing' }, text: { said: 'nothing' } },
    });
    const ivo = await personBy(house.client, 'Ivo Reed');
    const may = (purpose: string) =>
      house.client.get<{ verdict: string }>(
        `/api/supporters/${ivo.id}/may-write?channel=text&purpose=${purpose}`,
      );
    expect((await may('service')).verdict).toBe('no-permission');
    await texted('+12065550147', 'May dogs come along?');
    expect([(await may('service')).verdict, (await may('news')).verdict]).toEqual(['send', 'no-permission']);
    const text = { channel: 'text', text: 'They may', letter: null };
    expect((await answerTo(await threadOf('Ivo'), '', text)).status).toBe(202);
    const sent = () => house.gateway.texts.filter(({ to, text: words }) => to === '+12065550147' && words);
    await eventually('the text', sent, (found) =>
      found.some(({ text: words }) => words.includes('They may')),
    );
    const { sent: told } = await house.client.get<PermissionReport>(
      `/api/supporters/${ivo.id}/permission.json`,
    );
    expect(told.map(({ why }) => why)).toEqual([
      expect.stringMatching(/^A service message\. It answers what they wrote from this address on \d{4}-/),
    ]);
    await texted('+12065550147', 'STOP');
    expect((await may('service')).verdict).toBe('said-no');
    await texted('+12065550147', 'And cats?');
    expect((await may('service')).verdict).toBe('said-no');
  });

  test('of two who answer at once one is told that the other did, and what waits stays as it is', async () => {
    const ida = await somebody('Ida');
    await mailed(ida.replyTo, { words: 'May I help?' });
    const thread = await threadOf('Ida');
    const both = await Promise.all([answerTo(thread, 'Yes'), answerTo(thread, 'Yes, please')]);
    expect(both.map(({ status }) => status).sort()).toEqual([202, 409]);
    const refused = both.find(({ status }) => status === 409)! as unknown as { body: { detail: string } };
    expect(refused.body.detail).toBe(
      'The owner has answered meanwhile. Read that first; what you have typed is kept.',
    );
    const now = await threadOf('Ida', '?view=done');
    expect((await answerTo(now, 'And bring boots')).status).toBe(202);
  });

  test('to somebody else’s reply, or to one that may not be written to, is refused and nothing is done', async () => {
    const [jo, kit] = [await somebody('Jo'), await somebody('Kit')];
    await mailed(jo.replyTo, { words: 'From Jo' });
    await mailed(kit.replyTo, { words: 'From Kit' });
    const [jos, kits] = [await threadOf('Jo'), await threadOf('Kit')];
    const crossed = await answerTo(jos, 'Hello', { answers: { replyId: kits.replyId, after: null } });
    expect(crossed.status).toBe(404);
    await house.client.post(`/api/replies/${jos.replyId}/no`);
    expect((await answerTo(jos, 'Hello')).status).toBe(409);
    expect(await lineOf('Jo')).toMatchObject({ waiting: 1 });
  });

  test('a Message-ID that is no id of a mail stands in no header', async () => {
    const lee = await somebody('Lee');
    await mailed(lee.replyTo, { words: 'Hello', messageId: '<a b\u00e9 c@example.org>' });
    await answerTo(await threadOf('Lee'), 'Hello');
    const mails = () => house.sink.mails.filter(({ to }) => to === 'lee@example.org');
    await eventually('the answer', mails, (found) => found.length === 2);
    expect(mails()[1]!.raw).not.toMatch(/^(?:In-Reply-To|References):/m);
  });
});

describe('what is done about a thread', () => {
  test('put aside it waits for its time, and a new reply brings it back; a time that is over is refused', async () => {
    const mo = await somebody('Mo', '206 555 0142');
    await mailed(mo.replyTo, { words: 'Later is fine' });
    const { replyId } = (await lineOf('Mo'))!;
    const aside = (until: string | null) =>
      house.client.call('POST', `/api/replies/${replyId}/aside`, { until });
    const before = await house.client.get<TodayView>('/api/today');
    expect((await aside(new Date(Date.now() - 60_000).toISOString())).status).toBe(422);
    expect((await aside(new Date(Date.now() + 3_600_000).toISOString())).status).toBe(204);
    expect([await lineOf('Mo'), (await lineOf('Mo', '?view=aside'))?.waiting]).toEqual([undefined, 1]);
    expect((await house.client.get<TodayView>('/api/today')).replies).toBe(before.replies - 1);
    await texted('+12065550142', 'Now, please');
    expect(await lineOf('Mo')).toMatchObject({ waiting: 2, asideUntil: null });
    // Its time comes by itself.
    expect((await aside(new Date(Date.now() + 400).toISOString())).status).toBe(204);
    await house.client.post(`/api/replies/${(await lineOf('Mo'))!.replyId}/handled`, { handled: true });
    const newest = (await lineOf('Mo', '?view=done'))!.replyId;
    await house.client.post(`/api/replies/${newest}/handled`, { handled: false });
    await house.client.post(`/api/replies/${newest}/aside`, { until: new Date(Date.now() + 400) });
    expect(await lineOf('Mo')).toBeUndefined();
    await pause(600);
    expect(await lineOf('Mo')).toMatchObject({ waiting: 1 });
  });

  test('given to a teammate it is theirs, what comes later too; out of the team it is their heir’s', async () => {
    const ned = await somebody('Ned', '206 555 0143');
    await mailed(ned.replyTo, { words: 'For whom is this?' });
    const organizer = await house.as('organizer', null, 'second ');
    const thread = await threadOf('Ned');
    const mate = thread.mates.find(({ name }) => name === 'The second organizer')!;
    expect(thread.mates.map(({ name }) => name)).not.toContain('The viewer');
    const give = (to: number | null) =>
      house.client.call('POST', `/api/replies/${thread.replyId}/assigned`, { to });
    expect((await give(999_999)).status).toBe(422);
    expect((await give(mate.id)).status).toBe(204);
    await texted('+12065550143', 'And one more');
    const mine = await organizer.get<ThreadsView>('/api/replies?view=mine');
    expect(mine.threads).toMatchObject([{ name: 'Ned Reed', words: 'And one more', assignedTo: mate }]);
    expect([mine.counts.mine, (await page()).counts.mine]).toEqual([1, 0]);
    const team = await house.client.get<{ id: number; name: string }[]>('/api/team');
    const owner = team.find(({ name }) => name === 'The owner')!;
    expect(await house.client.get(`/api/team/${mate.id}/waiting`)).toMatchObject({ replies: 1 });
    await house.client.post(`/api/team/${mate.id}/take-out`, { handTo: owner.id });
    expect((await lineOf('Ned'))!.assignedTo).toMatchObject({ id: owner.id });
  });

  test('read by somebody it is read for all, and a viewer reads without that', async () => {
    const ola = await somebody('Ola');
    await mailed(ola.replyTo, { words: 'Read me' });
    const unread = (await page()).counts.unread;
    const { replyId } = (await lineOf('Ola'))!;
    const viewer = await house.as('viewer');
    expect((await viewer.call('GET', `/api/replies/${replyId}`)).status).toBe(200);
    for (const act of ['read', 'handled', 'aside', 'assigned', 'no'])
      expect((await viewer.call('POST', `/api/replies/${replyId}/${act}`, {})).status).toBe(403);
    expect((await page()).counts.unread).toBe(unread);
    await house.client.post(`/api/replies/${replyId}/read`);
    expect([(await lineOf('Ola'))!.unread, (await page()).counts.unread]).toEqual([false, unread - 1]);
  });

  test('read as opting out it closes the channel as they said it, when they said it', async () => {
    const pia = await somebody('Pia');
    await mailed(pia.replyTo, { words: 'I get too many mails from you' });
    const { replyId, at } = (await lineOf('Pia'))!;
    await house.client.post(`/api/replies/${replyId}/no`);
    const record = await house.client.get<RecordView>(`/api/supporters/${pia.id}`);
    expect(openedStatuses(record)).toContain('email all no');
    const [entry] = record.entries;
    expect(entry).toMatchObject({ how: 'reply', words: 'I get too many mails from you' });
    expect(Math.abs(Date.parse(entry!.at) - Date.parse(at))).toBeLessThan(1000);
  });

  test('a number that two share is closed for both', async () => {
    const csv = 'Email,First,Last,Mobile\n,Quin,Rae,206 555 0144\n,Rob,Rae,206 555 0144\n';
    const batch = await bringIn(house.client, csv);
    const id = await draftText(house.client, { from: [{ kind: 'batch', id: batch.id }] });
    await send(house.client, id);
    await messageAt(house.client, id, 'done');
    await texted('+12065550144', 'We get too many messages');
    const line = (await page()).threads.find(({ words }) => words === 'We get too many messages')!;
    await house.client.post(`/api/replies/${line.replyId}/no`);
    for (const name of ['Quin Rae', 'Rob Rae'])
      expect(openedStatuses(await personBy(house.client, name))).toContain('text all no');
  });
});

describe('a record', () => {
  test('brought into another brings its thread along, and takes it back when they are parted', async () => {
    const [sam, tea] = [await somebody('Sam'), await somebody('Tea')];
    await mailed(sam.replyTo, { words: 'From Sam' });
    await mailed(tea.replyTo, { words: 'From Tea' });
    await answerTo(await threadOf('Tea'), 'To Tea');
    const arrived = () => house.sink.mails.filter(({ to }) => to === 'tea@example.org');
    await eventually('the answer', arrived, (found) => found.length === 2);
    await house.client.post(`/api/supporters/${sam.id}/merging`, { goneId: tea.id, keep: {} });
    expect(wordsOf(await threadOf('Sam'))).toEqual([
      ['in', 'From Sam'],
      ['in', 'From Tea'],
      ['out', 'To Tea'],
    ]);
    expect((await answerTo(await threadOf('Sam'), 'To both')).status).toBe(202);
    const { mergedFrom } = await house.client.get<RecordView>(`/api/supporters/${sam.id}`);
    await house.client.call('DELETE', `/api/supporters/${sam.id}/merging/${mergedFrom[0]!.mergingId}`);
    expect(wordsOf(await threadOf('Tea', '?view=done'))).toEqual([
      ['in', 'From Tea'],
      ['out', 'To Tea'],
    ]);
    expect(wordsOf(await threadOf('Sam', '?view=done'))).toEqual([
      ['in', 'From Sam'],
      ['out', 'To both'],
    ]);
  });

  test('that is erased leaves no words, no subject and no file of a thread', async () => {
    const uma = await somebody('Uma');
    const words = 'My secret harbour';
    await mailed(uma.replyTo, {
      subject: words,
      words,
      files: [{ filename: 'harbour.txt', content: words }],
    });
    await answerTo(await threadOf('Uma'), `You wrote of ${words}`);
    const rows = () => house.database.unscoped()('reply_file').select('storage_key', 'name');
    const [file] = (await rows()).filter(({ name }) => name === 'harbour.txt') as { storage_key: string }[];
    const kept = () => readdirSync(join(house.config.DATA_DIR, 'files'));
    expect(kept()).toContain(file!.storage_key);
    const deleted = await house.client.call('DELETE', `/api/supporters/${uma.id}`);
    expect(deleted.status).toBe(204);
    expect(kept()).not.toContain(file!.storage_key);
    const left = await house.database.unscoped()('reply').where('supporter_id', uma.id).select();
    const ours = await house.database.unscoped()('message').where('personal_to', uma.id).select();
    expect(JSON.stringify([left, ours, await rows()])).not.toMatch(/harbour/i);
    expect(left).toHaveLength(1);
  });
});
