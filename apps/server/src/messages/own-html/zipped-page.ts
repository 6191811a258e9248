import { posix } from 'node:path';
import { strFromU8, unzip, type UnzipFileInfo } from 'fflate';

/** A page with the files that lie beside it, by the paths that the page names them by. */
export interface PageWithFiles {
  html: string;
  file(path: string): Buffer | null;
}

/** Of a zip that somebody made of a page and its pictures. */
const MOST = { files: 300, one: 12 * 1024 * 1024, all: 60 * 1024 * 1024 };

const isPage = (name: string) => /\.html?$/i.test(name) && !/(^|\/)[._]/.test(name);

/**
 * Opens a zip file (APPNOTE.TXT) with a page in it: the one nearest to the top. Null where it is no zip,
 * holds no page, or unpacks to more than a page needs.
 */
export async function zippedPage(bytes: Buffer): Promise<PageWithFiles | null> {
  const files = await unzipped(bytes).catch(() => null);
  if (!files) return null;
  const [page] = [...files.keys()]
    .filter(isPage)
    .sort((a, b) => a.split('/').length - b.split('/').length || a.localeCompare(b));
  if (page === undefined) return null;
  return {
    html: strFromU8(files.get(page)!),
    file: (path) => {
      const found = files.get(posix.join(posix.dirname(page), decodedPath(path)).replace(/^\.\//, ''));
      return found ? Buffer.from(found) : null;
    },
  };
}

function unzipped(bytes: Buffer): Promise<Map<string, Uint8Array> | null> {
  let [count, size] = [0, 0];
  // What a file says of its size is held against what it may be before anything is unpacked.
  const filter = ({ name, originalSize }: UnzipFileInfo) => {
    count += 1;
    size += originalSize;
    return originalSize <= MOST.one && size <= MOST.all && count <= MOST.files && !name.endsWith('/');
  };
  return new Promise((done, fail) => {
    unzip(bytes, { filter }, (error, files) => {
      if (error) fail(error);
      else done(count > MOST.files || size > MOST.all ? null : new Map(Object.entries(files)));
    });
  });
}

/** A path as it is called, where the page spells it for the web (RFC 3986 §2.1). */
export function decodedPath(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return path;
  }
}
