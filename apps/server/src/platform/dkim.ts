import { readFileSync } from 'node:fs';
import { createHash, createPrivateKey, createPublicKey, sign, type KeyObject } from 'node:crypto';
import type { Config } from './config';
import { signatureHead, signedNames, signedWords } from '@goodword/core/mail';

/** A key that mails are signed with (RFC 6376; RFC 8463 where it is of Ed25519). */
export interface DkimKey {
  domain: string;
  selector: string;
  key: KeyObject;
}

/** Reads a private key in PEM; throws what is wrong with it, for whoever set it. */
export function dkimKey(domain: string, selector: string, pem: string): DkimKey {
  const key = createPrivateKey(pem);
  const bits = key.asymmetricKeyDetails?.modulusLength ?? 0;
  if (key.asymmetricKeyType === 'ed25519') return { domain, selector, key };
  if (key.asymmetricKeyType !== 'rsa')
    throw new Error(`a key for signing mail is of RSA or Ed25519, this one of ${key.asymmetricKeyType}`);
  // RFC 8301 §3.2: at least 1024, and 2048 wherever it can be.
  if (bits < 1024) throw new Error(`a key for signing mail has at least 1024 bits, this one ${bits}`);
  return { domain, selector, key };
}

type Settings = Pick<Config, 'DKIM_DOMAIN' | `DKIM_${'' | 'SECOND_' | 'NEXT_'}${'KEY_FILE' | 'SELECTOR'}`>;

/** Keys that sign, and the one that will. */
export function dkimKeysOf(config: Settings): { inUse: DkimKey[]; next: DkimKey[] } {
  const read = (file: string, selector: string): DkimKey[] =>
    file && config.DKIM_DOMAIN ? [dkimKey(config.DKIM_DOMAIN, selector, readFileSync(file, 'utf8'))] : [];
  return {
    inUse: [
      ...read(config.DKIM_KEY_FILE, config.DKIM_SELECTOR),
      ...read(config.DKIM_SECOND_KEY_FILE, config.DKIM_SECOND_SELECTOR),
    ],
    next: read(config.DKIM_NEXT_KEY_FILE, config.DKIM_NEXT_SELECTOR),
  };
}

/** The words of the TXT record beside a key (RFC 6376 §3.6.1; RFC 8463 §4: the bare key of Ed25519). */
export function dkimRecord({ key }: Pick<DkimKey, 'key'>): string {
  const der = createPublicKey(key).export({ type: 'spki', format: 'der' });
  return key.asymmetricKeyType === 'ed25519'
    ? `v=DKIM1; k=ed25519; p=${der.subarray(-32).toString('base64')}`
    : `v=DKIM1; k=rsa; p=${der.toString('base64')}`;
}

const sha256 = (text: string): Buffer => createHash('sha256').update(text).digest();

/** One signature over the words; with RSA on another thread, since it is most of the work of a mail. */
function signed(key: KeyObject, words: string): Promise<Buffer> | Buffer {
  // RFC 8463 §3: Ed25519 signs the hash.
  if (key.asymmetricKeyType === 'ed25519') return sign(null, sha256(words), key);
  return new Promise((done, fail) =>
    sign('sha256', Buffer.from(words), key, (error, signature) => (error ? fail(error) : done(signature))),
  );
}

/**
 * The headers that sign a mail, one for each key, to be put before the others. The body is its own relaxed
 * form, see core/mail.
 */
export async function signatures(
  keys: readonly DkimKey[],
  headers: readonly string[],
  body: string,
  now: Date,
): Promise<string> {
  if (keys.length === 0) return '';
  const bodyHash = sha256(body).toString('base64');
  const names = signedNames(headers);
  const all = keys.map(async ({ domain, selector, key }) => {
    const algorithm = key.asymmetricKeyType === 'ed25519' ? 'ed25519-sha256' : 'rsa-sha256';
    const at = Math.floor(now.getTime() / 1000);
    const head = signatureHead({ algorithm, domain, selector, at, headers: names, bodyHash });
    const signature = (await signed(key, signedWords(headers, names, head))).toString('base64');
    return `${head}${signature.replace(/.{72}(?=.)/g, '$&\r\n ')}\r\n`;
  });
  return (await Promise.all(all)).join('');
}
