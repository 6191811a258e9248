import { compile, type CompiledTemplate, type MergeFault, type Registry } from '../merge';
import type { Block, Inline, LetterDoc, InlineMark } from './doc';

/** HTML text and attribute escaping. */
export function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (char) => `&#${char.charCodeAt(0)};`);
}

/**
 * A letter ready to be filled for many people: slots are merge fields and, as `link:N`, the tracked links.
 */
export interface CompiledLetter {
  html: CompiledTemplate;
  /** Addresses behind the links, in order: slot `link:0` is the first. Equal addresses share one. */
  links: string[];
}

/** Where the pictures are served for mail readers. */
export interface LetterSurroundings {
  registry: Registry;
  imageUrl(src: string): string;
}

const STYLE = {
  text: 'margin:0 0 16px;font:17px/1.55 Georgia,serif;color:#1d2529',
  list: 'margin:0 0 16px;padding-left:24px;font:17px/1.55 Georgia,serif;color:#1d2529',
  heading: (level: number) => `margin:0 0 12px;font:700 ${30 - level * 4}px/1.25 Georgia,serif;color:#1d2529`,
  button:
    'display:inline-block;padding:12px 22px;background:#17252B;color:#ffffff;font:700 16px Arial,sans-serif;text-decoration:none;border-radius:4px',
  image: 'display:block;max-width:100%;height:auto;border:0;margin:0 0 16px',
};

class LetterWriter {
  readonly parts: CompiledTemplate['parts'] = [];
  readonly faults: MergeFault[] = [];
  readonly links: string[] = [];

  constructor(private readonly around: LetterSurroundings) {}

  blocks(blocks: readonly Block[] | undefined): void {
    for (const block of blocks ?? []) this.block(block);
  }

  private block(block: Block): void {
    switch (block.type) {
      case 'paragraph':
        return this.wrap(`<p style="${STYLE.text}">`, () => this.inlines(block.content), '</p>');
      case 'heading': {
        const tag = `h${block.attrs.level}`;
        return this.wrap(
          `<${tag} style="${STYLE.heading(block.attrs.level)}">`,
          () => this.inlines(block.content),
          `</${tag}>`,
        );
      }
      case 'bulletList':
      case 'orderedList':
        return this.list(block.type === 'bulletList' ? 'ul' : 'ol', block.content ?? []);
      case 'button':
        return this.button(block.attrs.href, block.attrs.label);
      case 'image':
        return this.image(block.attrs);
    }
  }

  private list(tag: 'ul' | 'ol', items: readonly { content?: Block[] }[]): void {
    this.wrap(
      `<${tag} style="${STYLE.list}">`,
      () => items.forEach((item) => this.wrap('<li>', () => this.blocks(item.content), '</li>')),
      `</${tag}>`,
    );
  }

  private button(href: string, label: string): void {
    this.wrap(
      `<p style="${STYLE.text}">`,
      () => {
        this.openLink(href, STYLE.button);
        this.merge(label);
        this.push('</a>');
      },
      '</p>',
    );
  }

  private image(attrs: { src: string; alt?: string | null; width?: number | null }): void {
    const width = attrs.width ? ` width="${Math.round(attrs.width)}"` : '';
    this.push(`<img src="${escapeHtml(this.around.imageUrl(attrs.src))}" alt="`);
    this.merge(attrs.alt ?? '');
    this.push(`"${width} style="${STYLE.image}">`);
  }

  private inlines(inlines: readonly Inline[] | undefined): void {
    for (const inline of inlines ?? []) {
      if (inline.type === 'hardBreak') this.push('<br>');
      else this.text(inline.text, inline.marks ?? []);
    }
  }

  private text(text: string, marks: readonly InlineMark[]): void {
    const closing: string[] = [];
    for (const mark of marks) {
      if (mark.type === 'link') this.openLink(mark.attrs.href, 'color:#0F766B');
      else this.push(mark.type === 'bold' ? '<strong>' : '<em>');
      closing.unshift(mark.type === 'link' ? '</a>' : mark.type === 'bold' ? '</strong>' : '</em>');
    }
    this.merge(text);
    this.push(closing.join(''));
  }

