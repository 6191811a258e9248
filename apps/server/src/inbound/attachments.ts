import { keptFileKind } from '../platform/file-kinds';
import type { Storage } from '../platform/storage';
import type { ReplyFile } from '../replies/replies.repository';
import type { ReadMail } from './mail-reader';

/** So many files of one mail are kept. */
export const MOST_FILES = 10;

/**
 * What came with a mail: each file that may be kept is, and of each that is not it is told that it came and
 * why it went. Files are known by their bytes, not by what a mail calls them.
 */
export async function keptFiles(
  storage: Storage,
  attachments: ReadMail['attachments'],
): Promise<ReplyFile[]> {
  const files: ReplyFile[] = [];
  for (const { filename, content } of attachments) {
    const name = nameOf(filename, files.length + 1);
    const kept = files.filter(({ storageKey }) => storageKey !== null).length;
    const many = kept >= MOST_FILES;
    const kind = many || content.length === 0 ? null : await keptFileKind({ name, bytes: content });
    files.push({
      name,
      mime: kind ?? '',
      bytes: content.length,
      storageKey: kind === null ? null : await storage.put(content),
      refused: kind !== null ? null : many ? 'many' : content.length === 0 ? 'empty' : 'kind',
    });
  }
  return files;
}

/** A name without paths and unseen characters, its ending kept. */
function nameOf(filename: string, nth: number): string {
  const last = filename.split(/[\\/]/).at(-1) ?? '';
  const plain = last
    .normalize('NFC')
    .replace(/[\p{C}\p{Zl}\p{Zp}"<>|:*?]+/gu, ' ')
    .trim();
  return plain.slice(-160) || `File ${nth}`;
}
