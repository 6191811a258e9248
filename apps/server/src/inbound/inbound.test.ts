import { createTransport } from 'nodemailer';
import type { RecordView, ThreadsView, TodayView } from '@goodword/core/contract';
import { openTestHouse, eventually, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, draftText, lastLook, messageAt, resultsOf, send } from '../testing/steps';
import { mailTo, openFormAs, personBy, openedStatuses } from '../testing/supporter';
import { MailInService } from './mail-in.service';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  house.app.get(MailInService).listen(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
});
afterAll(() => house.close());

const NUMBER = '+12065550100';
let texted = 0;
/** An incoming text and every answer to it. */
async function text(from: string, words: string, at?: Date): Promise<string[]> {
  const id = `t-${(texted += 1)}`;
  expect(
    await house.client.hook({
      type: 'inbound',
      id,
      from,
      to: NUMBER,
      text: words,
      ...(at ? { at: at.toISOString() } : {}),
    }),
  ).toBe(204);
  return house.gateway.texts.filter((one) => one.key === `answer-${id}`).map((one) => one.text);
}

async function mailIn(to: string, raw: string[]): Promise<void> {
  const smtp = createTransport({ host: '127.0.0.1', port: house.config.INBOUND_SMTP_PORT, ignoreTLS: true });
  await smtp.sendMail({ envelope: { from: 'someone@example.org', to: [to] }, raw: raw.join('\r\n') });
}

const answer = (subject: string, body: string, more: string[] = []) => [
  'From: Someone <someone@example.org>',
  `Message-ID: <${crypto.randomUUID()}@example.org>`,
  `Subject: ${subject}`,
  ...more,
  'Content-Type: text/plain; charset=utf-8',
  '',
  body,
];

async function mailed(name: string): Promise<{
  id: number;
  messageId: number;
  replyTo: string;
  leave: string;
  mail: Awaited<ReturnType<typeof mailTo>>;
}> {
  const batch = await bringIn(house.client, `Email,First,Last,Mobile\n${name}@example.org,${name},Rowe,\n`);
  const messageId = await draftEmail(
    house.client,
    { from: [{ kind: 'batch', id: batch.id }] },
    { subject: `To ${name}` },
  );
  await send(house.client, messageId);
  await messageAt(house.client, messageId, 'done');
  const mail = await mailTo(house, `${name}@example.org`, '/leave');
  const leave = /leave-[a-z0-9]+@[a-z.]+/.exec(JSON.stringify(mail.headers.get('list')))![0];
  return {
    id: (await personBy(house.client, `${name}@example.org`)).id,
    messageId,
    replyTo: mail.replyTo,
    leave,
    mail,
  };
}
const record = (id: number) => house.client.get<RecordView>(`/api/supporters/${id}`);

