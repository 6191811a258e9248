/** Parts tags where nothing is quoted. */
const BETWEEN = /[,;|\r\n]/;

/**
 * The tags of a cell, parted by commas, semicolons, bars or lines. One that holds such a mark itself stands
 * in double quotes (doubled within), as in a sheet of separated values (RFC 4180).
 */
export function cutTags(cell: string): string[] {
  const tags: string[] = [];
  let [tag, quoted] = ['', false];
  const end = () => {
    if (tag.trim() !== '') tags.push(tag.trim());
    tag = '';
  };
  for (let i = 0; i < cell.length; i++) {
    const char = cell[i]!;
    if (quoted && char === '"' && cell[i + 1] === '"') [tag, i] = [`${tag}"`, i + 1];
    else if (char === '"' && (quoted || (tag.trim() === '' && cell.indexOf('"', i + 1) > 0)))
      quoted = !quoted;
    else if (!quoted && BETWEEN.test(char)) end();
    else tag += char;
  }
  end();
  return tags;
}

/** Tags in one cell, so that `cutTags` reads the same ones again. */
export function joinTags(tags: readonly string[]): string {
  return tags
    .map((tag) => (BETWEEN.test(tag) || tag.startsWith('"') ? `"${tag.replaceAll('"', '""')}"` : tag))
    .join('; ');
}
