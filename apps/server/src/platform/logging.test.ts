import fc from 'fast-check';
import pino from 'pino';
import { readConfig } from './config';
import { errorOf, loggingOf, masked, pathOf } from './logging';
import { createHash } from 'node:crypto';

const PEOPLE = [
  'ada.lovell@ferry.test',
  'Ada Lovell <ada+x@ferry.test>',
  '+1 206 555 0123',
  '(206) 555-0123',
  '2065550123',
  'ändrä@fähre.test',
];

test.each(PEOPLE)('no %s', (who) => {
  const told = masked(`refused: ${who} is not here`);
  expect(told).not.toMatch(/ada|lovell@|0123|fähre/);
  expect(told).toMatch(/^refused: /);
});

test('what is no person stays: times, codes, ports, counts', () => {
  for (const text of [
    'answered 550 5.1.1 after 1200 ms',
    '127.0.0.1:4600',
    '12,345 of 50,000 rows',
    'batch 4711',
  ])
    expect(masked(text)).toBe(text);
});

test('no search words and no tokens', () => {
  expect(pathOf('/api/people?search=ada.lovell%40ferry.test')).toBe('/api/people');
  for (const path of [
    '/leave/abcdefghijklmnop',
    '/api/password/abcdefghijklmnop',
    '/password/abcdefghijklmnop',
    '/choices/abcdefghijklmnop/data.json',
  ])
    expect(pathOf(path)).not.toContain('abcdefgh');
});

test('of a statement that failed neither its values nor what the database says of them', () => {
  const error = Object.assign(
    new Error(
      "insert into `contact_point` values ('ada@ferry.test') - Duplicate entry 'ada@ferry.test' for key",
    ),
    {
      code: 'ER_DUP_ENTRY',
      sqlState: '23000',
      sql: "insert into x values ('ada@ferry.test')",
    },
  );
  const told = JSON.stringify(errorOf(error));
  expect(told).not.toContain('ada');
  expect(told).not.toContain('insert');
  expect(told).toContain('ER_DUP_ENTRY');
});

test('whatever is logged, by whatever road, holds no address', () => {
  const env = {
    DATABASE_URL: 'mysql://root@127.0.0.1:1/x',
    PUBLIC_URL: 'http://127.0.0.1:1',
    DATA_DIR: '/x',
    SMTP_URL: 'smtp://127.0.0.1:25',
  };
  const config = readConfig({ ...env, SECRET: createHash('sha256').update('tests').digest('hex') });
  const lines: string[] = [];
  const log = pino(
    { ...(loggingOf(config).pinoHttp as pino.LoggerOptions) },
    { write: (line: string) => void lines.push(line) },
  );
  const local = fc.stringMatching(/^[a-z]{3,12}$/);
  fc.assert(
    fc.property(local, local, (name, domain) => {
      const address = `${name}@${domain}.test`;
      log.info(address);
      log.warn({ err: new Error(`could not send to <${address}>`) }, `to ${address}`);
      log.error(Object.assign(new Error(`value '${address}'`), { code: 'ER_BAD', sql: address }));
      log.info({ req: { method: 'GET', url: `/api/find?words=${address}` } });
      expect(lines.splice(0).join('')).not.toContain(address);
    }),
  );
});
