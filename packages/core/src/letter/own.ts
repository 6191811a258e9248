import { Parser } from 'htmlparser2';
import { compile, type MergeFault, type MergePart } from '../merge';
import { imageIdOf, isSafeLink, type Block, type Inline, type InlineMark } from './doc';
import { escapedLiterals, type LetterIndex, type LetterSurroundings } from './html';
import { escapeHtml } from './markup';

/** Letters of a page of one's own: more no mail needs, and large readers cut it long before. */
export const MOST_OWN_HTML = 400_000;

/** The link by which one chooses or leaves, where a page brings its own. */
export const isOwnWayOut = (href: string): boolean => /^\{\s*link:\s*preferences\b/i.test(href);

/** Elements that begin and end a line of words. */
const LINES = new Set([
  ...['address', 'article', 'aside', 'blockquote', 'caption', 'center', 'dd', 'div'],
  ...['dl', 'dt', 'fieldset', 'figcaption', 'figure', 'footer', 'header', 'li'],
  ...['main', 'ol', 'p', 'pre', 'section', 'table', 'tbody', 'td'],
  ...['tfoot', 'th', 'thead', 'tr', 'ul'],
]);
const BOLD = new Set(['b', 'strong', 'th']);
const ITALIC = new Set(['i', 'em', 'cite']);
const VOID = new Set(['br', 'hr', 'img', 'col', 'wbr']);

/**
 * Writes a sanitized page for many people: words and attributes merge, links are slots (`link:N`) and
 * pictures of the library stand at their addresses. Linear in the page.
 */
export function ownHtmlParts(
  html: string,
  { registry, picture }: Pick<LetterSurroundings, 'registry' | 'picture'>,
  index: LetterIndex,
): { parts: MergePart[]; faults: MergeFault[] } {
  const parts: MergePart[] = [];
  const faults: MergeFault[] = [];
  let inStyle = false;
  const merge = (text: string) => {
    const compiled = compile(text, registry);
    parts.push(...compiled.parts.map(escapedLiterals));
    faults.push(...compiled.faults);
  };
  const attribute = (name: string, value: string, all: Record<string, string>) => {
    const picked = name === 'src' ? imageIdOf(value) : null;
    if (picked !== null) {
      const served = picture(value);
      const wide = Number(all.width) > 0 ? Number(all.width) : (served.width ?? 600);
      return parts.push(` src="${escapeHtml(served.url(2 * wide))}"`);
    }
    parts.push(` ${name}="`);
    if (name === 'href' && isSafeLink(value))
      parts.push({ key: `link:${index.link(value)}`, name: 'Link', or: '#' });
    else merge(value);
    return parts.push('"');
  };
  const parser = new Parser(
    {
      onopentag(name, all) {
        inStyle = name === 'style';
        parts.push(`<${name}`);
        for (const [key, value] of Object.entries(all)) attribute(key, value, all);
        parts.push('>');
      },
      ontext(text) {
        if (inStyle) parts.push(text);
        else merge(text);
      },
      onclosetag(name) {
        inStyle = false;
        if (!VOID.has(name)) parts.push(`</${name}>`);
      },
    },
    { decodeEntities: true },
  );
  parser.end(html);
  return { parts, faults };
}

/** Reads a page's words, links and pictures as blocks: what is searched, checked and sent as plain text. */
class OwnReader {
  readonly blocks: Block[] = [];
  private line: Inline[] = [];
  private heading: number | null = null;
  private bold = 0;
  private italic = 0;
  private readonly links: (string | null)[] = [];
  private skipped = 0;

  open(name: string, attrs: Record<string, string>): void {
    if (name === 'style') this.skipped += 1;
    else if (name === 'br') this.line.push({ type: 'hardBreak' });
    else if (name === 'hr') this.block({ type: 'horizontalRule' });
    else if (name === 'img') this.picture(attrs);
    else if (name === 'a') this.links.push(attrs.href && isSafeLink(attrs.href) ? attrs.href : null);
    else if (BOLD.has(name)) this.bold += 1;
    else if (ITALIC.has(name)) this.italic += 1;
    if (/^h[1-6]$/.test(name)) {
      this.flush();
      this.heading = Math.min(3, Number(name[1]));
    } else if (LINES.has(name)) this.flush();
  }

  text(text: string): void {
    const words = text.replace(/\s+/g, ' ');
    if (this.skipped > 0 || (words.trim() === '' && this.line.length === 0)) return;
    const href = this.links.at(-1) ?? null;
    const marks: InlineMark[] = [
      ...(this.bold > 0 ? [{ type: 'bold' } as const] : []),
      ...(this.italic > 0 ? [{ type: 'italic' } as const] : []),
      ...(href === null ? [] : [{ type: 'link', attrs: { href } } as const]),
    ];
    this.line.push({ type: 'text', text: words, ...(marks.length > 0 ? { marks } : {}) });
  }

  close(name: string): void {
    if (name === 'style') this.skipped -= 1;
    else if (name === 'a') this.links.pop();
    else if (BOLD.has(name)) this.bold -= 1;
    else if (ITALIC.has(name)) this.italic -= 1;
    if (/^h[1-6]$/.test(name) || LINES.has(name)) this.flush();
    if (/^h[1-6]$/.test(name)) this.heading = null;
  }

  flush(): void {
    const content = trimmed(this.line);
    this.line = [];
    if (content.length === 0) return;
    this.blocks.push(
      this.heading === null
        ? { type: 'paragraph', content }
        : { type: 'heading', attrs: { level: this.heading }, content },
    );
  }

  private block(block: Block): void {
    this.flush();
    this.blocks.push(block);
  }

  private picture({ src = '', alt = '', width }: Record<string, string>): void {
    if (imageIdOf(src) === null) return;
    const href = this.links.at(-1) ?? null;
    const wide = Number(width);
    this.block({
      type: 'image',
      attrs: { src, alt, ...(wide >= 1 && wide <= 1200 ? { width: wide } : {}), ...(href ? { href } : {}) },
    });
  }
}

/** Without blanks and breaks at both ends. */
function trimmed(line: readonly Inline[]): Inline[] {
  const isBlank = (one: Inline) => one.type === 'hardBreak' || one.text.trim() === '';
  const from = line.findIndex((one) => !isBlank(one));
  const to = line.findLastIndex((one) => !isBlank(one));
  return from < 0 ? [] : line.slice(from, to + 1);
}

/** What a sanitized page reads, as blocks. Linear in the page. */
export function ownBlocks(html: string): Block[] {
  const reader = new OwnReader();
  const parser = new Parser(
    {
      onopentag: (name, attrs) => reader.open(name, attrs),
      ontext: (text) => reader.text(text),
      onclosetag: (name) => reader.close(name),
    },
    { decodeEntities: true },
  );
  parser.end(html);
  reader.flush();
  return reader.blocks;
}
