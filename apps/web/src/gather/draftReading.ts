import { t } from '@lingui/core/macro';
import type { IntakeDraft } from '@goodword/core/contract';
import {
  applyLayout,
  bestLayout,
  withFieldsNow,
  type BatchKind,
  type ColumnChoice,
} from '@goodword/core/intake';
import { api, ProblemError } from '../app/api';
import { afterRest } from '../app/rest';
import { ask, nextQuestion } from './askWorker';
import type { DraftStore, ReadersHouse } from './draftState';
import type { Analysis } from './intake.worker';
import { LONG } from './measures';

/** The file that is read, and what a person said that it is; null where that is to be guessed. */
export const source: { blob: Blob | null; said: BatchKind | null } = { blob: null, said: null };
let turns = 0;

/** Judges the rows by the columns as they are chosen. */
export async function judge({ set, state }: DraftStore): Promise<void> {
  const { analysis, columns, parts } = state();
  // Before all of it has been read there is nothing to judge by; it is judged after that.
  if (!analysis?.whole) return;
  set({ judging: true });
  const plan = {
    what: parts.what,
    columns,
    constants: parts.constants,
    mends: parts.mends,
    phoneCountry: parts.phoneCountry,
  };
  await ask({ kind: 'judge', id: nextQuestion(), plan }, (answer) => {
    if (!answer.ok) set({ judging: false, problem: answer.reason });
    else if (answer.judgement) set({ judgement: answer.judgement, judging: !answer.done });
  });
}

/**
 * One reading of the file in the worker, with its guesses; a layout that fits goes before the guess, and
 * what is kept before both.
 */
function look(
  { set, state }: DraftStore,
  kind: 'glimpse' | 'read',
  house: ReadersHouse,
  what: BatchKind | null,
  keep: () => readonly ColumnChoice[] | undefined,
): Promise<void> {
  const { fields, currency, today } = house;
  const knownHouse = { fields, currency, today, country: state().parts.phoneCountry ?? house.country };
  return ask(
    { kind, id: nextQuestion(), source: source.blob!, reading: state().readAs, what, house: knownHouse },
    (answer) => {
      if (!answer.ok) return set({ reading: null, problem: answer.reason, analysis: null });
      const { analysis } = answer;
      if (!analysis) return;
      const guessed = analysis.guesses.map(({ choice }) => choice);
      const fit = bestLayout(
        analysis.found.header,
        house.layouts.filter((layout) => layout.what === analysis.what),
      );
      const kept = keep()?.length === analysis.found.header.length ? keep() : undefined;
      const columns =
        kept ?? (fit?.exact ? applyLayout(analysis.found.header, guessed, fit.layout) : guessed);
      set({
        analysis,
        columns: withOrders(withFieldsNow(columns, guessed, house.fields), analysis),
        layout: kept ? null : fit,
        parts: { ...state().parts, what: analysis.what },
        reading: analysis.whole ? null : t`Reading the rest of the file…`,
        ...(state().step === 'File' ? { step: 'Columns' as const } : {}),
      });
    },
  );
}

/**
 * The start of a long file is drawn before all of it is read, and all of it is read before `then` is begun
 * and the rows are judged: side by side they would take the processor from the drawing and from each other.
 * Another reading of the same file, asked for meanwhile, takes the place of this one.
 */
export async function read(
  store: DraftStore,
  house: ReadersHouse,
  what: BatchKind | null,
  keep: readonly ColumnChoice[] | undefined,
  then = () => {},
): Promise<void> {
  const { set, state } = store;
  const [own, turn] = [source.blob!, ++turns];
  const long = own.size > LONG;
  let glimpsed: readonly ColumnChoice[] | undefined;
  set({ reading: t`Reading the file…`, problem: null, judgement: null });
  if (long) {
    await look(store, 'glimpse', house, what, () => keep);
    glimpsed = state().columns;
    await afterRest();
  }
  if (source.blob === own && turn === turns && !state().problem) {
    // What a person chose meanwhile stays.
    await look(store, 'read', house, what, () =>
      glimpsed && state().columns !== glimpsed ? state().columns : keep,
    );
    if (long) await afterRest();
  }
  if (source.blob !== own) return;
  then();
  if (turn === turns) await judge(store);
}

/** Waits until the server has read the file, and reads its text here. */
export async function fromServer(
  store: DraftStore,
  house: ReadersHouse,
  keep: IntakeDraft['plan'] | null,
): Promise<void> {
  const { set, state } = store;
  const id = state().batchId;
  if (id === null) return;
  for (;;) {
    set({ reading: t`The server reads the file…` });
    const batch = await patiently(store, () => api.get('batches/{id}', { id }), id);
    if (!batch) return;
    if (batch.state === 'unreadable') return set({ reading: null, problem: batch.problem });
    if (batch.found) {
      const text = await patiently(store, () => fetchText(id), id);
      if (text === null) return;
      if (text === 'gone')
        return set({ reading: null, problem: t`The file of this batch is no longer kept.` });
      source.blob = text;
      const { kind, encoding, delimiter, headerLine, workbook } = batch.found;
      if (kind !== 'text')
        set({
          readAs: {
            encoding,
            delimiter,
            headerLine,
            ...(workbook ? { sheet: workbook.sheet } : {}),
            ...state().readAs,
          },
        });
      await read(store, house, state().parts.what ?? batch.what, keep?.columns);
      const { analysis } = state();
      if (analysis)
        set({
          analysis: { ...analysis, found: { ...analysis.found, kind, ...(workbook ? { workbook } : {}) } },
        });
      return;
    }
    await pause(300);
  }
}

/**
 * Asks again and again while the server can't be reached, and says so; null where the page has gone on to
 * another batch, or what is refused is told.
 */
async function patiently<T>(
  { set, state }: DraftStore,
  ask: () => Promise<T>,
  id: number,
): Promise<T | null> {
  for (;;) {
    try {
      const answer = await ask();
      return state().batchId === id ? answer : null;
    } catch (error) {
      if (state().batchId !== id) return null;
      if (!isAway(error)) return (set({ reading: null, problem: (error as Error).message }), null);
      set({ reading: t`The server does not answer just now; it is asked again…` });
      await pause(1000);
    }
  }
}

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));
const isAway = (error: unknown) =>
  !(error instanceof ProblemError) || [0, 502, 503, 504].includes(error.problem.status);

async function fetchText(id: number): Promise<Blob | 'gone'> {
  const response = await fetch(`/api/batches/${id}/text`);
  if (response.status >= 502) throw new Error('The server does not answer.');
  return response.ok ? response.blob() : 'gone';
}

/** Hands the file over, and says which batch it became. */
export async function upload(file: File, name: string, what: BatchKind | null): Promise<number> {
  const form = new FormData();
  form.append('name', name);
  if (what) form.append('what', what);
  form.append('file', file);
  return (await api.post('batches', { files: form })).id;
}

/** Columns of days with the order that their values are in. */
export function withOrders(columns: readonly ColumnChoice[], analysis: Analysis): ColumnChoice[] {
  return columns.map((choice, i) => {
    const order = analysis.profiles[i]?.order;
    return order && 'order' in choice && choice.order === undefined ? { ...choice, order } : choice;
  });
}
