import sharp from 'sharp';
import { pictureKind, rewritten } from './pictures';

const WISH = { pixels: 1_000_000, widest: 200, alpha: true, quality: 80 };
const plain = sharp({ create: { width: 400, height: 100, channels: 3, background: '#0f766b' } });
const seenThrough = sharp({ create: { width: 40, height: 10, channels: 4, background: '#0f766b80' } });

test('a picture is written anew, made no wider than asked, and keeps what is seen through', async () => {
  const jpeg = await plain.clone().jpeg().toBuffer();
  expect(await rewritten(jpeg, WISH)).toMatchObject({ mime: 'image/jpeg', width: 200, height: 50 });
  const png = await seenThrough.clone().png().toBuffer();
  const made = await rewritten(png, WISH);
  expect(made).toMatchObject({ mime: 'image/png', width: 40, height: 10 });
  expect(pictureKind(made!.data)).toBe('png');
  expect(await rewritten(png, { ...WISH, alpha: false })).toMatchObject({ mime: 'image/jpeg' });
});

test.each([
  ['jpeg', () => plain.clone().jpeg()],
  ['png', () => plain.clone().png()],
  ['webp', () => plain.clone().webp()],
  ['gif', () => plain.clone().gif()],
  ['heif', () => plain.clone().heif({ compression: 'av1' })],
] as const)('%s is known by its first bytes', async (kind, made) =>
  expect(pictureKind(await made().toBuffer())).toBe(kind),
);

/** Each group draws the one before ten times: ten levels are ten thousand million rectangles. */
const nested = () => {
  const groups = Array.from(
    { length: 10 },
    (_v, i) => `<g id="g${i + 1}">${`<use href="#g${i}"/>`.repeat(10)}</g>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><defs><g id="g0"><rect width="1" height="1"/></g>${groups.join('')}</defs><use href="#g10"/></svg>`;
};

test.each([
  ['a picture that is a program', nested()],
  ['the same behind a declaration', `<?xml version="1.0"?>\n${nested()}`],
  ['the same behind spaces', `\n\n   ${nested()}`],
  ['a page', '<html><script>alert(1)</script></html>'],
  ['nothing', ''],
  ['the first bytes of a picture and no more', '\xff\xd8\xff'],
])('%s is no picture', async (_what, text) =>
  expect(await rewritten(Buffer.from(text, 'latin1'), WISH)).toBeNull(),
);

test('more pixels than asked for are refused, and a decoder that takes too long is ended', async () => {
  const large = await sharp({ create: { width: 2000, height: 2000, channels: 3, background: '#fff' } })
    .png()
    .toBuffer();
  expect(await rewritten(large, WISH)).toBeNull();
  expect(await rewritten(await plain.clone().jpeg().toBuffer(), WISH, 1)).toBeNull();
});

test('many at once all come, and none waits for ever', async () => {
  const jpeg = await plain.clone().jpeg().toBuffer();
  const made = await Promise.all(Array.from({ length: 6 }, () => rewritten(jpeg, WISH)));
  expect(made.every((one) => one !== null)).toBe(true);
});
