import { compile, joinLiterals, type MergeFault, type MergePart, type Registry } from '../merge';
import type { Rule } from '../segment';
import type { Block, ColumnBlock, Inline, InlineMark, LetterDoc, PersonalBlock, LetterPicture } from './doc';
import { giftLinks } from './gifts';
import { directionOf, escapeHtml, literalWords } from './markup';
import { FACES, INK, onColour, USUAL_STYLE, type HouseStyle } from './style';

/** A picture of the library, as mail readers fetch it. */
export interface ServedPicture {
  /** The address of it, as wide as asked for in device pixels. */
  url(width: number): string;
  /** Its own size in pixels; null where it is not known. */
  width: number | null;
  height: number | null;
}

/** What stands around the words of a letter. */
export interface LetterSurroundings {
  registry: Registry;
  picture(src: string): ServedPicture;
  style?: HouseStyle;
}

/**
 * The words of a letter ready to be filled for many people: slots are merge fields and, as `link:N`, the
 * tracked links; choices are `fits:N`, by the rules of the personal blocks.
 */
export interface WrittenLetter {
  parts: MergePart[];
  faults: MergeFault[];
}

/**
 * What the ways of writing one letter share: the links by number and the sentences of personal blocks by
 * number, so that HTML and plain text name the same.
 */
export class LetterIndex {
  readonly links: string[] = [];
  readonly rules: Rule[] = [];
  private readonly ruleKeys = new Map<string, number>();

  /** The number of a link; equal addresses share one. */
  link(href: string): number {
    const at = this.links.indexOf(href);
    return at >= 0 ? at : this.links.push(href) - 1;
  }

  /** What people's values say of a sentence. */
  rule(tree: Rule): string {
    const key = JSON.stringify(tree);
    const at = this.ruleKeys.get(key) ?? this.rules.push(tree) - 1;
    this.ruleKeys.set(key, at);
    return `fits:${at}`;
  }
}

/** CSS pixels left and right of the words. */
export const PADDING = 24;
const GAP = 24;

class HtmlWriter {
  parts: MergePart[] = [];
  readonly faults: MergeFault[] = [];
  private readonly style: HouseStyle;
  private readonly face: string;

  constructor(
    private readonly around: LetterSurroundings,
    private readonly index: LetterIndex,
    /** CSS pixels that words have side by side. */
    private room: number,
  ) {
    this.style = around.style ?? USUAL_STYLE;
    this.face = FACES[this.style.face];
  }

  blocks(blocks: readonly Block[] | undefined): void {
    for (const block of blocks ?? []) this.block(block);
  }

  private block(block: Block): void {
    switch (block.type) {
      case 'paragraph':
        return this.words('p', this.textStyle(16), block.content, block.attrs?.align);
      case 'heading':
        return this.words(
          `h${block.attrs.level}`,
          `margin:0 0 12px;font:700 ${30 - block.attrs.level * 4}px/1.25 ${this.face};color:${INK}`,
          block.content,
          block.attrs.align,
        );
      case 'bulletList':
      case 'orderedList':
        return this.list(block.type === 'bulletList' ? 'ul' : 'ol', block.content ?? []);
      case 'blockquote':
        return this.wrap(
          `<blockquote style="margin:0 0 16px;padding:0 0 0 16px;border-left:3px solid #D3DAD6">`,
          () => this.within(19, () => this.blocks(block.content)),
          '</blockquote>',
        );
      case 'horizontalRule':
        return this.push('<hr style="border:0;border-top:1px solid #D3DAD6;margin:24px 0;clear:both">');
      case 'button':
        return this.button(block.attrs.href, () => this.merge(block.attrs.label));
      case 'gifts':
        return this.gifts(block.attrs.href);
      case 'image':
        return this.image(block.attrs);
      case 'columns':
        return this.columns(block.content ?? []);
      case 'signature':
        return this.signature();
      case 'personal':
        return this.personal(block);
    }
  }

  private textStyle(below: number): string {
    return `margin:0 0 ${below}px;font:17px/1.55 ${this.face};color:${INK}`;
  }

  private words(
    tag: string,
    style: string,
    content: readonly Inline[] | undefined,
    align: 'center' | 'end' | null | undefined,
  ): void {
    const direction = directionOf(literalWords(content));
    const side = align === 'center' ? 'center' : direction === 'rtl' ? 'left' : 'right';
    const aligned = align ? `;text-align:${side}` : '';
    const dir = direction === null ? ' dir="auto"' : direction === 'rtl' ? ' dir="rtl"' : '';
    this.wrap(
      `<${tag} class="t"${dir} style="${style}${aligned}">`,
      () => this.inlines(content),
      `</${tag}>`,
    );
  }

  private list(tag: 'ul' | 'ol', items: readonly { content?: Block[] }[]): void {
    const style = `margin:0 0 16px;padding:0 0 0 24px;font:17px/1.55 ${this.face};color:${INK}`;
    this.wrap(
      `<${tag} class="t" style="${style}">`,
      () =>
        this.within(24, () =>
          items.forEach((item) => this.wrap('<li>', () => this.blocks(item.content), '</li>')),
        ),
      `</${tag}>`,
    );
  }

  /** At least 44 high (WCAG 2.5.5): padding and line together. */
  private button(href: string, label: () => void): void {
    const { main } = this.style;
    const link = `display:inline-block;padding:12px 22px;font:700 16px/20px Arial,sans-serif;color:${onColour(main)};text-decoration:none`;
    this.wrap(
      '<table role="presentation" cellpadding="0" cellspacing="0" style="margin:0 0 16px">' +
        `<tr><td bgcolor="${main}" style="border-radius:4px;background:${main}">`,
      () => {
        this.openLink(href, link);
        label();
        this.push('</a>');
      },
      '</td></tr></table>',
    );
  }

