/** The answer behind a key from 1 to 9; null for any other key. */
export function optionOf(key: string, options: readonly string[]): string | null {
  return /^[1-9]$/.test(key) ? (options[Number(key) - 1] ?? null) : null;
}

/**
 * What a key does while calling: chooses an answer, goes to the note, keeps, goes on or back; null for any
 * other.
 */
export function keyAction(
  event: { key: string },
  options: readonly string[],
): { outcome: string } | 'note' | 'keep' | 'next' | 'back' | null {
  const outcome = optionOf(event.key, options);
  if (outcome !== null) return { outcome };
  switch (event.key) {
    case 'n':
    case 'N':
      return 'note';
    case 'Enter':
      return 'keep';
    case 'ArrowRight':
      return 'next';
    case 'ArrowLeft':
      return 'back';
    default:
      return null;
  }
}

/** Keys that are typed into something, or that press what has the focus, are not for the call. */
export function isForTheCall(event: KeyboardEvent): boolean {
  if (event.altKey || event.ctrlKey || event.metaKey || document.querySelector('[role=dialog]')) return false;
  const { target } = event;
  if (!(target instanceof HTMLElement)) return true;
  if (['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)) return false;
  const presses =
    target.tagName === 'A' || (target.tagName === 'BUTTON' && target.getAttribute('role') !== 'radio');
  return !(event.key === 'Enter' && presses);
}
