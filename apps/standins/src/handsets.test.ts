import { createHmac } from 'node:crypto';
import { Handsets } from './handsets';
import { freePort, listener, untilTrue } from './testing';

const [KEY, SECRET, OURS] = ['a key of tests', 'a secret of tests', '+12065550100'];
let phones: Handsets;
let program: Awaited<ReturnType<typeof listener>>;
let base = '';

beforeAll(async () => {
  const port = await freePort();
  program = await listener();
  base = `http://127.0.0.1:${port}`;
  phones = new Handsets({
    port,
    key: KEY,
    hookUrl: `${program.url}/hooks/text`,
    hookSecret: SECRET,
    ourNumber: OURS,
    receiptDelay: 20,
    repeatReceipts: true,
  });
});
afterAll(async () => {
  await phones.close();
  await program.close();
});
beforeEach(() => void (program.heard.length = 0));

const send = (to: string, text: string, key: string | null, authorization = `Bearer ${KEY}`) =>
  fetch(`${base}/v1/messages`, {
    method: 'POST',
    headers: {
      'content-type': 'application/json',
      authorization,
      ...(key ? { 'idempotency-key': key } : {}),
    },
    body: JSON.stringify({ to, text }),
  });
const hooks = () => program.heard.map(({ body }) => JSON.parse(body) as Record<string, string>);
const textsOf = async (number: string) =>
  (await (await fetch(`${base}/api/texts?number=${encodeURIComponent(number)}`)).json()) as {
    body: string;
    from: string;
  }[];

test('the same key is delivered once, however often it is sent, and gets the same id', async () => {
  const first = (await (await send('+12065550111', 'Boots on Saturday', 'k-1')).json()) as { id: string };
  const again = (await (await send('+12065550111', 'Boots on Saturday', 'k-1')).json()) as { id: string };
  expect(again).toEqual(first);
  expect(await textsOf('+12065550111')).toMatchObject([{ body: 'Boots on Saturday', from: 'us' }]);
});

test('receipts are signed over their very bytes, and come twice, as networks send them', async () => {
  await send('+12065550112', 'Hello', 'k-2');
  await untilTrue(
    'two receipts',
    () => hooks().filter(({ key }) => key === 'k-2'),
    (found) => found.length === 2,
  );
  for (const { body, headers } of program.heard)
    expect(headers['x-signature']).toBe(createHmac('sha256', SECRET).update(body).digest('hex'));
  expect(hooks().find(({ key }) => key === 'k-2')).toMatchObject({ type: 'receipt', status: 'delivered' });
});

test('a number out of service fails by receipt, one that is no mobile is refused at once', async () => {
  expect((await send('+12065550198', 'Hello', 'k-3')).status).toBe(202);
  const [receipt] = await untilTrue(
    'the receipt',
    () => hooks().filter(({ key }) => key === 'k-3'),
    (found) => found.length > 0,
  );
  expect(receipt).toMatchObject({ status: 'failed', reason: 'Number not in service' });
  expect(await textsOf('+12065550198')).toEqual([]);
  const refused = await send('+12065550197', 'Hello', 'k-4');
  expect([refused.status, await refused.json()]).toEqual([
    422,
    { error: 'Not a mobile number', address: true },
  ]);
});

test.each<[string, Parameters<typeof send>, number]>([
  ['another key', ['+12065550113', 'Hello', 'k-5', 'Bearer wrong'], 401],
  ['no idempotency key', ['+12065550113', 'Hello', null], 400],
  ['no words', ['+12065550113', '', 'k-6'], 400],
  ['nobody', ['', 'Hello', 'k-7'], 400],
])('%s is refused, and nothing is delivered', async (_name, what, status) => {
  expect((await send(...what)).status).toBe(status);
  expect(await textsOf('+12065550113')).toEqual([]);
});

test('a phone answers to our number, on its page and over the API', async () => {
  await fetch(`${base}/api/phones/${encodeURIComponent('+12065550114')}/answer`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ text: 'Is there parking?' }),
  });
  const page = await fetch(`${base}/phones/${encodeURIComponent('+12065550114')}/answer`, {
    method: 'POST',
    body: new URLSearchParams({ text: '<b>STOP</b>' }),
    redirect: 'manual',
  });
  expect(page.status).toBe(303);
  expect(hooks()).toMatchObject([
    { type: 'inbound', from: '+12065550114', to: OURS, text: 'Is there parking?' },
    { type: 'inbound', text: '<b>STOP</b>' },
  ]);
  // What a phone wrote is shown as words, and does nothing.
  const shown = await (await fetch(`${base}/?phone=${encodeURIComponent('+12065550114')}`)).text();
  expect(shown).toContain('&#60;b&#62;STOP&#60;/b&#62;');
  expect(shown).not.toContain('<b>STOP</b>');
});

test('lines are told apart: the last number of each area is a landline', async () => {
  const answer = await fetch(`${base}/lookup/lines`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ numbers: ['+12065550199', '+12065550101', null] }),
  });
  expect(await answer.json()).toEqual({ '+12065550199': 'landline', '+12065550101': 'mobile' });
});

test('while the program does not answer, it is told again', async () => {
  const [away, port] = [await listener([503, 500]), await freePort()];
  const others = new Handsets({ port, key: KEY, hookUrl: away.url, hookSecret: SECRET, ourNumber: OURS });
  await others.answer('+12065550115', 'Anybody there?');
  expect(away.heard).toHaveLength(3);
  expect(new Set(away.heard.map(({ body }) => body)).size).toBe(1);
  await others.close();
  await away.close();
});
