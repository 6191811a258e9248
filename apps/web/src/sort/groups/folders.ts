/** Where a list lies: its id, its folder, and whether supporters see it. */
export interface Filed {
  id: number;
  folder: string;
}

/**
 * Lists by folder, folders by name, those in none first. Lists of a folder stay in the order that they came
 * in.
 */
export function foldersOf<L extends Filed>(lists: readonly L[]): { folder: string; lists: L[] }[] {
  const folders = new Map<string, L[]>([['', []]]);
  for (const list of lists) folders.set(list.folder, [...(folders.get(list.folder) ?? []), list]);
  return [...folders]
    .map(([folder, some]) => ({ folder, lists: some }))
    .filter(({ folder, lists: some }) => folder !== '' || some.length > 0)
    .sort((a, b) => a.folder.localeCompare(b.folder));
}

/** The ids when one list is moved to just before or behind another; every other list keeps its place. */
export function listMoved(lists: readonly Filed[], from: number, to: number): number[] {
  const ids = lists.map(({ id }) => id);
  const [at, target] = [ids.indexOf(from), ids.indexOf(to)];
  if (at < 0 || target < 0) return ids;
  ids.splice(at, 1);
  ids.splice(target, 0, from);
  return ids;
}
