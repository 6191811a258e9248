import { Invalid } from './errors';

/**
 * A cursor holds the sort values of the last row, so that the next page begins behind it whatever was added
 * meanwhile.
 */
export function encodeCursor(values: readonly (string | number)[]): string {
  return Buffer.from(JSON.stringify(values)).toString('base64url');
}

export function decodeCursor(cursor: string | undefined, length: number): (string | number)[] | null {
  if (!cursor) return null;
  try {
    const values = JSON.parse(Buffer.from(cursor, 'base64url').toString()) as unknown;
    if (
      Array.isArray(values) &&
      values.length === length &&
      values.every((v) => typeof v === 'string' || typeof v === 'number')
    )
      return values;
  } catch {
    // Falls through to the same sentence as any other cursor that is not ours.
  }
  throw new Invalid('This page address is not one of ours. Begin again from the first page.');
}
