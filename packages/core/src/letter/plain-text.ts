import { compile, joinLiterals, type MergePart } from '../merge';
import type { Block, Inline, LetterDoc, ListItem, PersonalBlock } from './doc';
import { giftLinks } from './gifts';
import type { LetterIndex, LetterSurroundings } from './html';

/** A link with its number, and the passages within which it stands, `!` before those of the other wording. */
interface Numbered {
  at: number;
  within: string[];
}

class PlainWriter {
  parts: MergePart[] = [];
  readonly numbered: Numbered[] = [];
  private readonly within: string[] = [];

  constructor(
    private readonly around: LetterSurroundings,
    private readonly index: LetterIndex,
  ) {}

  /** Blocks below each other, each line with what stands before it. */
  blocks(blocks: readonly Block[] | undefined, before = ''): void {
    for (const block of blocks ?? []) this.block(block, before);
  }

  private block(block: Block, before: string): void {
    switch (block.type) {
      case 'paragraph':
      case 'heading':
        return this.line(before, () => this.inlines(block.content, before));
      case 'bulletList':
        return this.list(block.content ?? [], before, () => '* ');
      case 'orderedList':
        return this.list(block.content ?? [], before, (at) => `${at + 1}. `);
      case 'blockquote':
        return this.blocks(block.content, `${before}> `);
      case 'horizontalRule':
        return this.line(before, () => this.push('----------'));
      case 'button':
        return this.line(before, () => {
          this.merge(block.attrs.label);
          this.push(` [${this.number(block.attrs.href)}]`);
        });
      case 'gifts':
        return giftLinks(block.attrs.href).forEach(({ slot, url }) =>
          this.choice(slot.key, () =>
            this.line(before, () => {
              this.parts.push(slot);
              this.push(` [${this.number(url)}]`);
            }),
          ),
        );
      case 'image':
        return this.picture(block.attrs.alt ?? '', block.attrs.href ?? '', before);
      case 'columns':
        return (block.content ?? []).forEach((column) => this.blocks(column.content, before));
      case 'signature':
        return this.line(before, () =>
          this.parts.push({ key: 'sender.signature', name: 'Sender: signature', or: null, lines: true }),
        );
      case 'personal':
        return this.personal(block, before);
    }
  }

  /** What only decorates is nothing in words. */
  private picture(alt: string, href: string, before: string): void {
    if (alt.trim() === '' && href === '') return;
    this.line(before, () => {
      this.push('(');
      this.merge(alt);
      this.push(')');
      if (href !== '') this.push(` [${this.number(href)}]`);
    });
  }

  private list(items: readonly ListItem[], before: string, mark: (at: number) => string): void {
    items.forEach((item, at) => {
      const inside = item.content ?? [];
      const [first, ...rest] = inside;
      const sign = mark(at);
      if (first?.type === 'paragraph' || first?.type === 'heading')
        this.line(
          before,
          () => (this.push(sign), this.inlines(first.content, before)),
          at === items.length - 1 ? 2 : 1,
        );
      else if (first) this.block(first, before);
      this.blocks(rest, `${before}${' '.repeat(sign.length)}`);
    });
  }

  private personal({ attrs, content }: PersonalBlock, before: string): void {
    const [fitting, otherwise] = content;
    this.choice(
      this.index.rule(attrs.tree),
      () => this.blocks(fitting.content, before),
      () => this.blocks(otherwise.content, before),
    );
  }

  private inlines(inlines: readonly Inline[] | undefined, before: string): void {
    for (const inline of inlines ?? []) {
      if (inline.type === 'hardBreak') this.push(`\n${before}`);
      else this.text(inline);
    }
  }

  private text({ text, marks = [] }: Extract<Inline, { type: 'text' }>): void {
    this.merge(text);
    for (const mark of marks) if (mark.type === 'link') this.push(` [${this.number(mark.attrs.href)}]`);
  }

  private number(href: string): number {
    const at = this.index.link(href);
    this.numbered.push({ at, within: [...this.within] });
    return at + 1;
  }

  private merge(source: string): void {
    this.parts.push(...compile(source, this.around.registry).parts);
  }

  private line(before: string, inside: () => void, after = 2): void {
    this.push(before);
    inside();
    this.push('\n'.repeat(after));
  }

  private choice(when: string, then: () => void, otherwise: () => void = () => undefined): void {
    const outer = this.parts;
    const collect = (act: () => void, isThen: boolean): MergePart[] => {
      this.parts = [];
      this.within.push(isThen ? when : `!${when}`);
      act();
      this.within.pop();
      return joinLiterals(this.parts);
    };
    const choice = { when, then: collect(then, true), otherwise: collect(otherwise, false) };
    this.parts = outer;
    this.parts.push(choice);
  }

  private push(text: string): void {
    this.parts.push(text);
  }
}

/** A line for each link, for those alone who read the passage that it stands in. */
function linkLines(numbered: readonly Numbered[], links: readonly string[]): MergePart[] {
  return links.flatMap((href, at): MergePart[] => {
    const places = numbered.filter((one) => one.at === at);
    if (places.length === 0) return [];
    const key = `link:${at}`;
    const line: MergePart[] = [`[${at + 1}] `, { key, name: key, or: href }, '\n'];
    // Once outside of every passage, it is everybody's.
    if (places.some(({ within }) => within.length === 0)) return line;
    return [{ when: places.map(({ within }) => within), then: line, otherwise: [] }];
  });
}

/**
 * A letter in plain text with slots: paragraphs parted by an empty line, pictures by what is on them, links
 * by their number with the addresses below. Linear in the document and in the links.
 */
export function plainOf(doc: LetterDoc, around: LetterSurroundings, index: LetterIndex): MergePart[] {
  const writer = new PlainWriter(around, index);
  writer.blocks(doc.content);
  const addresses = linkLines(writer.numbered, index.links);
  return joinLiterals([...writer.parts, ...(addresses.length > 0 ? [...addresses, '\n'] : [])]);
}