describe('texts to our number', () => {
  test('a keyword joins at once, with the words of the form as evidence and one answer', async () => {
    const form = await openFormAs(house.client, 'Launch', (made) => ({ ...made, keyword: 'LAUNCH' }));
    expect(await text('+12065550170', ' launch! ')).toEqual([
      expect.stringMatching(/STOP to leave, HELP for help/),
    ]);
    const joined = await personBy(house.client, '2065550170');
    expect(openedStatuses(joined)).toEqual([`text list:${form.listId} yes`]);
    expect(joined.entries[0]).toMatchObject({
      how: 'keyword',
      words: form.definition.asks[1]!.words,
      source: 'Form “Launch”, version 2',
    });
    expect(await text('+12065550170', 'STOP')).toHaveLength(1);
    expect(await text('+12065550170', 'STOP')).toEqual([]);
    expect(openedStatuses(await personBy(house.client, '2065550170'))).toContain('text all no');
    expect(await text('+12065550170', 'LAUNCH')).toHaveLength(1);
    expect(openedStatuses(await personBy(house.client, '2065550170'))).toContain(
      `text list:${form.listId} yes`,
    );
  });

  test('START brings back what they had, HELP helps, a YES to nothing is a reply', async () => {
    await bringIn(house.client, 'Email,First,Last,Mobile\nmo@example.org,Mo,Rowe,2065550171\n');
    await text('+12065550171', 'Arrêt');
    expect(await text('+12065550171', 'START')).toEqual([expect.stringContaining('welcome')]);
    expect(openedStatuses(await personBy(house.client, 'mo@example.org'))).toContain('text appeals yes');
    expect(await text('+12065550171', 'help?')).toEqual([expect.stringContaining('STOP to leave')]);
    expect(await text('+12065550171', 'yes')).toEqual([]);
  });

  test('free text that plainly says stop holds the number until a person says what was meant', async () => {
    const batch = await bringIn(
      house.client,
      'Email,First,Last,Mobile\nned@example.org,Ned,Rowe,2065550172\nola@example.org,Ola,Rowe,2065550173\n',
    );
    for (const number of ['+12065550172', '+12065550173'])
      expect(await text(number, 'Please stop texting me, thanks')).toEqual([]);
    const message = await draftText(house.client, { from: [{ kind: 'batch', id: batch.id }] });
    expect(await lastLook(house.client, message)).toMatchObject({
      reached: 0,
      suppressed: [{ reason: 'on-hold', people: 2 }],
    });
    const { stops } = await house.client.get<TodayView>('/api/today');
    expect(stops.map((stop) => [stop.name, stop.words])).toEqual([
      ['Ned Rowe', 'Please stop texting me, thanks'],
      ['Ola Rowe', 'Please stop texting me, thanks'],
    ]);
    await house.client.post(`/api/tasks/${stops[0]!.taskId}/settle`, { outcome: 'meant' });
    await house.client.post(`/api/tasks/${stops[1]!.taskId}/settle`, { outcome: 'not-meant' });
    expect(
      (await house.client.call('POST', `/api/tasks/${stops[1]!.taskId}/settle`, { outcome: 'meant' })).status,
    ).toBe(404);
    expect(await lastLook(house.client, message)).toMatchObject({
      reached: 1,
      suppressed: [{ reason: 'said-no', people: 1 }],
    });
    expect((await personBy(house.client, 'ned@example.org')).entries[0]).toMatchObject({
      state: 'no',
      how: 'reply',
      words: 'Please stop texting me, thanks',
    });
  });

  test('somebody who only speaks of stopping is not held', async () => {
    await bringIn(house.client, 'Email,First,Last,Mobile\npam@example.org,Pam,Rowe,2065550174\n');
    await text('+12065550174', "I'll stop by on Saturday");
    expect(
      (await personBy(house.client, 'pam@example.org')).contactPoints.every((point) => !point.onHold),
    ).toBe(true);
  });

  test('a stop is confirmed within five minutes or not at all, and obeyed either way (47 CFR 64.1200(a)(12))', async () => {
    await bringIn(
      house.client,
      'Email,First,Last,Mobile\nqu@example.org,Quim,Rowe,2065550176\nru@example.org,Rut,Rowe,2065550177\n',
    );
    const ago = (seconds: number) => new Date(Date.now() - seconds * 1000);
    expect(await text('+12065550176', 'STOP', ago(290))).toHaveLength(1);
    expect(await text('+12065550177', 'STOP', ago(301))).toEqual([]);
    for (const name of ['qu', 'ru'])
      expect(openedStatuses(await personBy(house.client, `${name}@example.org`))).toContain('text all no');
  });

  test('while the gateway is away the answer is tried again, and comes once', async () => {
    house.gateway.status = 503;
    expect(await text('+12065550178', 'HELP')).toEqual([]);
    house.gateway.status = null;
    await eventually(
      'the late answer',
      () => house.gateway.texts.filter((one) => one.to === '+12065550178').length,
      (n) => n === 1,
    );
  });

  test('the organization answers in its own words', async () => {
    const words = {
      stop: 'Trust: gone. START returns.',
      help: 'Trust: call the landing. STOP leaves.',
      start: 'Trust: hello again. STOP leaves, HELP helps.',
    };
    const was = await house.client.get<object>('/api/text-answers');
    await house.client.put('/api/text-answers', { ...words, was });
    expect(await text('+12065550175', 'HELP')).toEqual([words.help]);
    expect(await text('+12065550175', 'quit')).toEqual([words.stop]);
    expect(await house.client.get('/api/text-answers')).toEqual(words);
  });
});

