import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { createApp } from '../create-app';
import { readConfig } from '../platform/config';
import { Client, openTestHouse, eventually, type TestHouse } from '../testing/harness';
import { isPassword, hashPassword, refuseEasy } from './passwords';
import { networkOf, SignInBrake } from './sign-in-brake';

const GOOD = 'seven otters under the slipway';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const words = async (act: string) =>
  (await house.database
    .unscoped()('audit')
    .where({ act, subject: 'teammate' })
    .orderBy('id', 'desc')
    .select('words', 'actor_id')) as {
    words: string;
    actor_id: number | null;
  }[];
const linkIn = async (to: string, after = 0) => {
  const mail = await eventually(
    `a mail to ${to}`,
    () => house.sink.mails.filter((one) => one.to === to)[after],
    Boolean,
  );
  return /\/password\/([a-z2-7]+)/.exec(mail!.raw.replace(/=\r?\n/g, ''))![1]!;
};

describe('a session', () => {
  test('ends when idle, and after two weeks in any case', async () => {
    const client = await house.as('viewer', null, 'idle');
    expect((await client.call('GET', '/api/session')).status).toBe(200);
    const age = (column: string, hours: number) =>
      house.database
        .unscoped()('session')
        .whereIn(
          'teammate_id',
          house.database
            .unscoped()('teammate')
            .where('email', 'viewer.allidle@lanternferry.test')
            .select('id'),
        )
        .update({ [column]: new Date(Date.now() - hours * 3_600_000) });
    await age('seen_at', 13);
    expect((await client.call('GET', '/api/session')).status).toBe(401);
    await age('seen_at', 1);
    expect((await client.call('GET', '/api/session')).status).toBe(200);
    await age('expires_at', 0.01);
    expect((await client.call('GET', '/api/session')).status).toBe(401);
  });

  test('stands in the list of one’s own, is ended there, alone or with all others, and nobody ends another’s', async () => {
    const [one, two] = [await house.as('writer', null, 'many'), await house.as('writer', null, 'many')];
    const list = await one.get<{ id: number; isThis: boolean; network: string }[]>('/api/me/sessions');
    expect(list.map(({ isThis }) => isThis).filter(Boolean)).toHaveLength(1);
    expect(list).toHaveLength(2);
    const other = list.find(({ isThis }) => !isThis)!;
    const stranger = await house.as('owner', null, 'stranger');
    expect((await stranger.call('DELETE', `/api/me/sessions/${other.id}`)).status).toBe(404);
    expect((await two.call('GET', '/api/session')).status).toBe(200);
    expect((await one.call('DELETE', `/api/me/sessions/${other.id}`)).status).toBe(204);
    expect((await two.call('GET', '/api/session')).status).toBe(401);
    const three = await house.as('writer', null, 'many');
    expect((await one.call('DELETE', '/api/me/sessions')).status).toBe(204);
    expect([
      (await three.call('GET', '/api/session')).status,
      (await one.call('GET', '/api/session')).status,
    ]).toEqual([401, 200]);
  });

  test('is begun by JSON alone: what a form elsewhere could send is refused before it is read', async () => {
    for (const type of ['application/x-www-form-urlencoded', 'text/plain', 'text/plain; application/json']) {
      const answer = await fetch(`${house.config.PUBLIC_URL}/api/session`, {
        method: 'POST',
        headers: { 'content-type': type },
        body: type.startsWith('text')
          ? JSON.stringify({ email: 'owner.all@lanternferry.test', password: 'a password for tests' })
          : 'email=a&password=b',
      });
      expect([type, answer.status, answer.headers.get('set-cookie')]).toEqual([type, 415, null]);
    }
  });

  test('answers are nobody’s to keep', async () => {
    const client = await house.as('owner');
    for (const path of ['/api/session', '/api/people', '/api/nothing'])
      expect((await client.call('GET', path)).headers.get('cache-control')).toBe('no-store');
  });
});

test('sign-ins and failures are written down, with who and where, and never with what was typed', async () => {
  await house.as('viewer', null, 'noted');
  const client = new Client(house.config.PUBLIC_URL);
  const typed = 'a wrong secret word';
  expect(
    (
      await client.call('POST', '/api/session', {
        email: 'viewer.allnoted@lanternferry.test',
        password: typed,
      })
    ).status,
  ).toBe(401);
  const [failed] = await eventually(
    'it to be written down',
    () => words('sign-in-failed'),
    (all) => all.length > 0,
  );
  expect(failed).toMatchObject({ actor_id: null, words: expect.stringContaining('127.0.0.1') as string });
  expect(JSON.stringify([await words('sign-in'), await words('sign-in-failed')])).not.toContain(typed);
  expect((await words('sign-in')).length).toBeGreaterThan(0);
});

