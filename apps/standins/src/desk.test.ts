import { createServer } from 'node:http';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { Webhook } from 'standardwebhooks';
import { DonorDesk } from './desk';

const TOKEN = 'a token of tests';
let desk: DonorDesk;
beforeEach(async () => {
  desk = new DonorDesk({ port: 0, token: TOKEN, people: 25, pageSize: 10 });
  await new Promise((done) => setTimeout(done, 20));
});
afterEach(() => desk.close());

const get = async (path: string, headers: Record<string, string> = {}) => {
  const answer = await fetch(`http://127.0.0.1:${desk.port}${path}`, {
    headers: { authorization: `Bearer ${TOKEN}`, ...headers },
  });
  const text = await answer.text();
  return { status: answer.status, etag: answer.headers.get('etag'), text };
};
interface Page {
  records: { id: string; gone?: boolean }[];
  next: string | null;
  position: string;
}

async function all(path: string): Promise<{ ids: string[]; gone: string[]; position: string }> {
  const [ids, gone] = [[] as string[], [] as string[]];
  let position = '';
  for (let next: string | null = path; next;) {
    const page = JSON.parse((await get(next)).text) as Page;
    for (const record of page.records) (record.gone ? gone : ids).push(record.id);
    ({ next, position } = page);
  }
  return { ids, gone, position };
}

test('answers whoever has the token, in pages, by filter and since a position', async () => {
  expect((await get('/v1/types', { authorization: 'Bearer another' })).status).toBe(401);
  const { ids, position } = await all('/v1/records/members');
  expect([ids.length, new Set(ids).size]).toEqual([25, 25]);
  expect((await all('/v1/records/members?filter=paid-up')).ids.length).toBeLessThan(25);
  await desk.change(ids[0]!, { gone: true });
  await desk.change(ids[1]!, { first: 'Changed' });
  expect(await all(`/v1/records/members?since=${position}`)).toMatchObject({ ids: [ids[1]], gone: [ids[0]] });
});

test('says that nothing changed by its entity tag (RFC 9110 section 13.1.2)', async () => {
  const { etag } = await get('/v1/records/members');
  expect((await get('/v1/records/members', { 'if-none-match': etag! })).status).toBe(304);
  await desk.change('D-1000', { first: 'Another' });
  expect((await get('/v1/records/members', { 'if-none-match': etag! })).status).toBe(200);
});

test('tells of a change, signed', async () => {
  const heard: { headers: Record<string, string>; body: string }[] = [];
  const listener = createServer((request, response) => {
    let body = '';
    request.on('data', (piece: Buffer) => (body += piece.toString()));
    request.on('end', () => {
      heard.push({ headers: request.headers as Record<string, string>, body });
      response.end();
    });
  }).listen(0, '127.0.0.1');
  await once(listener, 'listening');
  const secret = `whsec_${Buffer.from('a secret of the tests').toString('base64')}`;
  await fetch(`http://127.0.0.1:${desk.port}/v1/hooks/members`, {
    method: 'POST',
    headers: { authorization: `Bearer ${TOKEN}`, 'content-type': 'application/json' },
    body: JSON.stringify({ url: `http://127.0.0.1:${(listener.address() as AddressInfo).port}/`, secret }),
  });
  await desk.change('D-1000', { first: 'Told' });
  listener.close();
  expect(new Webhook(secret).verify(heard[0]!.body, heard[0]!.headers)).toMatchObject({
    type: 'members.changed',
  });
});

test('fails as it is asked to', async () => {
  desk.fault = 'status 500';
  expect((await get('/v1/records/members')).status).toBe(500);
  desk.fault = 'half a page';
  const { text } = await get('/v1/records/members');
  expect(() => JSON.parse(text)).toThrow();
  desk.fault = 'everybody is gone';
  expect((await all('/v1/records/members')).ids).toEqual([]);
});
