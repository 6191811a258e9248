import { escapeHtml } from '@goodword/core/letter';

/** What stands in a tag: a text is escaped, true is the bare name, and what is not there is left out. */
export type Attributes = Readonly<Record<string, string | number | boolean | null | undefined>>;

/** Elements that hold nothing (HTML, "void elements"). */
const VOID = new Set(['input', 'img', 'br', 'meta', 'link', 'hr']);

/** Attributes as they stand in a tag, each with a blank before it. */
export function attributesOf(attributes: Attributes): string {
  const all = Object.entries(attributes).map(([key, value]) => {
    if (value === undefined || value === null || value === false) return '';
    return value === true ? ` ${key}` : ` ${key}="${escapeHtml(String(value))}"`;
  });
  return all.join('');
}

/** An element of a page. `children` are HTML that is safe already; an attribute's value is escaped here. */
export function tag(name: string, attributes: Attributes, ...children: readonly string[]): string {
  const open = `<${name}${attributesOf(attributes)}>`;
  return VOID.has(name) ? open : `${open}${children.join('')}</${name}>`;
}

/** The names of what is true, with blanks between; null when none is. */
export const names = (...all: readonly (string | false | null | undefined)[]): string | null =>
  all.filter(Boolean).join(' ') || null;
