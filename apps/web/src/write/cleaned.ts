import type { LetterDoc } from '@goodword/core/letter';

/** Keeps what a letter is made of, and drops what the editor adds for itself. */
export function cleaned(node: LetterDoc): LetterDoc {
  return JSON.parse(
    JSON.stringify(node, (key, value: unknown) =>
      key === 'attrs' && isLinkAttrs(value) ? { href: value.href } : value,
    ),
  ) as LetterDoc;
}

function isLinkAttrs(value: unknown): value is { href: string } {
  return typeof value === 'object' && value !== null && 'href' in value && 'target' in value;
}
