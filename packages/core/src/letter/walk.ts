import type { Rule } from '../segment';
import type { Block, ColumnBlock, LetterDoc, ListItem, PassageBlock } from './doc';

/** Anything that holds blocks or is one. */
type Holder = Block | ListItem | ColumnBlock | PassageBlock;

/** The blocks within a block, in the order in which they are read; none for words, pictures and the like. */
export function innerBlocks(holder: Holder): readonly Holder[] {
  switch (holder.type) {
    case 'bulletList':
    case 'orderedList':
    case 'blockquote':
    case 'columns':
    case 'column':
    case 'listItem':
    case 'personal':
    case 'fitting':
    case 'otherwise':
      return holder.content ?? [];
    default:
      return [];
  }
}

const isHolder = (one: Holder): one is ListItem | ColumnBlock | PassageBlock =>
  one.type === 'listItem' || one.type === 'column' || one.type === 'fitting' || one.type === 'otherwise';

/** All blocks of a letter, outer ones before inner ones, each once. Linear. */
export function blocksOf(blocks: readonly Holder[] = []): Block[] {
  const out: Block[] = [];
  const visit = (one: Holder): void => {
    if (!isHolder(one)) out.push(one);
    innerBlocks(one).forEach(visit);
  };
  blocks.forEach(visit);
  return out;
}

/** The sentences of the personal blocks of a letter, in the order in which they stand. */
export function letterRules(letter: Pick<LetterDoc, 'content'> | null): Rule[] {
  return blocksOf(letter?.content).flatMap((block) => (block.type === 'personal' ? [block.attrs.tree] : []));
}

/** The different sentences of a letter, in the order in which people's values know them: `fits:0` first. */
export function distinctRules(letter: Pick<LetterDoc, 'content'> | null): Rule[] {
  const seen = new Map(letterRules(letter).map((rule) => [JSON.stringify(rule), rule]));
  return [...seen.values()];
}

/**
 * A letter as one person reads it: of each personal block the wording that is for them, by whether their
 * values have `fits:N` for its sentence.
 */
export function readBlocks(
  letter: Pick<LetterDoc, 'content'>,
  values: Readonly<Record<string, string | null | undefined>>,
): Block[] {
  const keys = distinctRules(letter).map((rule) => JSON.stringify(rule));
  const read = (blocks: readonly Block[] = []): Block[] =>
    blocks.flatMap((block): Block[] => {
      if (block.type !== 'personal') return [{ ...block, ...within(block) } as Block];
      const [fitting, otherwise] = block.content;
      const fits = values[`fits:${keys.indexOf(JSON.stringify(block.attrs.tree))}`];
      return read((fits ? fitting : otherwise).content);
    });
  const within = (block: Block): { content?: unknown } => {
    if (block.type === 'blockquote') return { content: read(block.content) };
    if (block.type !== 'bulletList' && block.type !== 'orderedList' && block.type !== 'columns') return {};
    const parts: readonly (ListItem | ColumnBlock)[] = block.content ?? [];
    return { content: parts.map((one) => ({ ...one, content: read(one.content) })) };
  };
  return read(letter.content);
}
