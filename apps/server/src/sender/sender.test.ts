import { createPublicKey } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createTransport } from 'nodemailer';
import type { SenderView, TodayView } from '@goodword/core/contract';
import { MailInService } from '../inbound/mail-in.service';
import { dkimKeys, openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftText, messageAt, send } from '../testing/steps';
import { SenderService } from './sender.service';

const KEY = createPublicKey(dkimKeys.publicKey).export({ type: 'spki', format: 'der' }).toString('base64');
const RIGHT: Record<string, string[]> = {
  'gw._domainkey.lanternferry.test TXT': [`v=DKIM1; k=rsa; p=${KEY}`],
  'lists.lanternferry.test TXT': ['v=spf1 include:_spf.provider.test -all'],
  'lists.lanternferry.test MX': ['127.0.0.1'],
  '_dmarc.lanternferry.test TXT': ['v=DMARC1; p=none'],
};

let house: TestHouse;
let names: Server;
let zone: Record<string, string[]> | null;
beforeAll(async () => {
  names = createServer((request, response) => {
    let body = '';
    request.on('data', (chunk) => (body += String(chunk)));
    request.on('end', () => {
      const { name, kind } = JSON.parse(body) as { name: string; kind: string };
      response.statusCode = zone ? 200 : 500;
      response.end(JSON.stringify({ records: zone?.[`${name} ${kind}`] ?? [] }));
    });
  });
  await new Promise<void>((listening) => names.listen(0, '127.0.0.1', () => listening()));
  const { port } = names.address() as AddressInfo;
  house = await openTestHouse({ env: { NAME_LOOKUP: `http://127.0.0.1:${port}` } });
  house.app.get(MailInService).listen(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
});
afterAll(async () => {
  await house.close();
  await new Promise((closed) => names.close(closed));
});
beforeEach(() => {
  zone = RIGHT;
});

const check = () => house.client.post<SenderView>('/api/sender/check', {});
const faultsOf = ({ records }: SenderView) =>
  records.flatMap(({ what, fault }) => (fault === null ? [] : [`${what} ${fault}`]));
const waiting = async () => (await house.client.get<TodayView>('/api/today')).sender;

test('before anybody has looked nothing is said to be wrong', async () => {
  const view = await house.client.get<SenderView>('/api/sender');
  expect([view.checkedAt, faultsOf(view), await waiting()]).toEqual([null, [], 0]);
  expect(view.records.map(({ what, found }) => `${what} ${found === null}`)).toEqual([
    ...['dkim true', 'spf true', 'dmarc true', 'mx true'],
  ]);
});

test('what is not right is told, here and on Today, until it is made right', async () => {
  zone = { 'lists.lanternferry.test TXT': ['v=spf1 +all'], 'lists.lanternferry.test MX': ['mx.other.test'] };
  expect(faultsOf(await check())).toEqual(['dkim missing', 'spf open', 'dmarc missing', 'mx elsewhere']);
  expect(await waiting()).toBe(4);
  zone = RIGHT;
  expect(faultsOf(await check())).toEqual([]);
  expect(await waiting()).toBe(0);
});

test('where nobody answers, it is not seen, and not wrong', async () => {
  zone = null;
  const view = await check();
  expect([faultsOf(view), view.records.every(({ found }) => found === null)]).toEqual([[], true]);
  expect(view.demands.find(({ demand }) => demand === 'signed')).toEqual({ demand: 'signed', met: null });
});

test('mail from a domain that is not the one that signs counts as forged', async () => {
  await check();
  const rename = (from_email: string) =>
    house.database.unscoped()('organization').where('id', house.scope.organizationId).update({ from_email });
  await rename('hello@elsewhere.example');
  await house.database.unscoped()('organization').update({ list_domain: 'lists.third.example' });
  const { aligned } = await house.client.get<SenderView>('/api/sender');
  expect(aligned).toEqual({ signature: false, returnPath: false });
  await rename('hello@lanternferry.test');
  await house.database.unscoped()('organization').update({ list_domain: 'lists.lanternferry.test' });
});

test('of an organization that has said nothing yet nothing is wrong, and nothing can be sent through', async () => {
  const say = (from_email: string, list_domain: string) =>
    house.database
      .unscoped()('organization')
      .where('id', house.scope.organizationId)
      .update({ from_email, list_domain });
  await say('', '');
  const view = await check();
  expect([view.records.map(({ what }) => what), view.from, await waiting()]).toEqual([['dkim'], '', 0]);
  expect((await house.client.call('POST', '/api/sender/through', {})).status).toBe(409);
  await say('hello@lanternferry.test', 'lists.lanternferry.test');
});

/** The provider's part: what was given to it arrives where it was sent. */
async function arrives(change = (raw: string) => raw): Promise<void> {
  const { to, from, raw } = house.sink.mails.at(-1)!;
  const smtp = createTransport({ host: '127.0.0.1', port: house.config.INBOUND_SMTP_PORT, ignoreTLS: true });
  await smtp.sendMail({ envelope: { from, to: [to] }, raw: change(raw) });
}
const through = async () => (await house.client.get<SenderView>('/api/sender')).through!;

describe('a mail sent through', () => {
  test('comes back, and its signature holds with the key that stands in the records', async () => {
    const { through: left } = await house.client.post<SenderView>('/api/sender/through', {});
    expect([left!.fault, left!.backAt]).toEqual([null, null]);
    await arrives(
      (raw) => `Received: from a.test by b.test with ESMTPS; Tue, 1 Dec 2026 10:00:00 +0000\r\n${raw}`,
    );
    expect(await through()).toMatchObject({ signatures: [{ selector: 'gw', holds: true }], tls: true });
    expect((await through()).backAt).not.toBeNull();
  });

  test('says so where its way has changed it, and where the record has another key', async () => {
    await house.client.post('/api/sender/through', {});
    await arrives((raw) => raw.replace('to ourselves', 'to somebody'));
    expect(await through()).toMatchObject({ signatures: [{ selector: 'gw', holds: false }], tls: null });
    zone = { ...RIGHT, 'gw._domainkey.lanternferry.test TXT': [] };
    await house.client.post('/api/sender/through', {});
    await arrives(
      (raw) => `Received: from a.test by b.test with SMTP; Tue, 1 Dec 2026 10:00:00 +0000\r\n${raw}`,
    );
    expect(await through()).toMatchObject({ signatures: [{ selector: 'gw', holds: false }], tls: false });
  });

  test('an older one that comes late says nothing of the newer', async () => {
    await house.client.post('/api/sender/through', {});
    const older = house.sink.mails.at(-1)!;
    await house.client.post('/api/sender/through', {});
    const smtp = createTransport({
      host: '127.0.0.1',
      port: house.config.INBOUND_SMTP_PORT,
      ignoreTLS: true,
    });
    await smtp.sendMail({ envelope: { from: older.from, to: [older.to] }, raw: older.raw });
    expect((await through()).backAt).toBeNull();
  });

  test('a provider that does not take it is told in its own words', async () => {
    house.sink.options.refuseSender = () => 550;
    const view = await house.client.post<SenderView>('/api/sender/through', {});
    expect(view.through!.fault).toContain('5.7.1');
    delete house.sink.options.refuseSender;
  });
});

test('a worker looks once a day, for every organization', async () => {
  zone = { ...RIGHT, '_dmarc.lanternferry.test TXT': [] };
  const sender = house.app.get(SenderService);
  await sender.sweep();
  expect(await waiting()).toBe(0);
  await house.database
    .unscoped()('sender_check')
    .update({ checked_at: new Date(Date.now() - 25 * 3_600_000) });
  await sender.sweep();
  expect(await waiting()).toBe(1);
});

test('texts go no faster than the number takes them', async () => {
  house.startWorker();
  await house.client.put('/api/sender/number', { kind: 'long', registration: 'waiting', perSecond: 5 });
  const rows = [1, 2, 3, 4, 5, 6, 7].map((i) => `,P${i},Lee,206555011${i}`);
  const batch = await bringIn(house.client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'));
  const id = await draftText(house.client, { from: [{ kind: 'batch', id: batch.id }] }, 'Two planks left');
  const began = Date.now();
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  expect(house.gateway.texts.length).toBeGreaterThanOrEqual(7);
  // Seven at five a second: the last one goes 1.2 s after the first. A lower bound: no machine is too slow.
  expect(Date.now() - began).toBeGreaterThanOrEqual(1150);
  expect((await house.client.get<SenderView>('/api/sender')).number).toMatchObject({
    kind: 'long',
    perSecond: 5,
  });
});

test('a writer sees nothing of it, and an organizer changes no number', async () => {
  const [writer, organizer] = [await house.as('writer'), await house.as('organizer')];
  expect((await writer.call('GET', '/api/sender')).status).toBe(403);
  const number = { kind: 'long', registration: 'registered', perSecond: null };
  expect((await organizer.call('PUT', '/api/sender/number', number)).status).toBe(403);
});
