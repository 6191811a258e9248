import { t } from '@lingui/core/macro';
import { create } from 'zustand';
import type { BatchView, FieldView, IntakeDraft, LayoutView } from '@goodword/core/contract';
import {
  applyLayout,
  bestLayout,
  EMPTY_PLAN,
  natureOf,
  notASheet,
  withFieldsNow,
  type BatchKind,
  type ChannelPermission,
  type ColumnChoice,
  type ParseOptions,
  type IntakePlan,
  type LayoutFit,
  type Mend,
} from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { ProblemError, api } from '../app/api';
import { afterRest } from '../app/rest';
import { readStored, writeStored } from '../app/stored';
import { differences } from '../ui/Unsaved';
import type { Analysis, WorkerReply, Ask, Judgement } from './intake.worker';
import { LONG } from './measures';

export const STEPS = ['File', 'Columns', 'Where they go', 'Permission', 'Matches'] as const;
export type BatchStep = (typeof STEPS)[number];

/** The steps that a kind of file goes through. */
export function stepsOf(what: BatchKind): readonly BatchStep[] {
  if (what === 'people') return STEPS;
  return what === 'here' ? ['File', 'Columns', 'Where they go', 'Matches'] : ['File', 'Columns', 'Matches'];
}

export type DraftPermission = ChannelPermission | { said: 'unanswered' } | { said: 'bought' };
export type PlanParts = Omit<IntakePlan, 'columns' | 'permission' | 'reading'>;

interface House {
  fields: FieldView[];
  country: string;
  currency: string;
  /** The house's day. */
  today: number;
  layouts: LayoutView[];
}

export interface DraftState {
  step: BatchStep;
  /** The batch on the server, once it has the file. */
  batchId: number | null;
  name: string;
  file: { name: string; size: number } | null;
  /** How the file is read, where a person chose. */
  readAs: ParseOptions;
  analysis: Analysis | null;
  columns: ColumnChoice[];
  layout: LayoutFit<LayoutView> | null;
  judgement: Judgement | null;
  judging: boolean;
  reading: string | null;
  problem: string | null;
  /**
   * Why the server does not have the file, though the page has read it; null while it is under way and once
   * it is there.
   */
  unsent: string | null;
  /** The save of the server's that this was begun from. */
  draftVersion: number;
  /**
   * Somebody of the team saved this batch meanwhile: who and that, and what they saved; null where nobody
   * did.
   */
  newer: { words: string; theirs: BatchView } | null;
  parts: PlanParts;
  permission: Record<'email' | 'text', DraftPermission>;
  go(step: BatchStep): void;
  take(file: File, house: House, what: BatchKind | null): Promise<void>;
  /** Hands the file to the server, once more where that did not work. */
  send(): Promise<void>;
  open(batch: BatchView, house: House, theirsStays?: boolean): Promise<void>;
  readAgain(change: ParseOptions, what: BatchKind | null, house: House): Promise<void>;
  choose(column: number, choice: ColumnChoice): void;
  chooseAll(columns: ColumnChoice[], layout: DraftState['layout']): void;
  mend(mend: Mend): void;
  unmend(at: number): void;
  set(parts: Partial<PlanParts>): void;
  rename(name: string): void;
  setPermission(channel: 'email' | 'text', permission: DraftPermission): void;
  save(leaving?: boolean): Promise<void>;
  /** What was settled here stands, in the place of what somebody else saved. */
  keepMine(): Promise<void>;
  reset(): void;
}

const { what: _what, ...NO_PARTS } = EMPTY_PLAN;
const EMPTY = {
  step: 'File' as BatchStep,
  batchId: null,
  name: '',
  file: null,
  readAs: {},
  analysis: null,
  columns: [],
  layout: null,
  judgement: null,
  judging: false,
  reading: null,
  problem: null,
  unsent: null,
  draftVersion: 0,
  newer: null,
  parts: { what: 'people' as BatchKind, ...NO_PARTS },
  permission: { email: { said: 'unanswered' as const }, text: { said: 'unanswered' as const } },
};

let worker: Worker | null = null;
let asked = 0;
/** Ends the waiting for answers to the last question: a newer one takes its place. */
let endLast = () => {};
let turns = 0;
let blob: Blob | null = null;
/** What a person said that the file is; null where that is to be guessed. */
let said: BatchKind | null = null;
let saving: ReturnType<typeof setTimeout> | undefined;

