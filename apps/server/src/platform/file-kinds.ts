import { pictureKind, rewritten } from './pictures';

const OFFICE = /\.(docx|xlsx|pptx|odt|ods|odp)$/i;
const PLAIN = /\.(txt|csv|md|ics|vcf)$/i;

/**
 * What a file is by its bytes: a PDF, a picture that can be read, an office document, or plain text. Null for
 * anything else: nothing that runs is kept, whatever it is called.
 */
export async function keptFileKind({ name, bytes }: { name: string; bytes: Buffer }): Promise<string | null> {
  const head = bytes.subarray(0, 5).toString('latin1');
  if (head === '%PDF-') return 'application/pdf';
  if (head.startsWith('PK\u0003\u0004') && OFFICE.test(name)) return 'application/zip';
  // Decoded once, to see that it is one; kept as it came, and only ever downloaded.
  const kind = pictureKind(bytes);
  if (kind && (await rewritten(bytes, { pixels: 60_000_000, widest: 16, alpha: false, quality: 50 })))
    return `image/${kind}`;
  const text = bytes.length > 0 && !bytes.includes(0) && !bytes.toString('utf8').includes('\ufffd');
  return text && PLAIN.test(name) ? 'text/plain' : null;
}
