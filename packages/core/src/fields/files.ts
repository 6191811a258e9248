/** A file as a value is kept: the id that it lies under, and the name it came with. */
export function fileText(id: number, name: string): string {
  return `${id}/${name.replace(/[/\\]/g, ' ').slice(-200)}`;
}

/** Reads what `fileText` wrote: the id of a file and what it is called; null of anything else. */
export function fileOf(text: string): { id: number; name: string } | null {
  const found = /^(\d+)\/(.*)$/s.exec(text);
  return found ? { id: Number(found[1]), name: found[2]! } : null;
}
