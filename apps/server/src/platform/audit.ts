import type { Scoped } from './scoped';

/**
 * Writes down who did what to which thing (`{ campaign: 7 }`), inside the transaction that did it; with what
 * was before and after where one value changed, and what an undo needs.
 */
export async function audit(
  tx: Scoped,
  act: string,
  thing: Readonly<Record<string, number>>,
  words: string,
  { before, after, undo }: { before?: string | null; after?: string | null; undo?: object } = {},
): Promise<void> {
  const [[subject, id] = ['', 0], ...more] = Object.entries(thing);
  if (subject === '' || more.length > 0) throw new Error('expected one thing that something was done to');
  await tx.insert('audit', {
    actor_id: tx.scope.actorId,
    act,
    subject,
    subject_id: id,
    words: words.slice(0, 600),
    before_value: before?.slice(0, 600) ?? null,
    after_value: after?.slice(0, 600) ?? null,
    back: undo ? JSON.stringify(undo) : null,
  });
}