const WORKER_GONE = t`The browser gave up reading the file, most likely for want of memory. Close other pages and read it again, or cut the file in two.`;

/**
 * Puts one question to the worker and hears its answers, several on the way; whatever belongs to an older
 * question is dropped. A worker that the browser has ended is told as an answer, and the next question begins
 * a new one.
 */
function ask(question: Ask, hear: (answer: WorkerReply) => void): Promise<void> {
  const own = (worker ??= new Worker(new URL('./intake.worker.ts', import.meta.url), { type: 'module' }));
  endLast();
  return new Promise((done) => {
    const end = (endLast = () => {
      own.removeEventListener('message', listen);
      own.removeEventListener('error', gone);
      done();
    });
    const listen = ({ data }: MessageEvent<WorkerReply>) => {
      if (data.id !== question.id) return;
      if (question.id === asked) hear(data);
      if (!data.ok || data.done || question.id !== asked) end();
    };
    const gone = () => {
      own.terminate();
      if (worker === own) worker = null;
      if (question.id === asked) hear({ id: question.id, ok: false, reason: WORKER_GONE });
      end();
    };
    own.addEventListener('message', listen);
    own.addEventListener('error', gone);
    own.postMessage(question);
  });
}

/** What a batch is called where nobody says otherwise: its file without the ending, and the day. */
export function offeredName(fileName: string, day: Date): string {
  const bare = fileName
    .replace(/\.\w{1,5}$/, '')
    .replace(/[_-]+/g, ' ')
    .trim();
  return `${(bare || t`Batch`).slice(0, 90)}, ${day.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })}`;
}

/** What the server keeps of a half-done batch. */
function draftOf({ step, name, parts, columns, permission, readAs }: DraftState): IntakeDraft {
  return { step, name: name.trim() || 'Unnamed', plan: { ...parts, columns, permission, reading: readAs } };
}

interface Here {
  draft: IntakeDraft;
  basedOn: number;
  /**
   * What is on its way to the server: a page that goes before the answer never hears which version that
   * became.
   */
  sent: IntakeDraft | null;
}

