import { Invalid } from './errors';

/** Deeper is no letter with lists in lists, and no segment. */
const MOST_DEPTH = 32;
/** Objects, lists and values together. */
const MOST_NODES = 200_000;

/**
 * Bounds what a body is made of before any schema sees it: a schema that knows itself again goes as deep as
 * it is led, and pays for every way in which it could have been meant. Takes a time that grows with the body,
 * in no recursion.
 */
export function bounded(body: unknown): void {
  const open: [value: unknown, depth: number][] = [[body, 0]];
  for (let nodes = 0; open.length > 0; nodes++) {
    const [value, depth] = open.pop()!;
    if (typeof value !== 'object' || value === null) continue;
    if (depth >= MOST_DEPTH)
      throw new Invalid([
        { field: 'body', code: 'depth', message: `What was sent is nested more than ${MOST_DEPTH} deep.` },
      ]);
    for (const part of Array.isArray(value) ? (value as unknown[]) : Object.values(value))
      open.push([part, depth + 1]);
    if (nodes + open.length > MOST_NODES)
      throw new Invalid([
        {
          field: 'body',
          code: 'nodes',
          message: `What was sent has more than ${MOST_NODES} parts. Send less at once.`,
        },
      ]);
  }
}
