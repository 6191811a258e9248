/** What the browser keeps under a name; null where it keeps nothing there, or can't be read. */
export function readStored<T>(name: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(name) ?? 'null') as T | null;
  } catch {
    return null;
  }
}

/**
 * A browser that keeps nothing, or is full, keeps nothing: what is typed is still on the page, and on its
 * way.
 */
export function writeStored(name: string, value: unknown): void {
  try {
    if (value === null) localStorage.removeItem(name);
    else localStorage.setItem(name, JSON.stringify(value));
  } catch {
    // As said above.
  }
}

/** Whether two things that were typed say the same. */
export function isSame(one: unknown, other: unknown): boolean {
  return one === other || JSON.stringify(one) === JSON.stringify(other);
}
