import { spawn } from 'node:child_process';

/** Milliseconds after which a picture is given up: none that a person made takes a tenth of it. */
const PATIENCE_MS = 15_000;
const MOST_AT_ONCE = 2;

export interface PictureWish {
  /** A picture of more pixels is refused before it is unpacked. */
  pixels: number;
  widest: number;
  /** Kept with what is seen through, where the picture has such; always JPEG where not. */
  alpha: boolean;
  quality: number;
}

export interface Picture {
  data: Buffer;
  mime: 'image/jpeg' | 'image/png';
  width: number;
  height: number;
}

/**
 * What a picture is by its first bytes: JPEG, PNG, GIF, WebP, HEIC or AVIF; null for anything else. A picture
 * that is a program (SVG) is none: what it draws can be made to take for ever.
 */
export function pictureKind(bytes: Buffer): 'jpeg' | 'png' | 'gif' | 'webp' | 'heif' | null {
  const text = bytes.subarray(0, 12).toString('latin1');
  if (text.startsWith('\xff\xd8\xff')) return 'jpeg';
  if (text.startsWith('\x89PNG\r\n\x1a\n')) return 'png';
  if (/^GIF8[79]a/.test(text)) return 'gif';
  if (/^RIFF.{4}WEBP/s.test(text)) return 'webp';
  return /^.{4}ftyp(?:heic|heix|mif1|avif)/s.test(text) ? 'heif' : null;
}

/**
 * Runs in a process of its own, given by words: the decoder is in native code, which no exception and no
 * thread can end.
 */
const DECODER = `
const sharp = require(process.argv[1]);
const wish = JSON.parse(process.argv[2]);
const parts = [];
process.stdin.on('data', (part) => parts.push(part)).on('end', async () => {
  try {
    const image = sharp(Buffer.concat(parts), { limitInputPixels: wish.pixels }).rotate();
    const png = wish.alpha && (await image.metadata()).hasAlpha;
    const sized = image.resize({ width: wish.widest, withoutEnlargement: true });
    const { data, info } = await (png ? sized.png() : sized.jpeg({ quality: wish.quality })).toBuffer({ resolveWithObject: true });
    process.stdout.write(JSON.stringify({ mime: png ? 'image/png' : 'image/jpeg', width: info.width, height: info.height }) + '\\n');
    process.stdout.write(data);
  } catch {
    process.exitCode = 1;
  }
});
`;

let running = 0;
const waiting: (() => void)[] = [];

/**
 * Decodes a picture and writes it anew, so that nothing but a picture is kept. It is done outside of the
 * process that serves, two at once at most, and given up after a while. Null for what is no picture, or one
 * that can't be read in time.
 */
export async function rewritten(
  bytes: Buffer,
  wish: PictureWish,
  patience = PATIENCE_MS,
): Promise<Picture | null> {
  if (pictureKind(bytes) === null) return null;
  if (running >= MOST_AT_ONCE) await new Promise<void>((turn) => waiting.push(turn));
  running += 1;
  try {
    return await decoded(bytes, wish, patience);
  } finally {
    running -= 1;
    waiting.shift()?.();
  }
}

function decoded(bytes: Buffer, wish: PictureWish, patience: number): Promise<Picture | null> {
  return new Promise((done) => {
    const child = spawn(process.execPath, ['-e', DECODER, require.resolve('sharp'), JSON.stringify(wish)], {
      stdio: ['pipe', 'pipe', 'ignore'],
      env: {},
    });
    const timer = setTimeout(() => child.kill('SIGKILL'), patience);
    const parts: Buffer[] = [];
    child.stdout.on('data', (part: Buffer) => parts.push(part));
    // A decoder that has given up reads no more.
    child.stdin.on('error', () => undefined);
    child.stdin.end(bytes);
    child.on('error', () => done(null));
    child.on('close', (code) => {
      clearTimeout(timer);
      const out = Buffer.concat(parts);
      const end = out.indexOf(10);
      if (code !== 0 || end < 0) return done(null);
      const said = JSON.parse(out.subarray(0, end).toString()) as Omit<Picture, 'data'>;
      done({ ...said, data: out.subarray(end + 1) });
    });
  });
}