describe('mails that come back', () => {
  test('a mail to the address to leave by leaves the scope of that message', async () => {
    const { id, leave, messageId } = await mailed('abe');
    await mailIn(leave.toUpperCase(), answer('unsubscribe', ''));
    await mailIn(leave, answer('unsubscribe', ''));
    const person = await record(id);
    expect(openedStatuses(person)).toEqual(expect.arrayContaining(['email appeals no', 'email news yes']));
    expect(person.entries.filter((entry) => entry.state === 'no')).toHaveLength(1);
    expect((await resultsOf(house.client, messageId)).counts.left).toBe(1);
  });

  test('an answer that says unsubscribe closes the channel, quoted words or not', async () => {
    const { id, replyTo } = await mailed('bea');
    await mailIn(
      replyTo,
      answer('Re: To bea', 'Unsubscribe.\r\n\r\nOn Monday the trust wrote:\r\n> give here'),
    );
    expect(openedStatuses(await record(id))).toContain('email all no');
  });

  test('any other answer is kept for a person, with the one it answers, and changes nothing', async () => {
    const { id, replyTo, messageId } = await mailed('cal');
    await mailIn(replyTo, answer('Re: To cal', 'Is there parking?\r\n\r\n> Unsubscribe'));
    const { threads } = await house.client.get<ThreadsView>('/api/replies');
    expect(threads.find(({ words }) => words === 'Is there parking?')).toMatchObject({ channel: 'email' });
    expect(openedStatuses(await record(id))).not.toContain('email all no');
    expect((await resultsOf(house.client, messageId)).counts.replied).toBe(1);
  });

  test('free words that plainly ask to stop hold the address for a person', async () => {
    const { id, replyTo } = await mailed('dot');
    await mailIn(replyTo, answer('Re: To dot', 'Hello, I no longer want to get your emails. Dot'));
    expect((await record(id)).contactPoints[0]).toMatchObject({
      onHold: true,
      holdReason: expect.stringContaining('waits for a person'),
    });
    const stop = (await house.client.get<TodayView>('/api/today')).stops.find(
      (one) => one.supporterId === id,
    )!;
    await house.client.post(`/api/tasks/${stop.taskId}/settle`, { outcome: 'meant' });
    expect(openedStatuses(await record(id))).toContain('email all no');
  });

  test("a machine's answer is nobody's word", async () => {
    const { id, replyTo } = await mailed('eli');
    await mailIn(replyTo, answer('Away', 'stop', ['Auto-Submitted: auto-replied']));
    expect(openedStatuses(await record(id))).not.toContain('email all no');
  });

  test('a complaint by the provider (RFC 5965) closes the channel and the address for good', async () => {
    const { id, mail } = await mailed('fay');
    await mailIn('complaints@lists.lanternferry.test', [
      'From: <feedback@provider.test>',
      'Subject: Abuse report',
      'MIME-Version: 1.0',
      'Content-Type: multipart/report; report-type=feedback-report; boundary="b"',
      '',
      '--b',
      'Content-Type: text/plain',
      '',
      'This is an email abuse report.',
      '--b',
      'Content-Type: message/feedback-report',
      '',
      'Feedback-Type: abuse',
      'User-Agent: Provider/1.0',
      'Version: 1',
      '',
      '--b',
      'Content-Type: message/rfc822',
      '',
      `List-Unsubscribe: <${house.config.PUBLIC_URL}${mail.link}>`,
      'Subject: To fay',
      '',
      'Hello',
      '--b--',
      '',
    ]);
    const person = await eventually(
      'the complaint',
      () => record(id),
      (one) => openedStatuses(one).includes('email all no'),
    );
    expect(person.entries[0]).toMatchObject({ how: 'complaint', words: 'Reported as spam' });
    expect(await house.client.get('/api/do-not-contact')).toMatchObject({
      rows: [{ kind: 'email', shown: 'fay@example.org', how: 'complaint' }],
    });
  });

  test('addresses that are none of ours are refused at the door', async () => {
    for (const to of [
      'leave-aaaa@lists.lanternferry.test',
      'answer-x@lists.lanternferry.test',
      'hello@lists.lanternferry.test',
    ])
      await expect(mailIn(to, answer('x', 'y'))).rejects.toThrow(/No such mailbox/);
  });
});
