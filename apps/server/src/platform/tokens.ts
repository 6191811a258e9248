import { createCipheriv, createDecipheriv, createHash, createHmac, timingSafeEqual } from 'node:crypto';

export const TOKEN_USES = ['leave', 'open', 'follow', 'bounce', 'confirm', 'choices'] as const;
export type TokenUse = (typeof TOKEN_USES)[number];

const BLOCK = 16;
const SIGNATURE = 12;

/**
 * Signed tokens for links in messages. A token is one encrypted block (use, id, extra number) and 12 bytes of
 * HMAC-SHA-256 over it: it says nothing by itself, can't be made or changed without the key, and never expires. Its
 * base-32 form has one case only, since a bounce address may come back with its case changed.
 */
export class Tokens {
  private readonly cipherKey: Buffer;
  private readonly signKey: Buffer;

  constructor(secret: string) {
    this.cipherKey = createHash('sha256').update(`cipher:${secret}`).digest().subarray(0, BLOCK);
    this.signKey = createHash('sha256').update(`sign:${secret}`).digest();
  }

  make(use: TokenUse, id: number, extra = 0): string {
    const plain = Buffer.alloc(BLOCK);
    plain.writeUInt8(TOKEN_USES.indexOf(use), 0);
    plain.writeUIntBE(id, 1, 6);
    plain.writeUInt32BE(extra, 7);
    const cipher = createCipheriv('aes-128-ecb', this.cipherKey, null).setAutoPadding(false);
    const block = Buffer.concat([cipher.update(plain), cipher.final()]);
    return base32(Buffer.concat([block, this.sign(block)]));
  }

  /** What the token says, or null where it is not one of ours for this use. */
  read(use: TokenUse, token: string): { id: number; extra: number } | null {
    const bytes = unbase32(token);
    if (bytes?.length !== BLOCK + SIGNATURE) return null;
    const block = bytes.subarray(0, BLOCK);
    if (!timingSafeEqual(bytes.subarray(BLOCK), this.sign(block))) return null;
    const decipher = createDecipheriv('aes-128-ecb', this.cipherKey, null).setAutoPadding(false);
    const plain = Buffer.concat([decipher.update(block), decipher.final()]);
    if (TOKEN_USES[plain.readUInt8(0)] !== use) return null;
    return { id: plain.readUIntBE(1, 6), extra: plain.readUInt32BE(7) };
  }

  private sign(block: Buffer): Buffer {
    return createHmac('sha256', this.signKey).update(block).digest().subarray(0, SIGNATURE);
  }
}

/** RFC 4648 §6 alphabet in lower case, without padding. */
const ALPHABET = 'abcdefghijklmnopqrstuvwxyz234567';

function base32(bytes: Buffer): string {
  let [out, bits, value] = ['', 0, 0];
  for (const byte of bytes) {
    value = ((value << 8) | byte) & 0xfff;
    bits += 8;
    while (bits >= 5) {
      bits -= 5;
      out += ALPHABET[(value >>> bits) & 31];
    }
  }
  return bits > 0 ? out + ALPHABET[(value << (5 - bits)) & 31] : out;
}

function unbase32(text: string): Buffer | null {
  const out: number[] = [];
  let [bits, value] = [0, 0];
  for (const char of text.toLowerCase()) {
    const digit = ALPHABET.indexOf(char);
    if (digit < 0) return null;
    value = ((value << 5) | digit) & 0xfff;
    bits += 5;
    if (bits >= 8) {
      bits -= 8;
      out.push((value >>> bits) & 0xff);
    }
  }
  // Bits that no byte is made of: one spelling alone stands for a token.
  return (value & ((1 << bits) - 1)) === 0 ? Buffer.from(out) : null;
}

/** Keyed hash of an address, for do-not-contact: tells whether an address is on it, never which are. */
export function addressHash(secret: string, kind: string, normal: string): string {
  return createHmac('sha256', secret).update(`${kind}:${normal}`).digest('hex');
}
