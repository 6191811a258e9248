/**
 * Writes the loops of the scan (kernel.wat) as the bytes that the core loads; a test holds the two against
 * each other.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import wabt from 'wabt';
import { ROOT } from './lib/prepare.mjs';

const folder = join(ROOT, 'packages', 'core', 'src', 'segment');
const tools = await wabt();
const { buffer } = tools
  .parseWat('kernel.wat', readFileSync(join(folder, 'kernel.wat'), 'utf8'), { simd: true })
  .toBinary({});
const text = Buffer.from(buffer).toString('base64');
const lines = text.match(/.{1,120}/g).map((line) => `  '${line}',`);
writeFileSync(
  join(folder, 'kernel-bytes.ts'),
  `/** kernel.wat as WebAssembly, in base 64; written by \`npm run kernel\`. */\nexport const KERNEL_BYTES = [\n${lines.join('\n')}\n].join('');\n`,
);
