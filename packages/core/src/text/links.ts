/** A text with its links taken out: what is compiled, and the addresses by number as they were typed. */
export interface LinkedText {
  /** The text with a mark in the place of each link: a private letter, the number, and the letter again. */
  marked: string;
  links: string[];
}

/** No text that people type has it (Unicode private use). */
const MARK = '\ue0f1';

/**
 * An address in a text: http or https, with merge fields behind its host where it has some; or a merge field
 * that is a link, with what stands behind it.
 */
const LINK = /(?:https?:\/\/[^\s{}]|\{\s*Link:[^{}]*\})(?:\{[^{}]*\}|[^\s{}])*/giu;

/** What ends a sentence and is no part of the address before it. */
const TRAILING = `.,;:!?'"»”’)]`;

/** The address, without what ends the sentence. */
function addressOf(found: string): string {
  let end = found.length;
  while (end > 0 && TRAILING.includes(found[end - 1]!)) end -= 1;
  return found.slice(0, end);
}

/**
 * Takes the links out of a text as typed, each address once. Marks of sentences behind an address stay with
 * the sentence; a bracket that opened within it is the address's own.
 *
 * @example markLinks('Give: https://give.example/now.') // one link, without the full stop
 */
export function markLinks(text: string): LinkedText {
  const links: string[] = [];
  const marked = text.replaceAll(MARK, '').replace(LINK, (found) => {
    let href = addressOf(found);
    while (href.length < found.length && found[href.length] === ')' && opens(href)) href += ')';
    const at = links.indexOf(href);
    const number = at >= 0 ? at : links.push(href) - 1;
    return `${MARK}${number}${MARK}${found.slice(href.length)}`;
  });
  return { marked, links };
}

const opens = (href: string) => href.split('(').length > href.split(')').length;

/** A literal of a marked text, parted into words and the numbers of links, in their order. */
export function partsOfMarked(literal: string): (string | number)[] {
  return literal
    .split(MARK)
    .map((part, i) => (i % 2 === 1 ? Number(part) : part))
    .filter((part) => part !== '');
}
