/** The words of the records of a kind at a name; a line is a name, a kind and the words. */
export function recordsIn(zone: string, name: string, kind: string): string[] {
  return zone.split(/\r?\n/).flatMap((line) => {
    const [at, type, ...words] = line.trim().split(/\s+/);
    const isAsked = at?.toLowerCase() === name.toLowerCase() && type?.toUpperCase() === kind;
    return isAsked && words.length > 0 ? [words.join(' ')] : [];
  });
}
