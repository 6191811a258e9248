import type { Block, Inline, LetterDoc } from './doc';

const words = (text: string): Inline[] =>
  text
    .split('\n')
    .flatMap((line, i): Inline[] => [
      ...(i === 0 ? [] : [{ type: 'hardBreak' } as const]),
      ...(line === '' ? [] : [{ type: 'text', text: line } as const]),
    ]);

function blockOf(text: string): Block {
  const lines = text.split('\n');
  if (lines.every((line) => /^[-*•] /.test(line)))
    return {
      type: 'bulletList',
      content: lines.map((line) => ({
        type: 'listItem',
        content: [{ type: 'paragraph', content: words(line.slice(2)) }],
      })),
    };
  return { type: 'paragraph', content: words(text) };
}

/** Without the blanks at the ends of lines. */
const trimmedLines = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trimEnd())
    .join('\n')
    .trim();

/**
 * A letter of plain words: a blank line begins a paragraph, a line's end is kept, and lines that all begin
 * with a dash are a list.
 *
 * @example letterOfText('Dear friend,\n\n- oak\n- pine') // a paragraph and a list of two
 */
export function letterOfText(text: string): LetterDoc {
  const parts = text.replace(/\r\n?/g, '\n').split(/\n[ \t]*\n+/);
  const content = parts.map(trimmedLines).filter((part) => part !== '');
  return { type: 'doc', content: content.map(blockOf) };
}