describe('guessing', () => {
  const brake = () => house.app.get(SignInBrake);
  const miss = (who: Parameters<SignInBrake['try']>[0]) => brake().try(who, () => Promise.resolve(null));
  const failuresOf = async (name: string) =>
    (
      (await house.database
        .unscoped()('sign_in_failure')
        .where('key_hash', createHash('sha256').update(name).digest('hex'))
        .first('failures')) as { failures: number } | undefined
    )?.failures ?? 0;

  test('is counted per account and per network, and a right password clears the account alone', async () => {
    const who = { email: 'a@lanternferry.test', network: '192.0.2.7', known: undefined };
    for (let i = 0; i < 5; i++) await miss(who);
    await miss({ ...who, email: 'b@lanternferry.test', network: '192.0.2.200' });
    expect([await failuresOf('account:a@lanternferry.test'), await failuresOf('network:192.0.2')]).toEqual([
      5, 6,
    ]);
    await brake().try(who, () => Promise.resolve('in'));
    expect([await failuresOf('account:a@lanternferry.test'), await failuresOf('network:192.0.2')]).toEqual([
      0, 6,
    ]);
  });

  test('tries at one account come one after the other, however many networks make them', async () => {
    let [at, most] = [0, 0];
    const one = async () => {
      most = Math.max(most, ++at);
      await new Promise((done) => setTimeout(done, 5));
      at -= 1;
      return null;
    };
    await Promise.all(
      Array.from({ length: 8 }, (_none, i) =>
        brake().try({ email: 'c@lanternferry.test', network: `198.51.${i}.1`, known: undefined }, one),
      ),
    );
    expect(most).toBe(1);
  });

  test('more than can wait are told to come back; a browser that was here before still gets in at once', async () => {
    const email = 'd@lanternferry.test';
    let end: () => void = () => undefined;
    const held = new Promise<string>((done) => (end = () => done('in')));
    const guesses = Array.from({ length: 40 }, (_none, i) =>
      brake()
        .try({ email, network: `203.0.${i}.1`, known: undefined }, () => held)
        .catch((error: Error) => error),
    );
    const known = brake().deviceFor(email);
    expect(await brake().try({ email, network: '203.0.1.1', known }, () => Promise.resolve('in'))).toBe('in');
    end();
    const told = (await Promise.all(guesses)).filter((one) => one instanceof Error);
    expect(told).toHaveLength(20);
    expect((told[0] as Error).message).toContain('I forgot my password');
  });

  test('a cookie of another account, or one that was made up, is none', async () => {
    for (const known of [
      brake().deviceFor('e@lanternferry.test'),
      'x.y',
      '.',
      brake().deviceFor('f@lanternferry.test').replace(/.$/, ''),
    ]) {
      const before = await failuresOf('account:f@lanternferry.test');
      await miss({ email: 'f@lanternferry.test', network: '192.0.2.1', known });
      expect(await failuresOf('account:f@lanternferry.test')).toBe(before + 1);
    }
  });

  test.each([
    ['192.0.2.77', '192.0.2'],
    ['::ffff:192.0.2.77', '192.0.2'],
    ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2'],
    ['2001:db8::1', '2001:db8:0:0'],
    ['2001:0DB8:0001:0002::9', '2001:db8:1:2'],
    ['::1', '0:0:0:0'],
    ['fe80::1%eth0', 'fe80:0:0:0'],
  ])('the network of %s is %s (RFC 6177 §2: a subscriber holds at least a /64)', (address, network) =>
    expect(networkOf(address)).toBe(network),
  );
});

