/** What a template is found by. */
export interface FindableTemplate {
  id: number;
  name: string;
  folder: string;
  /** Everything in it that people read, and when to use it. */
  words: string;
  /** How many messages came from it. */
  uses: number;
}

/** As words are compared: without case, accents and marks (Unicode NFKD). */
const wordsOf = (text: string): string[] =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '');

const begins = (words: readonly string[], typed: string) => words.some((word) => word.startsWith(typed));

/**
 * Templates in which each word typed begins a word of the name, the folder or the words inside. Those whose
 * name has all of them come first, and among equals what was used most, then by name. Nothing typed finds
 * all. Linear in the words of all templates.
 *
 * @example findTemplates([{ id: 1, name: 'Winter appeal', … }], 'wint app') // that one
 */
export function findTemplates<T extends FindableTemplate>(templates: readonly T[], typed: string): T[] {
  const asked = wordsOf(typed);
  const found = templates.flatMap((template) => {
    const name = wordsOf(template.name);
    const all = asked.length === 0 ? name : [...name, ...wordsOf(`${template.folder} ${template.words}`)];
    if (!asked.every((word) => begins(all, word))) return [];
    return [{ template, named: asked.every((word) => begins(name, word)) }];
  });
  found.sort(
    (a, b) =>
      Number(b.named) - Number(a.named) ||
      b.template.uses - a.template.uses ||
      a.template.name.localeCompare(b.template.name) ||
      a.template.id - b.template.id,
  );
  return found.map(({ template }) => template);
}
