import type { Scoped } from './scoped';

/** Writes down who did what, inside the transaction that did it. */
export async function audit(
  tx: Scoped,
  entry: {
    act: string;
    subject: string;
    subjectId: number;
    words: string;
    before?: string | null;
    after?: string | null;
    undo?: object;
  },
): Promise<void> {
  await tx.insert('audit', {
    actor_id: tx.scope.actorId,
    act: entry.act,
    subject: entry.subject,
    subject_id: entry.subjectId,
    words: entry.words.slice(0, 600),
    before_value: entry.before?.slice(0, 600) ?? null,
    after_value: entry.after?.slice(0, 600) ?? null,
    back: entry.undo ? JSON.stringify(entry.undo) : null,
  });
}