describe('a password', () => {
  test('that is guessed quickly is refused with a reason; four words that have nothing to do with each other pass', () => {
    // The first are from NIST SP 800-63B-4 §3.1.1.2's kinds: from breaches, of the dictionary, repeated, of
    // the context.
    for (const easy of [
      'password1234',
      'qwertyuiop',
      'aaaaaaaaaaaa',
      '123456789012',
      'lanternferry1',
      'rosa oduya 1',
      'goodword2026',
      'short',
    ])
      expect(() =>
        refuseEasy(easy, ['Rosa Oduya', 'rosa@lanternferry.test', 'Lantern Ferry Trust']),
      ).toThrow();
    for (const good of [GOOD, 'Wq8#kV2!mZ', 'бобры под мостом поют'])
      expect(() => refuseEasy(good, ['Rosa Oduya'])).not.toThrow();
  });

  test('is weighed in bounded time, however long and however many ways it can be read', () => {
    const weigh = (text: string) => {
      const from = process.hrtime.bigint();
      try {
        refuseEasy(text, []);
      } catch {
        // Easy ones are refused; how long that takes is what is asked.
      }
      return Number(process.hrtime.bigint() - from);
    };
    const signs = (n: number) =>
      fc.string({ unit: fc.constantFrom(...'@4({[<369!1|0$5+7%2ab'), minLength: n, maxLength: n });
    const middle = (times: number[]) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
    const plain = middle(fc.sample(fc.string({ minLength: 60, maxLength: 60 }), 9).map(weigh));
    for (const n of [60, 200]) expect(middle(fc.sample(signs(n), 9).map(weigh)) / plain).toBeLessThan(30);
  });

  test('nobody signs in where there is none yet', async () => {
    expect(await isPassword(null, 'nobody has this password')).toBe(false);
    expect(await isPassword(await hashPassword(GOOD), GOOD)).toBe(true);
  });

  test('is changed by who knows it; all other sessions end', async () => {
    const [client, other] = [
      await house.as('organizer', null, 'pw'),
      await house.as('organizer', null, 'pw'),
    ];
    const change = (current: string, password: string) =>
      client.call<{ faults: { field: string }[] }>('PUT', '/api/me/password', { current, password });
    expect((await change('not mine', GOOD)).body.faults[0]!.field).toBe('current');
    expect((await change('a password for tests', 'password1234')).body.faults[0]!.field).toBe('password');
    expect((await other.call('GET', '/api/session')).status).toBe(200);
    expect((await change('a password for tests', GOOD)).status).toBe(204);
    expect([
      (await client.call('GET', '/api/session')).status,
      (await other.call('GET', '/api/session')).status,
    ]).toEqual([200, 401]);
  });
});

describe('a forgotten password', () => {
  const email = 'writer.allforgot@lanternferry.test';

  test('is set by a link that works once, and only the newest; every session of before ends', async () => {
    const before = await house.as('writer', null, 'forgot');
    const client = new Client(house.config.PUBLIC_URL);
    expect((await client.call('POST', '/api/password/forgotten', { email })).status).toBe(204);
    const first = await linkIn(email);
    await client.call('POST', '/api/password/forgotten', { email });
    const token = await linkIn(email, 1);
    expect((await client.call('GET', `/api/password/${first}`)).status).toBe(409);
    expect(await client.get('/api/password/' + token)).toMatchObject({ kind: 'password', email });
    expect((await client.call('POST', `/api/password/${token}`, { password: 'password1234' })).status).toBe(
      422,
    );
    const both = await Promise.all(
      [0, 1].map(() =>
        new Client(house.config.PUBLIC_URL).call('POST', `/api/password/${token}`, { password: GOOD }),
      ),
    );
    expect(both.map((one) => one.status).sort()).toEqual([204, 409]);
    expect((await before.call('GET', '/api/session')).status).toBe(401);
    expect(
      await (await new Client(house.config.PUBLIC_URL).signIn(email, GOOD)).get('/api/me'),
    ).toMatchObject({ email });
  });

  test('fills nobody’s mailbox, and does not tell who works here', async () => {
    await house.as('writer', null, 'bombed');
    const client = new Client(house.config.PUBLIC_URL);
    const answers = [];
    for (const to of [
      ...Array<string>(5).fill('writer.allbombed@lanternferry.test'),
      'nobody@lanternferry.test',
    ])
      answers.push(await client.call('POST', '/api/password/forgotten', { email: to }));
    expect(new Set(answers.map(({ status, text }) => `${status}${text}`)).size).toBe(1);
    await linkIn('writer.allbombed@lanternferry.test');
    const [{ n }] = (await house.database
      .unscoped()('teammate_link')
      .join('teammate', 'teammate.id', 'teammate_link.teammate_id')
      .where('teammate.email', 'writer.allbombed@lanternferry.test')
      .count('* as n')) as [{ n: number }];
    expect(n).toBe(3);
  });

  test('a link that was altered or made for something else opens nothing', async () => {
    const client = new Client(house.config.PUBLIC_URL);
    for (const token of ['a'.repeat(56), 'nonsense', `${await linkIn(email)}a`])
      expect([409, 422]).toContain((await client.call('GET', `/api/password/${token}`)).status);
  });
});

