import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';

/** What lies in the database wrapped by the secret: each use has a key of its own (HKDF, RFC 5869). */
export type WrapUse = 'house keys' | 'feed tokens';

const keyOf = (secret: string, use: WrapUse) => Buffer.from(hkdfSync('sha256', secret, '', use, 32));

/** Wraps a text by the secret (AES-256-GCM, NIST SP 800-38D): nonce, text and tag in base64. */
export function wrap(plain: string, secret: string, use: WrapUse): string {
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', keyOf(secret, use), nonce);
  return Buffer.concat([nonce, cipher.update(plain, 'utf8'), cipher.final(), cipher.getAuthTag()]).toString(
    'base64',
  );
}

/** The text again; null where it was not wrapped by this secret for this use. */
export function unwrap(wrapped: string, secret: string, use: WrapUse): string | null {
  const bytes = Buffer.from(wrapped, 'base64');
  const decipher = createDecipheriv('aes-256-gcm', keyOf(secret, use), bytes.subarray(0, 12), {
    authTagLength: 16,
  });
  decipher.setAuthTag(bytes.subarray(-16));
  try {
    return Buffer.concat([decipher.update(bytes.subarray(12, -16)), decipher.final()]).toString('utf8');
  } catch {
    return null;
  }
}

/** The text again, wrapped by the secret of now or of before; null where by neither. */
export function unwrapByEither(
  wrapped: string,
  { SECRET, SECRET_BEFORE }: { SECRET: string; SECRET_BEFORE: string },
  use: WrapUse,
): string | null {
  return unwrap(wrapped, SECRET, use) ?? (SECRET_BEFORE === '' ? null : unwrap(wrapped, SECRET_BEFORE, use));
}
