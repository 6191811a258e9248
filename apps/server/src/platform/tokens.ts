import {
  createCipheriv,
  createDecipheriv,
  createHash,
  createHmac,
  hkdfSync,
  timingSafeEqual,
} from 'node:crypto';

/** What a token is for. The order is that of their numbers in tokens; new ones come last. */
export const TOKEN_USES = [
  'leave',
  'open',
  'follow',
  'bounce',
  'confirm',
  'choices',
  'answer',
  'leave-by-mail',
  'never-ask',
  'teammate',
  'bounce-point',
  'bounce-mate',
  'check',
] as const;
export type TokenUse = (typeof TOKEN_USES)[number];

/** What a token says: what it is about, and two further numbers where a use has them. */
export interface TokenFacts {
  id: number;
  extra: number;
  more: number;
}

const NONCE = 12;
const TAG = 16;
const ID = 5;
const EXTRA = 4;

interface Key {
  /** Tells which key a token was made with. */
  id: number;
  cipher: Buffer;
  nonce: Buffer;
}

/**
 * Sealed tokens for links and addresses in messages: AES-256-GCM (NIST SP 800-38D) over use, id and further
 * numbers, with the number of the key before it. A token says nothing by itself, can't be made or changed
 * without the key, has exactly one spelling and never expires. The nonce is worked out from what is sealed
 * (HMAC-SHA-256, cut to 96 bits), so that a message that is handed over twice carries the same links. Base 32
 * has one case only: an address may come back with its case changed, and is put into lower case by whoever
 * reads addresses.
 *
 * 35 bytes where there are no further numbers: `answer-` and the token stay within the 64 octets of a local
 * part (RFC 5321 §4.5.3.1.1).
 */
export class Tokens {
  private readonly keys: readonly Key[];
  private readonly legacy: readonly LegacyTokens[];

  /** `before`: the secret of before, whose tokens are still read while new ones are made with the new. */
  constructor(secret: string, before = '') {
    const secrets = [secret, ...(before === '' ? [] : [before])];
    this.keys = secrets.map(keyOf);
    this.legacy = secrets.map((one) => new LegacyTokens(one));
  }

  make(use: TokenUse, id: number, extra = 0, more = 0): string {
    const key = this.keys[0]!;
    const plain = Buffer.alloc(1 + ID + (extra > 0 || more > 0 ? EXTRA : 0) + (more > 0 ? ID : 0));
    plain.writeUInt8(TOKEN_USES.indexOf(use), 0);
    plain.writeUIntBE(id, 1, ID);
    if (plain.length > 1 + ID) plain.writeUInt32BE(extra, 1 + ID);
    if (more > 0) plain.writeUIntBE(more, 1 + ID + EXTRA, ID);
    const nonce = createHmac('sha256', key.nonce).update(plain).digest().subarray(0, NONCE);
    const cipher = createCipheriv('aes-256-gcm', key.cipher, nonce);
    const sealed = Buffer.concat([cipher.update(plain), cipher.final()]);
    return base32(Buffer.concat([Buffer.from([key.id]), nonce, sealed, cipher.getAuthTag()]));
  }

  /** What the token says, or null where it is not one of ours for this use. */
  read(use: TokenUse, token: string): TokenFacts | null {
    const bytes = unbase32(token);
    if (!bytes) return null;
    for (const key of this.keys) {
      const plain = open(key, bytes);
      if (plain) return factsOf(use, plain);
    }
    for (const legacy of this.legacy) {
      const facts = legacy.read(use, bytes);
      if (facts) return facts;
    }
    return null;
  }
}

function keyOf(secret: string): Key {
  const derive = (info: string) => Buffer.from(hkdfSync('sha256', secret, '', info, 32));
  return { id: derive('token key id')[0]!, cipher: derive('token cipher'), nonce: derive('token nonce') };
}

function open(key: Key, bytes: Buffer): Buffer | null {
  if (bytes.length < 1 + NONCE + 1 + ID + TAG || bytes[0] !== key.id) return null;
  const [nonce, sealed, tag] = [
    bytes.subarray(1, 1 + NONCE),
    bytes.subarray(1 + NONCE, -TAG),
    bytes.subarray(-TAG),
  ];
  const decipher = createDecipheriv('aes-256-gcm', key.cipher, nonce, { authTagLength: TAG });
  decipher.setAuthTag(tag);
  try {
    return Buffer.concat([decipher.update(sealed), decipher.final()]);
  } catch {
    return null;
  }
}

function factsOf(use: TokenUse, plain: Buffer): TokenFacts | null {
  if (TOKEN_USES[plain.readUInt8(0)] !== use) return null;
  return {
    id: plain.readUIntBE(1, ID),
    extra: plain.length > 1 + ID ? plain.readUInt32BE(1 + ID) : 0,
    more: plain.length > 1 + ID + EXTRA ? plain.readUIntBE(1 + ID + EXTRA, ID) : 0,
  };
}

const BLOCK = 16;
const SIGNATURE = 12;

/**
 * The form of before, which mails that were sent still carry: one block of AES and 12 bytes of HMAC-SHA-256
 * over it. Only read.
 */
class LegacyTokens {
  private readonly cipherKey: Buffer;
  private readonly signKey: Buffer;

  constructor(secret: string) {
    this.cipherKey = createHash('sha256').update(`cipher:${secret}`).digest().subarray(0, BLOCK);
    this.signKey = createHash('sha256').update(`sign:${secret}`).digest();
  }

  read(use: TokenUse, bytes: Buffer): TokenFacts | null {
    if (bytes.length !== BLOCK + SIGNATURE) return null;
    const block = bytes.subarray(0, BLOCK);
    const signature = createHmac('sha256', this.signKey).update(block).digest().subarray(0, SIGNATURE);
    if (!timingSafeEqual(bytes.subarray(BLOCK), signature)) return null;
    const decipher = createDecipheriv('aes-128-ecb', this.cipherKey, null).setAutoPadding(false);
    const plain = Buffer.concat([decipher.update(block), decipher.final()]);
    if (TOKEN_USES[plain.readUInt8(0)] !== use) return null;
    return { id: plain.readUIntBE(1, 6), extra: plain.readUInt32BE(7), more: 0 };
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

/**
 * Null where it is no base 32, or not the one spelling of its bytes: another case, a letter more, unused
 * bits.
 */
function unbase32(text: string): Buffer | null {
  if (text.length > 200) return null;
  const out: number[] = [];
  let [bits, value] = [0, 0];
  for (const char of text) {
    const digit = ALPHABET.indexOf(char);
    if (digit < 0) return null;
    value = ((value << 5) | digit) & 0xfff;
    bits += 5;
    if (bits >= 8) {
      bits -= 8;
      out.push((value >>> bits) & 0xff);
    }
  }
  const bytes = Buffer.from(out);
  return base32(bytes) === text ? bytes : null;
}

/** Keyed hash of an address, for do-not-contact: tells whether an address is on it, never which are. */
export function addressHash(secret: string, kind: string, normal: string): string {
  return createHmac('sha256', secret).update(`${kind}:${normal}`).digest('hex');
}