  private openLink(href: string, style: string): void {
    if (!this.links.includes(href)) this.links.push(href);
    const key = `link:${this.links.indexOf(href)}`;
    this.push('<a href="');
    this.parts.push({ key, name: key, or: href });
    this.push(`" style="${style}">`);
  }

  private merge(source: string): void {
    const compiled = compile(source, this.around.registry);
    this.faults.push(...compiled.faults);
    for (const part of compiled.parts) this.parts.push(typeof part === 'string' ? escapeHtml(part) : part);
  }

  private wrap(open: string, inside: () => void, close: string): void {
    this.push(open);
    inside();
    this.push(close);
  }

  private push(html: string): void {
    this.parts.push(html);
  }
}

const HIDDEN = '<div style="display:none;max-height:0;overflow:hidden">';

/** Joins neighbouring literals, so that filling a letter for one person is a join of few strings. */
function joinLiterals(parts: CompiledTemplate['parts']): CompiledTemplate['parts'] {
  const out: CompiledTemplate['parts'] = [];
  for (const part of parts) {
    const last = out.length - 1;
    if (typeof part === 'string' && typeof out[last] === 'string') out[last] += part;
    else out.push(part);
  }
  return out;
}

/** Turns a checked document (see `letterFault`) into a mailable body with slots. Linear in the document. */
export function compileLetter(doc: LetterDoc, around: LetterSurroundings): CompiledLetter {
  const writer = new LetterWriter(around);
  writer.blocks(doc.content);
  return { html: { parts: joinLiterals(writer.parts), faults: writer.faults }, links: writer.links };
}

/** What stands around every mass email: who sent it, where they live, why it came and the way out. */
export interface Footer {
  /** Who sends and where they live, in one line. */
  imprint: string;
  why: string;
}

/**
 * The whole mail: body, footer with slots `why` (what it rests on; the footer's words where a person's are
 * not known), `leave` (the way out), `imprint` (who sends; a chapter may have an address of its own) and
 * `pixel` (the open mark, may be empty). The line after the subject may merge as any text does.
 */
export function wrapLetter(
  letter: CompiledLetter,
  footer: Footer,
  preheader: CompiledTemplate,
): CompiledLetter {
  const small = 'margin:0 0 8px;font:13px/1.5 Arial,sans-serif;color:#51626A';
  const head =
    '<!doctype html><html><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"></head>' +
    '<body style="margin:0;background:#ffffff">';
  const table =
    '<table role="presentation" width="100%" cellpadding="0" cellspacing="0"><tr><td align="center">' +
    '<table role="presentation" width="600" cellpadding="0" cellspacing="0" style="max-width:600px;width:100%"><tr><td style="padding:24px">';
  const foot =
    '<hr style="border:0;border-top:1px solid #D3DAD6;margin:24px 0 16px">' + `<p style="${small}">`;
  const after = `" style="color:#51626A">Leave, or choose what you get</a></p>` + `<p style="${small}">`;
  const parts: CompiledTemplate['parts'] = [
    head,
    ...(preheader.parts.length === 0
      ? []
      : [
          HIDDEN,
          ...preheader.parts.map((part) => (typeof part === 'string' ? escapeHtml(part) : part)),
          '</div>',
        ]),
    table,
    ...letter.html.parts,
    foot,
    { key: 'why', name: 'why', or: footer.why },
    ' <a href="',
    { key: 'leave', name: 'leave', or: '#' },
    after,
    { key: 'imprint', name: 'imprint', or: footer.imprint },
    '</p></td></tr></table></td></tr></table>',
    { key: 'pixel', name: 'pixel', or: '' },
    '</body></html>',
  ];
  return { html: { parts: joinLiterals(parts), faults: letter.html.faults }, links: letter.links };
}