  /** A button for each amount that somebody is asked for. */
  private gifts(href: string): void {
    for (const { slot, url } of giftLinks(href))
      this.choice(slot.key, () => this.button(url, () => this.parts.push(slot)));
  }

  private image(picture: LetterPicture): void {
    const served = this.around.picture(picture.src);
    const natural = served.width ?? this.room;
    const width = Math.max(1, Math.min(Math.round(picture.width ?? natural), this.room, natural));
    const height = served.height === null ? null : Math.round((served.height * width) / natural);
    const size = `width="${width}"${height === null ? '' : ` height="${height}"`}`;
    const draw = () => {
      this.push(`<img src="${escapeHtml(served.url(Math.min(2 * width, natural)))}" alt="`);
      this.merge(picture.alt ?? '');
      this.push(`" ${size} ${pictureStyle(width, picture.side)}>`);
    };
    if (!picture.href) return draw();
    this.openLink(picture.href, 'text-decoration:none');
    draw();
    this.push('</a>');
  }

  /**
   * Columns that stand beside each other where there is room and below each other where there is none,
   * without a query of the screen; programs that know no inline blocks get a table.
   */
  private columns(columns: readonly ColumnBlock[]): void {
    const width = Math.floor((this.room - GAP * (columns.length - 1)) / columns.length);
    const percent = Math.floor(100 / columns.length);
    this.push(
      '<!--[if mso]><table role="presentation" width="100%" cellpadding="0" cellspacing="0"><tr><![endif]--><div style="font-size:0;clear:both">',
    );
    columns.forEach((column, i) => {
      const gap = i < columns.length - 1 ? GAP : 0;
      this.push(
        `<!--[if mso]><td width="${percent}%" valign="top"><![endif]-->` +
          `<div style="display:inline-block;width:100%;max-width:${width}px;margin:0 ${gap}px 0 0;vertical-align:top">`,
      );
      this.within(this.room - width, () => this.blocks(column.content));
      this.push('</div><!--[if mso]></td><![endif]-->');
    });
    this.push('</div><!--[if mso]></tr></table><![endif]-->');
  }

  /** What the sender put under their letters, and their picture where there is one. */
  private signature(): void {
    this.choice('sender.picture', () => {
      this.push('<img src="');
      this.parts.push({ key: 'sender.picture', name: 'Sender: picture', or: '' });
      this.push('" alt="" width="96" style="display:block;width:96px;height:auto;border:0;margin:0 0 8px">');
    });
    this.push(`<p class="t" dir="auto" style="${this.textStyle(16)}">`);
    this.parts.push({ key: 'sender.signature', name: 'Sender: signature', or: null, lines: true });
    this.push('</p>');
  }

  private personal({ attrs, content }: PersonalBlock): void {
    const when = this.index.rule(attrs.tree);
    const [fitting, otherwise] = content;
    this.choice(
      when,
      () => this.blocks(fitting.content),
      () => this.blocks(otherwise.content),
    );
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
      if (mark.type === 'link') this.openLink(mark.attrs.href, `color:${this.style.accent}`, ' class="a"');
      else this.push(mark.type === 'bold' ? '<strong>' : '<em>');
      closing.unshift(mark.type === 'link' ? '</a>' : mark.type === 'bold' ? '</strong>' : '</em>');
    }
    this.merge(text);
    this.push(closing.join(''));
  }

  private openLink(href: string, style: string, attributes = ''): void {
    const key = `link:${this.index.link(href)}`;
    this.push(`<a${attributes} href="`);
    this.parts.push({ key, name: key, or: href });
    this.push(`" style="${style}">`);
  }

  private merge(source: string): void {
    const compiled = compile(source, this.around.registry);
    this.faults.push(...compiled.faults);
    this.parts.push(...compiled.parts.map(escapedLiterals));
  }

  /** What is written by one act for those who have a value, and by another for the rest. */
  private choice(when: string, then: () => void, otherwise: () => void = () => undefined): void {
    const outer = this.parts;
    const collect = (act: () => void): MergePart[] => {
      this.parts = [];
      act();
      return joinLiterals(this.parts);
    };
    const choice = { when, then: collect(then), otherwise: collect(otherwise) };
    this.parts = outer;
    this.parts.push(choice);
  }

  private within(less: number, act: () => void): void {
    const before = this.room;
    this.room = Math.max(40, before - less);
    act();
    this.room = before;
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

/** The literal words of merged text made safe for HTML, in all passages. */
export function escapedLiterals(part: MergePart): MergePart {
  if (typeof part === 'string') return escapeHtml(part);
  if (!('when' in part)) return part;
  const { when, then, otherwise } = part;
  return { when, then: then.map(escapedLiterals), otherwise: otherwise.map(escapedLiterals) };
}

function pictureStyle(width: number, side: LetterPicture['side']): string {
  if (!side)
    return `style="display:block;width:100%;max-width:${width}px;height:auto;border:0;margin:0 0 16px"`;
  const at = side === 'start' ? 'left' : 'right';
  const margin = side === 'start' ? '4px 16px 8px 0' : '4px 0 8px 16px';
  return `align="${at}" style="float:${at};width:${width}px;max-width:50%;height:auto;border:0;margin:${margin}"`;
}

/** The body of a letter as HTML with slots. Linear in the document. */
export function htmlOf(doc: LetterDoc, around: LetterSurroundings, index: LetterIndex): WrittenLetter {
  const style = around.style ?? USUAL_STYLE;
  const writer = new HtmlWriter(around, index, style.width - 2 * PADDING);
  writer.blocks(doc.content);
  return { parts: joinLiterals(writer.parts), faults: writer.faults };
}
