import fc from 'fast-check';
import { readConfig } from './config';
import { Scoped } from './database';
import { Tokens, TOKEN_USES } from './tokens';

describe('configuration', () => {
  const good = {
    DATABASE_URL: 'mysql://root@127.0.0.1:1/x',
    PUBLIC_URL: 'http://127.0.0.1:4600',
    SECRET: 'ab'.repeat(32),
    DATA_DIR: '/x',
    SMTP_URL: 'smtp://127.0.0.1:25',
    TEXT_URL: 'http://127.0.0.1:1',
    TEXT_KEY: 'a long key',
    TEXT_HOOK_SECRET: 'x'.repeat(16),
  };

  test('has defaults', () => expect(readConfig(good)).toMatchObject({ PORT: 4600, SMTP_CONNECTIONS: 5, LEASE_SECONDS: 60 }));

  test('every wrong value is named at once', () => {
    const read = () => readConfig({ ...good, PORT: 'many', SECRET: 'short', SMTP_URL: undefined });
    expect(read).toThrow(/"PORT".*"SECRET".*"SMTP_URL"/s);
  });

  test('a public address that is not loopback must be https (RFC 8058 §3.1 asks for it in List-Unsubscribe)', () => {
    expect(() => readConfig({ ...good, PUBLIC_URL: 'http://ferry.test' })).toThrow(/PUBLIC_URL/);
    expect(readConfig({ ...good, PUBLIC_URL: 'https://ferry.test' }).PUBLIC_URL).toBe('https://ferry.test');
  });
});

describe('tokens', () => {
  const tokens = new Tokens('a secret');
  const use = fc.constantFrom(...TOKEN_USES);

  test('say what was put in them, in either case', () => {
    fc.assert(
      fc.property(use, fc.nat({ max: 2 ** 40 }), fc.nat(), (kind, id, extra) => {
        const token = tokens.make(kind, id, extra);
        expect(tokens.read(kind, token)).toEqual({ id, extra });
        expect(tokens.read(kind, token.toUpperCase())).toEqual({ id, extra });
        expect(token).toMatch(/^[a-z2-7]{45}$/);
      }),
    );
  });

  test('serve one use only, one key only, and no change', () => {
    fc.assert(
      fc.property(use, use, fc.nat(), fc.nat({ max: 44 }), fc.constantFrom(...'abcdefghijklmnopqrstuvwxyz234567'), (kind, other, id, at, letter) => {
        const token = tokens.make(kind, id);
        if (kind !== other) expect(tokens.read(other, token)).toBeNull();
        expect(new Tokens('another').read(kind, token)).toBeNull();
        const changed = token.slice(0, at) + letter + token.slice(at + 1);
        if (changed !== token) expect(tokens.read(kind, changed)).toBeNull();
      }),
    );
    expect(tokens.read('leave', '')).toBeNull();
    expect(tokens.read('leave', 'not a token!')).toBeNull();
  });
});

test('a query that forgets its organization cannot be made', async () => {
  const scoped = new Scoped(null as never, { organizationId: 1, chapterId: null, actorId: null, role: 'owner' });
  await expect(scoped.sql('SELECT * FROM supporter')).rejects.toThrow(/names :org/);
});
