import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { plainAmerican } from '@goodword/core/intake';
import { parsePhoneNumberFromString } from 'libphonenumber-js/max';
import { DnsDomains, HttpDomains, HttpLines, linesFrom, domainsFrom, NumberLines } from './lookups';

const failing = (code: string) => Promise.reject(Object.assign(new Error(code), { code }));

/** A name system in a table: exchangers, addresses, or the fault that asking gives. */
function dns(table: Record<string, { mx?: string[]; a?: string[]; fault?: string }>) {
  const ask = <T>(
    name: string,
    pick: (entry: { mx?: string[]; a?: string[] }) => T[] | undefined,
  ): Promise<T[]> => {
    const entry = table[name];
    if (entry?.fault) return failing(entry.fault);
    const found = entry && pick(entry);
    return found ? Promise.resolve(found) : failing('ENOTFOUND');
  };
  return {
    resolveMx: (name: string) => ask(name, ({ mx }) => mx?.map((exchange) => ({ exchange, priority: 10 }))),
    resolve4: (name: string) => ask(name, ({ a }) => a),
    resolve6: () => failing('ENODATA'),
  };
}

// RFC 5321 §5.1: an address serves where there is no exchanger. RFC 7505 §3: a null exchanger takes no mail.
test('whether a domain takes mail, by the name system', async () => {
  const domains = new DnsDomains(
    dns({
      'mx.test': { mx: ['mail.mx.test'] },
      'a.test': { a: ['192.0.2.1'] },
      'null.test': { mx: [''], a: ['192.0.2.1'] },
      'away.test': { fault: 'ETIMEOUT' },
    }) as never,
  );
  expect(
    Object.fromEntries(
      await domains.takeMail(['mx.test', 'a.test', 'null.test', 'nowhere.test', 'away.test']),
    ),
  ).toEqual({
    'mx.test': true,
    'a.test': true,
    'null.test': false,
    'nowhere.test': false,
  });
});

describe('a service over HTTP', () => {
  /** Answers as the stand-ins do: domains and numbers in, a word for each that it knows out. */
  const service = createServer((request, response) => {
    let body = '';
    request.on('data', (piece: Buffer) => (body += piece.toString()));
    request.on('end', () => {
      const { domains, numbers } = JSON.parse(body) as { domains?: string[]; numbers?: string[] };
      const known = domains
        ? domains.filter((name) => name !== 'silent.test').map((name) => [name, name !== 'dead.test'])
        : numbers!.map((number) => [number, number.endsWith('99') ? 'landline' : 'unheard of']);
      response.setHeader('content-type', 'application/json').end(JSON.stringify(Object.fromEntries(known)));
    });
  });
  let url = '';
  beforeAll(async () => {
    await new Promise<void>((done) => service.listen(0, '127.0.0.1', done));
    url = `http://127.0.0.1:${(service.address() as AddressInfo).port}/`;
  });
  afterAll(() => new Promise((done) => service.close(done)));

  test('domains: what it does not know is left out', async () => {
    const answers = await new HttpDomains(url).takeMail(['example.org', 'dead.test', 'silent.test']);
    expect(Object.fromEntries(answers)).toEqual({ 'example.org': true, 'dead.test': false });
  });

  test('lines: a word that is no kind of line is none, and the number itself is asked as well', async () => {
    expect(
      Object.fromEntries(await new HttpLines(url).typesOf(['+12065550121', '+12065550199', '+442079460018'])),
    ).toEqual({
      '+12065550199': 'landline',
      '+442079460018': 'landline',
    });
    expect(
      Object.fromEntries(
        await new HttpLines('http://127.0.0.1:9/').typesOf(['+442079460018', '+12065550121']),
      ),
    ).toEqual({
      '+442079460018': 'landline',
    });
  });
});

test('nobody to ask is no answer', async () => {
  expect((await domainsFrom('').takeMail(['example.org'])).size).toBe(0);
  expect(linesFrom('')).toBeInstanceOf(NumberLines);
  expect((await new HttpDomains('http://127.0.0.1:9/').takeMail(['example.org'])).size).toBe(0);
});

// Held against libphonenumber's full tables, for every area and every hundred of its first exchange numbers.
test('of plain numbers of the United States no table says more than that they may be either', () => {
  let asked = 0;
  for (let area = 200; area < 1000; area++)
    for (let exchange = 200; exchange < 1000; exchange += 99) {
      const number = `+1${area}${exchange}0142`;
      if (!plainAmerican(number, 'US')) continue;
      asked += 1;
      expect(parsePhoneNumberFromString(number)?.getType()).toBe('FIXED_LINE_OR_MOBILE');
    }
  expect(asked).toBeGreaterThan(2000);
});
