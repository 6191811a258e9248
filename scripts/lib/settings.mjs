/** Settings and keys of one run: made once, kept in the ignored folder, passed on by environment. */
import { createPublicKey, generateKeyPairSync, randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureFolder, ROOT } from './prepare.mjs';

function once(path, make) {
  if (!existsSync(path)) writeFileSync(path, make(), { mode: 0o600 });
  return readFileSync(path, 'utf8').trim();
}

/** What the stand-in's domain name service knows at first: everything that the demo's sender needs. */
const zoneOf = (dkim) => {
  const key = createPublicKey(readFileSync(dkim, 'utf8')).export({ type: 'spki', format: 'der' });
  return [
    `gw._domainkey.lanternferry.test TXT v=DKIM1; k=rsa; p=${key.toString('base64')}`,
    'lists.lanternferry.test TXT v=spf1 include:_spf.mailroom.test -all',
    'lists.lanternferry.test MX 127.0.0.1',
    '_dmarc.lanternferry.test TXT v=DMARC1; p=none',
  ].join('\n');
};

/** The environment of server, worker and stand-ins, from the ports that were free. */
export function settingsFor(folder, { databaseUrl, ports, extra = {} }) {
  const keys = ensureFolder(join(folder, 'keys'));
  const secret = once(join(keys, 'secret'), () => randomBytes(32).toString('hex'));
  const hook = once(join(keys, 'hook'), () => randomBytes(16).toString('hex'));
  const textKey = once(join(keys, 'text'), () => randomBytes(16).toString('hex'));
  const deskToken = once(join(keys, 'desk'), () => randomBytes(16).toString('hex'));
  const dkim = join(keys, 'dkim.pem');
  once(
    dkim,
    () =>
      generateKeyPairSync('rsa', {
        modulusLength: 2048,
        privateKeyEncoding: { type: 'pkcs8', format: 'pem' },
        publicKeyEncoding: { type: 'spki', format: 'pem' },
      }).privateKey,
  );
  const base = `http://127.0.0.1:${ports.http}`;
  return {
    NODE_ENV: 'production',
    DATABASE_URL: databaseUrl,
    PORT: String(ports.http),
    HOST: '127.0.0.1',
    PUBLIC_URL: base,
    SECRET: secret,
    DATA_DIR: ensureFolder(join(folder, 'app')),
    WEB_DIR: join(ROOT, 'apps/web/dist/app'),
    SMTP_URL: `smtp://127.0.0.1:${ports.mailroomSmtp}`,
    TEXT_URL: `http://127.0.0.1:${ports.handsets}`,
    TEXT_KEY: textKey,
    TEXT_HOOK_SECRET: hook,
    INBOUND_SMTP_PORT: String(ports.bounces),
    DKIM_KEY_FILE: dkim,
    DKIM_DOMAIN: 'lanternferry.test',
    DOMAIN_LOOKUP: `http://127.0.0.1:${ports.mailroom}/lookup/domains`,
    NAME_LOOKUP: `http://127.0.0.1:${ports.mailroom}/lookup/records`,
    MAILROOM_ZONE: zoneOf(dkim),
    LINE_LOOKUP: `http://127.0.0.1:${ports.handsets}/lookup/lines`,
    MAILROOM_PAGE: `http://127.0.0.1:${ports.mailroom}`,
    HANDSETS_PAGE: `http://127.0.0.1:${ports.handsets}`,
    MAILROOM_SMTP_PORT: String(ports.mailroomSmtp),
    MAILROOM_HTTP_PORT: String(ports.mailroom),
    BOUNCE_SMTP_PORT: String(ports.bounces),
    HANDSETS_PORT: String(ports.handsets),
    TEXT_HOOK_URL: `${base}/hooks/text`,
    TEXT_OUR_NUMBER: '+12065550100',
    FEED_PRIVATE: `127.0.0.1:${ports.desk}`,
    DONOR_DESK_PORT: String(ports.desk),
    DONOR_DESK_TOKEN: deskToken,
    DONOR_DESK_PAGE: `http://127.0.0.1:${ports.desk}`,
    ...extra,
  };
}

/** Waits until an address answers well, or says that it did not. */
export async function waitFor(url, seconds = 30) {
  for (let i = 0; i < seconds * 10; i++) {
    const ok = await fetch(url).then(
      (response) => response.ok,
      () => false,
    );
    if (ok) return true;
    await new Promise((done) => setTimeout(done, 100));
  }
  return false;
}