test('the profile is what messages say of the sender', async () => {
  const client = await house.as('organizer', null, 'profile');
  const profile = {
    name: 'Ines Calder',
    title: 'Ferry keeper',
    mobile: '206 555 0123',
    answersTo: 'ines@lanternferry.test',
    signature: 'Ines',
  };
  const { email: _email, ...was } = await client.get<typeof profile & { email: string }>('/api/me');
  expect((await client.call('PUT', '/api/me', { ...profile, mobile: '12', was })).status).toBe(422);
  // From two windows of one's own at once, the second is told.
  const both = await Promise.all(
    ['Ines Calder', 'Ines C.'].map((name) => client.call('PUT', '/api/me', { ...profile, name, was })),
  );
  expect(both.map(({ status }) => status).sort()).toEqual([204, 409]);
  const { email: _same, ...now } = await client.get<typeof profile & { email: string }>('/api/me');
  expect((await client.call('PUT', '/api/me', { ...profile, was: now })).status).toBe(204);
  expect(await client.get('/api/me')).toMatchObject({ ...profile, mobile: '+12065550123' });
});

describe('what follows from the address', () => {
  const env = (more: Record<string, string>) => readConfig({ ...house.env, ...more });
  test('behind https the cookie is this host’s alone and the browser is told to stay with https', async () => {
    const app = await createApp(
      env({
        PUBLIC_URL: 'https://desk.lanternferry.test',
        TRUSTED_PROXIES: 'loopback',
        METRICS_TOKEN: 'a word for programs',
      }),
    );
    await app.listen(0, '127.0.0.1');
    const base = (await app.getUrl()).replace('[::1]', '127.0.0.1');
    const answer = await fetch(`${base}/api/session`, {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        'x-forwarded-for': '192.0.2.9',
        'x-forwarded-proto': 'https',
      },
      body: JSON.stringify({ email: 'owner.all@lanternferry.test', password: 'a password for tests' }),
    });
    expect(answer.headers.getSetCookie().find((one) => one.startsWith('__Host-gw_session='))).toMatch(
      /Path=\/; .*HttpOnly; Secure; SameSite=Lax/,
    );
    expect(answer.headers.get('strict-transport-security')).toContain('max-age=31536000');
    await eventually(
      'it to be written down',
      () => words('sign-in'),
      ([one]) => one!.words.includes('192.0.2.9'),
    );
    // From elsewhere, by the proxy: neither metrics nor the description of the API.
    const elsewhere = { 'x-forwarded-for': '192.0.2.9' };
    expect((await fetch(`${base}/metrics`, { headers: elsewhere })).status).toBe(403);
    expect(
      (
        await fetch(`${base}/metrics`, {
          headers: { ...elsewhere, authorization: 'Bearer a word for programs' },
        })
      ).status,
    ).toBe(200);
    for (const path of ['docs', 'docs/', 'docs-json', 'docs-yaml'])
      expect([
        path,
        (await fetch(`${base}/api/${path}`, { headers: elsewhere, redirect: 'manual' })).status,
      ]).toEqual([path, 302]);
    expect((await fetch(`${base}/metrics`)).status).toBe(200);
    await app.close();
  });

  test.each([
    ['a secret that chance did not make', { SECRET: 'ab'.repeat(32) }, /SECRET.*chance/],
    ['a key without its domain', { DKIM_DOMAIN: '' }, /DKIM_DOMAIN.*missing/],
    ['a key file that is not there', { DKIM_KEY_FILE: '/nowhere/dkim.pem' }, /DKIM_KEY_FILE.*not there/],
    ['texts without a key', { TEXT_KEY: '' }, /TEXT_KEY/],
  ])('%s is refused, and named', (_what, more, told) => expect(() => env(more)).toThrow(told));

  test('where no texts are sent, no gateway is asked for', () =>
    expect(env({ TEXT_URL: '', TEXT_KEY: '', TEXT_HOOK_SECRET: '' }).TEXT_URL).toBe(''));
});
