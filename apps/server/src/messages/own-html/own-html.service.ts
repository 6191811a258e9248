import { Inject, Injectable } from '@nestjs/common';
import { Parser } from 'htmlparser2';
import { imageIdOf, LETTER_VERSION, MOST_OWN_HTML, ownBlocks, type LetterDoc } from '@goodword/core/letter';
import { Invalid } from '../../platform/errors';
import { pictureKind } from '../../platform/pictures';
import type { AccessScope } from '../../platform/scope';
import { sentence } from '../../platform/words';
import { ImagesService } from '../images.service';
import { cleanedPage } from './cleaned-page';
import type { TakenOut } from './sanitize';
import { decodedPath, zippedPage, type PageWithFiles } from './zipped-page';

/** Pictures that come in with one page. */
const MOST_PICTURES = 60;

/** Brings a page made elsewhere in as a letter: clean, its pictures in the library, nothing fetched. */
@Injectable()
export class OwnHtmlService {
  constructor(@Inject(ImagesService) private readonly images: ImagesService) {}

  /** A page as HTML, or a zip of it with its pictures. What is taken out of it is told in the letter. */
  async bringIn(scope: AccessScope, bytes: Buffer): Promise<LetterDoc> {
    const page = await pageOf(bytes);
    if (page.html.length > MOST_OWN_HTML) refuse('large', sentence('own-html.large'));
    const { html, kept } = await this.withPictures(scope, page);
    const cleaned = await cleanedPage(html);
    if (!cleaned) refuse('slow', sentence('own-html.slow'));
    if (cleaned.html.length > MOST_OWN_HTML) refuse('large', sentence('own-html.large'));
    const content = ownBlocks(cleaned.html);
    if (content.length === 0) refuse('empty', sentence('own-html.empty'));
    return {
      type: 'doc',
      version: LETTER_VERSION,
      own: { html: cleaned.html, told: toldOf(cleaned.taken, kept) },
      content,
    };
  }

  /** Pictures that came with the page go into the library, and the page shows them from there. */
  private async withPictures(
    scope: AccessScope,
    page: PageWithFiles,
  ): Promise<{ html: string; kept: number }> {
    const [sources, alts] = picturesIn(page.html);
    let [html, kept] = [page.html, 0];
    for (const source of sources.slice(0, MOST_PICTURES)) {
      const bytes = dataOf(source) ?? page.file(source);
      if (!bytes || !pictureKind(bytes)) continue;
      const name = source.startsWith('data:')
        ? sentence('own-html.picture')
        : decodedPath(source).split('/').at(-1)!;
      const added = await this.images.add(scope, { name, bytes }, alts.get(source) ?? '').catch(ifNoPicture);
      if (!added) continue;
      html = html.replaceAll(quoted(source), `"/media/${added.id}"`);
      kept += 1;
    }
    return { html, kept };
  }
}

function refuse(code: string, message: string): never {
  throw new Invalid([{ field: 'file', code, message }]);
}

function ifNoPicture(error: unknown): null {
  if (error instanceof Invalid) return null;
  throw error;
}

async function pageOf(bytes: Buffer): Promise<PageWithFiles> {
  if (bytes.subarray(0, 2).toString('latin1') === 'PK')
    return (await zippedPage(bytes)) ?? refuse('zip', sentence('own-html.zip'));
  const html = bytes.toString('utf8');
  if (html.includes('\u0000') || !/<[a-z!]/i.test(html)) refuse('page', sentence('own-html.page'));
  return { html: normalized(html), file: () => null };
}

/** Sources of pictures stand in double quotes from here on, whatever they stood in. */
const normalized = (html: string) => html.replace(/\bsrc\s*=\s*'([^'"]*)'/gi, 'src="$1"');
const quoted = (source: string) => `"${source}"`;

function picturesIn(html: string): [string[], Map<string, string>] {
  const alts = new Map<string, string>();
  const parser = new Parser(
    {
      onopentag(name, { src, alt }) {
        if (name === 'img' && src && imageIdOf(src) === null && !/^(?:https?:)?\/\//i.test(src))
          alts.set(src, alts.get(src) || (alt ?? ''));
      },
    },
    { decodeEntities: false },
  );
  parser.end(html);
  return [[...alts.keys()], alts];
}

/** RFC 2397, as far as pictures are given so. */
function dataOf(source: string): Buffer | null {
  const found = /^data:image\/[a-z+.-]+;base64,([A-Za-z0-9+/=\s]+)$/i.exec(source);
  return found ? Buffer.from(found[1]!, 'base64') : null;
}

function toldOf({ active, handlers, pictures, links, styles }: TakenOut, kept: number): string[] {
  const said: [number, string][] = [
    [kept, sentence('own-html.kept', { count: kept })],
    [active, sentence('own-html.active', { count: active })],
    [handlers, sentence('own-html.handlers', { count: handlers })],
    [pictures, sentence('own-html.pictures', { count: pictures })],
    [links, sentence('own-html.links', { count: links })],
    [styles, sentence('own-html.styles', { count: styles })],
  ];
  return said.flatMap(([count, words]) => (count > 0 ? [words] : []));
}