/** Whether what the server has is what was sent from here, whatever version it became. */
function isOurs(theirs: BatchView, sent: IntakeDraft | null): boolean {
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
const nameHere = (id: number) => `gw-batch:${id}`;

/** One save after the other: the second is based on what the first made. */
let running: Promise<void> = Promise.resolve();
/** What was sent last, and whose answer was not heard. */
let sent: IntakeDraft | null = null;

/** A batch on its way in. The page reads the file for itself and the server keeps what is decided. */
export const useDraft = create<DraftState>()((set, state) => {
  const judge = async () => {
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
    await ask({ kind: 'judge', id: ++asked, plan }, (answer) => {
      if (!answer.ok) set({ judging: false, problem: answer.reason });
      else if (answer.judgement) set({ judgement: answer.judgement, judging: !answer.done });
    });
  };
  /**
   * One reading of the file in the worker, with its guesses; a layout that fits goes before the guess, and
   * what is kept before both.
   */
  const look = (
    kind: 'glimpse' | 'read',
    house: House,
    what: BatchKind | null,
    keep: () => readonly ColumnChoice[] | undefined,
  ) => {
    const { fields, currency, today } = house;
    const knownHouse = { fields, currency, today, country: state().parts.phoneCountry ?? house.country };
    return ask(
      { kind, id: ++asked, source: blob!, reading: state().readAs, what, house: knownHouse },
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
  };
  /**
   * The start of a long file is drawn before all of it is read, and all of it is read before `then` is begun
   * and the rows are judged: side by side they would take the processor from the drawing and from each other.
   * Another reading of the same file, asked for meanwhile, takes the place of this one.
   */
  const read = async (
    house: House,
    what: BatchKind | null,
    keep: readonly ColumnChoice[] | undefined,
    then = () => {},
  ) => {
    const [own, turn] = [blob!, ++turns];
    const long = own.size > LONG;
    let glimpsed: readonly ColumnChoice[] | undefined;
    set({ reading: t`Reading the file…`, problem: null, judgement: null });
    if (long) {
      await look('glimpse', house, what, () => keep);
      glimpsed = state().columns;
      await afterRest();
    }
    if (blob === own && turn === turns && !state().problem) {
      // What a person chose meanwhile stays.
      await look('read', house, what, () =>
        glimpsed && state().columns !== glimpsed ? state().columns : keep,
      );
      if (long) await afterRest();
    }
    if (blob !== own) return;
    then();
    if (turn === turns) await judge();
  };
  const later = (ms = 800) => {
    clearTimeout(saving);
    saving = setTimeout(
      () =>
        void state()
          .save()
          .catch(() => undefined),
      ms,
    );
  };
  const changed = (values: Partial<DraftState>, again = false) => {
    set(values);
    const { batchId, analysis, draftVersion } = state();
    if (batchId !== null && analysis)
      writeStored(nameHere(batchId), { draft: draftOf(state()), basedOn: draftVersion, sent } satisfies Here);
    later();
    if (again) void judge();
  };
  return {
    ...EMPTY,
    go: (step) => changed({ step }),
    async take(file, house, what) {
      set({ ...EMPTY, file, name: offeredName(file.name, new Date()), reading: t`Reading the file…` });
      const nature = natureOf(new Uint8Array(await file.slice(0, 64 * 1024).arrayBuffer()));
      const refused = notASheet(nature);
      if (refused) return set({ reading: null, problem: speak(refused), file: null });
      [blob, said] = [file, what];
      if (nature === 'text') {
        let sent = Promise.resolve();
        await read(house, what, undefined, () => (sent = state().send()));
        await sent;
      } else {
        // Workbooks and cards are turned into text by the server, in a process that a hostile file can't
        // hurt.
        set({ reading: t`The server reads the file…` });
        await state().send();
        if (state().batchId === null) set({ reading: null, problem: state().unsent, unsent: null });
        else await fromServer(house, null);
      }
      later();
    },
    async send() {
      const own = blob as File;
      set({ unsent: null });
      await upload(own, state().name, said).then(
        (id) => void (blob === own && (set({ batchId: id }), later())),
        (error: Error) => void (blob === own && set({ unsent: error.message })),
      );
    },
    async open(batch, house, theirsStays = false) {
      if (theirsStays) writeStored(nameHere(batch.id), null);
      // What was settled here and never reached the server goes on; where somebody else saved since, both are
      // shown.
      const here = readStored<Here>(nameHere(batch.id));
      const own = here?.draft ?? null;
      const isNewer = here !== null && here.basedOn !== batch.draftVersion && !isOurs(batch, here.sent);
      sent = here?.sent ?? null;
      const draft = own ?? batch.draft;
      const plan = draft?.plan ?? batch.plan ?? {};
      const { columns: _columns, permission, reading, ...parts } = plan as Partial<IntakePlan>;
      set({
        ...EMPTY,
        batchId: batch.id,
        draftVersion: isNewer ? here.basedOn : batch.draftVersion,
        newer: isNewer
          ? {
              words: t`Somebody changed this batch since you did. What you settled is still here: say which one stays.`,
              theirs: batch,
            }
          : null,
        name: own?.name ?? batch.name,
        file: { name: batch.fileName, size: 0 },
        readAs: reading ?? {},
        step: (STEPS as readonly string[]).includes(draft?.step ?? '')
          ? (draft!.step as BatchStep)
          : 'Columns',
        parts: {
          ...EMPTY.parts,
          ...parts,
          what: parts.what ?? batch.what,
          chapterId: parts.chapterId ?? batch.chapterId,
        },
        permission: { ...EMPTY.permission, ...(permission as DraftState['permission'] | undefined) },
      });
      await fromServer(house, plan as IntakeDraft['plan']);
    },
    async readAgain(change, what, house) {
      const readAs = { ...state().readAs, ...change };
      const found = state().analysis?.found;
      set({ readAs, parts: { ...state().parts, mends: [], ...(what ? { what } : {}) } });
      if (change.sheet === undefined) await read(house, what ?? state().parts.what, undefined);
      else {
        set({
          reading: t`The server reads sheet ${change.sheet + 1}…`,
          analysis: null,
          readAs: { sheet: change.sheet },
        });
        await api.put('batches/{id}/reading', {
          id: state().batchId!,
          body: { reading: { sheet: change.sheet } },
        });
        await fromServer(house, null);
      }
      if (found) later();
    },
    choose: (column, choice) =>
      changed({ columns: state().columns.map((old, i) => (i === column ? choice : old)) }, true),
    chooseAll: (columns, layout) =>
      changed({ columns: withOrders(columns, state().analysis!), layout }, true),
    mend: (mend) => changed({ parts: { ...state().parts, mends: [...state().parts.mends, mend] } }, true),
    unmend: (at) =>
      changed(
        { parts: { ...state().parts, mends: state().parts.mends.filter((_mend, i) => i !== at) } },
        true,
      ),
    set: (parts) =>
      changed({ parts: { ...state().parts, ...parts } }, 'constants' in parts || 'phoneCountry' in parts),
    rename: (name) => changed({ name }),
    setPermission: (channel, permission) =>
      changed({ permission: { ...state().permission, [channel]: permission } }),
    async save(leaving = false) {
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
          writeStored(nameHere(batchId), { draft: draftOf(state()), basedOn: version, sent } satisfies Here);
      })();
      writeStored(nameHere(batchId), { draft: kept, basedOn: draftVersion, sent: kept } satisfies Here);
      await running.catch(async (error: unknown) => {
        if (!(error instanceof ProblemError) || !error.problem.newer) {
          // The server is away: what is settled is kept in the browser, and tried again.
          if (error instanceof ProblemError && [0, 429, 502, 503, 504].includes(error.problem.status))
            later(5000);
          throw error;
        }
        const theirs = await api.get('batches/{id}', { id: batchId });
        // What was sent before a reload, and became a version that this page never heard of.
        if (isOurs(theirs, unheard)) {
          sent = null;
          set({ draftVersion: theirs.draftVersion });
          return state().save(leaving);
        }
        if (state().batchId === batchId) set({ newer: { words: error.message, theirs } });
        // Whoever goes on from here would go on without theirs.
        throw error;
      });
    },
    async keepMine() {
      const { newer } = state();
      if (!newer) return;
      set({ draftVersion: newer.theirs.draftVersion, newer: null });
      await state()
        .save()
        .catch(() => undefined);
    },
    reset: () => {
      clearTimeout(saving);
      sent = null;
      asked += 1;
      blob = null;
      set(EMPTY);
    },
  };

  /** Waits until the server has read the file, and reads its text here. */
  async function fromServer(house: House, keep: IntakeDraft['plan'] | null): Promise<void> {
    const id = state().batchId;
    if (id === null) return;
    for (;;) {
      set({ reading: t`The server reads the file…` });
      const batch = await patiently(() => api.get('batches/{id}', { id }), id);
      if (!batch) return;
      if (batch.state === 'unreadable') return set({ reading: null, problem: batch.problem });
      if (batch.found) {
        const text = await patiently(() => fetchText(id), id);
        if (text === null) return;
        if (text === 'gone')
          return set({ reading: null, problem: t`The file of this batch is no longer kept.` });
        blob = text;
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
        await read(house, state().parts.what ?? batch.what, keep?.columns);
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
  async function patiently<T>(ask: () => Promise<T>, id: number): Promise<T | null> {
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
});

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));
const isAway = (error: unknown) =>
  !(error instanceof ProblemError) || [0, 502, 503, 504].includes(error.problem.status);

async function fetchText(id: number): Promise<Blob | 'gone'> {
  const response = await fetch(`/api/batches/${id}/text`);
  if (response.status >= 502) throw new Error('The server does not answer.');
  return response.ok ? response.blob() : 'gone';
}

async function upload(file: File, name: string, what: BatchKind | null): Promise<number> {
  const form = new FormData();
  form.append('name', name);
  if (what) form.append('what', what);
  form.append('file', file);
  return (await api.post('batches', { files: form })).id;
}

/** Columns of days with the order that their values are in. */
function withOrders(columns: readonly ColumnChoice[], analysis: Analysis): ColumnChoice[] {
  return columns.map((choice, i) => {
    const order = analysis.profiles[i]?.order;
    return order && 'order' in choice && choice.order === undefined ? { ...choice, order } : choice;
  });
}

/** The plan, once everything that this kind of file needs is answered; null before. */
export function planOfDraft(
  draft: Pick<DraftState, 'columns' | 'parts' | 'permission' | 'readAs'>,
): IntakePlan | null {
  const { email, text } = draft.permission;
  const { sheet: _sheet, ...reading } = draft.readAs;
  const base = {
    ...draft.parts,
    columns: draft.columns,
    ...(Object.keys(reading).length > 0 ? { reading } : {}),
  };
  const nothing = { said: 'nothing' as const };
  if (draft.parts.what !== 'people') return { ...base, permission: { email: nothing, text: nothing } };
  if (
    email.said === 'unanswered' ||
    email.said === 'bought' ||
    text.said === 'unanswered' ||
    text.said === 'bought'
  )
    return null;
  return { ...base, permission: { email, text } };
}
