import { createHmac, hkdfSync } from 'node:crypto';

/** What a short link says: whose delivery it stood in, and which of the message's links it is. */
export interface ShortLinkFacts {
  id: number;
  extra: number;
}

/** Most links of one message that have a short form. */
export const MOST_SHORT = 16;
const MOST_IDS = 2 ** 32;
const SEALED_BITS = 36n;
const SEALED_MASK = (1n << SEALED_BITS) - 1n;
const DIGITS = 10;
/** RFC 4648 §5; all of them are in the default alphabet of texts. */
const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-_';
/** The path of one. The mark before it is that of no page of ours. */
export const SHORT_PATH = /^\/(-[A-Za-z0-9_-]{10})$/;
/** Characters behind the host. */
export const SHORT_LENGTH = 12;

/** Stands for one before there is one: as long as each, and nobody's. */
export const SAMPLE_LINK = '-your-link-';

interface Key {
  tag: Buffer;
  stream: Buffer;
}

/**
 * Signed links short enough for texts: a mark and 60 bits in base 64. 36 of them say which delivery and which
 * link, sealed with a stream that follows from the other 24, an HMAC-SHA-256 over what is sealed (a synthetic
 * nonce, as in RFC 5297): handed over twice it is the same link. A guess is right once in 16 million, for
 * deliveries that there are; who guesses is held by a limit, and a link opens nothing but a page.
 */
export class ShortLinks {
  private readonly keys: readonly Key[];

  /** `before`: the secret of before, whose links are still read. */
  constructor(secret: string, before = '') {
    this.keys = [secret, ...(before === '' ? [] : [before])].map((one) => ({
      tag: Buffer.from(hkdfSync('sha256', one, '', 'short link tag', 32)),
      stream: Buffer.from(hkdfSync('sha256', one, '', 'short link stream', 32)),
    }));
  }

  /** Null where there is no room for the numbers. */
  make(id: number, link: number): string | null {
    if (id >= MOST_IDS || link >= MOST_SHORT) return null;
    const plain = (BigInt(id) << 4n) | BigInt(link);
    const key = this.keys[0]!;
    const tag = tagOf(key, plain);
    return `-${digitsOf((tag << SEALED_BITS) | sealed(key, tag, plain))}`;
  }

  read(text: string): ShortLinkFacts | null {
    if (!SHORT_PATH.test(`/${text}`)) return null;
    const all = [...text.slice(1)].reduce((sum, char) => (sum << 6n) | BigInt(ALPHABET.indexOf(char)), 0n);
    const tag = all >> SEALED_BITS;
    for (const key of this.keys) {
      const plain = sealed(key, tag, all & SEALED_MASK);
      if (tagOf(key, plain) === tag) return { id: Number(plain >> 4n), extra: Number(plain & 15n) };
    }
    return null;
  }
}

/** The first bits of a keyed hash over a number. */
function keyed(key: Buffer, of: bigint, bits: number): bigint {
  const hash = createHmac('sha256', key).update(of.toString(16)).digest();
  return hash.readBigUInt64BE(0) >> BigInt(64 - bits);
}

const tagOf = ({ tag }: Key, plain: bigint) => keyed(tag, plain, 24);

/** Seals and opens alike. */
const sealed = ({ stream }: Key, tag: bigint, bits: bigint) => bits ^ keyed(stream, tag, Number(SEALED_BITS));

function digitsOf(number: bigint): string {
  let [out, rest] = ['', number];
  for (let i = 0; i < DIGITS; i++) {
    out = ALPHABET[Number(rest & 63n)]! + out;
    rest >>= 6n;
  }
  return out;
}
