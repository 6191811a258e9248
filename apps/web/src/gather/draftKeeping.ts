import type { BatchView, IntakeDraft } from '@goodword/core/contract';
import { ProblemError, api } from '../app/api';
import { writeStored } from '../app/stored';
import { differences } from '../ui/Unsaved';
import { draftOf, type DraftStore } from './draftState';

/** What is not saved yet, as the browser keeps it. */
export interface KeptHere {
  draft: IntakeDraft;
  basedOn: number;
  /**
   * What is on its way to the server: a page that goes before the answer never hears which version that
   * became.
   */
  sent: IntakeDraft | null;
}

/** Whether what the server has is what was sent from here, whatever version it became. */
export function isWhatWeSent(theirs: BatchView, sent: IntakeDraft | null): boolean {
  if (!sent || theirs.name !== sent.name) return false;
  return (
    differences({ step: sent.step, plan: sent.plan }, { step: theirs.draft?.step, plan: theirs.draft?.plan })
      .length === 0
  );
}

/**
 * What is not saved yet is kept in the browser: a reload, a closed page or a server that is away loses
 * nothing.
 */
export const nameHere = (id: number) => `gw-batch:${id}`;

/** One save after the other: the second is based on what the first made. */
let running: Promise<void> = Promise.resolve();
let saving: ReturnType<typeof setTimeout> | undefined;
/** What was sent last, and whose answer was not heard. */
let sent: IntakeDraft | null = null;

/** Goes on from what was sent before a reload, or from nothing. */
export function sentBefore(draft: IntakeDraft | null): void {
  sent = draft;
}

/** Nothing that was typed is waiting to be saved any more. */
export function forget(): void {
  clearTimeout(saving);
  sent = null;
}

/** Saves before long; another change meanwhile makes it later. */
export function saveLater({ state }: DraftStore, ms = 800): void {
  clearTimeout(saving);
  saving = setTimeout(
    () =>
      void state()
        .save()
        .catch(() => undefined),
    ms,
  );
}

/** Keeps what is settled in the browser, for a page that goes before the server has it. */
export function keepHere({ state }: DraftStore): void {
  const { batchId, analysis, draftVersion } = state();
  if (batchId !== null && analysis)
    writeStored(nameHere(batchId), {
      draft: draftOf(state()),
      basedOn: draftVersion,
      sent,
    } satisfies KeptHere);
}

/** Saves what is settled; where somebody else did meanwhile, both are kept to be chosen from. */
export async function save(store: DraftStore, leaving = false): Promise<void> {
  const { set, state } = store;
  clearTimeout(saving);
  const { batchId, analysis, newer, draftVersion } = state();
  if (batchId === null || !analysis) return;
  if (newer) throw new Error(newer.words);
  const kept = draftOf(state());
  const unheard = sent;
  const before = running;
  running = (async () => {
    await before.catch(() => undefined);
    if (state().batchId !== batchId) return;
    sent = kept;
    const { version } = await (leaving ? api.putAtLast : api.put)('batches/{id}/draft', {
      id: batchId,
      body: { ...kept, basedOn: state().draftVersion },
    });
    sent = null;
    if (state().batchId !== batchId) return;
    set({ draftVersion: version });
    if (JSON.stringify(draftOf(state())) === JSON.stringify(kept)) writeStored(nameHere(batchId), null);
    else
      writeStored(nameHere(batchId), { draft: draftOf(state()), basedOn: version, sent } satisfies KeptHere);
  })();
  writeStored(nameHere(batchId), { draft: kept, basedOn: draftVersion, sent: kept } satisfies KeptHere);
  await running.catch(async (error: unknown) => {
    if (!(error instanceof ProblemError) || !error.problem.newer) {
      // The server is away: what is settled is kept in the browser, and tried again.
      if (error instanceof ProblemError && [0, 429, 502, 503, 504].includes(error.problem.status))
        saveLater(store, 5000);
      throw error;
    }
    const theirs = await api.get('batches/{id}', { id: batchId });
    // What was sent before a reload, and became a version that this page never heard of.
    if (isWhatWeSent(theirs, unheard)) {
      sent = null;
      set({ draftVersion: theirs.draftVersion });
      return state().save(leaving);
    }
    if (state().batchId === batchId) set({ newer: { words: error.message, theirs } });
    // Whoever goes on from here would go on without theirs.
    throw error;
  });
}
