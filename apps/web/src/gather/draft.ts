import { t } from '@lingui/core/macro';
import { create } from 'zustand';
import type { IntakeDraft } from '@goodword/core/contract';
import { natureOf, notASheet, type IntakePlan } from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { api } from '../app/api';
import { readStored, writeStored } from '../app/stored';
import { nextQuestion } from './askWorker';
import {
  forget,
  isWhatWeSent,
  keepHere,
  nameHere,
  save,
  saveLater,
  sentBefore,
  type KeptHere,
} from './draftKeeping';
import { fromServer, judge, read, source, upload, withOrders } from './draftReading';
import { EMPTY, offeredName, STEPS, type BatchStep, type DraftState, type DraftStore } from './draftState';

export {
  offeredName,
  planOfDraft,
  STEPS,
  stepsOf,
  type BatchStep,
  type DraftPermission,
  type DraftState,
  type PlanParts,
} from './draftState';

/** How a file comes in: from the page, from a batch of before, or read anew in another way. */
function filesOf(store: DraftStore): Pick<DraftState, 'take' | 'send' | 'open' | 'readAgain'> {
  const { set, state } = store;
  return {
    async take(file, house, what) {
      set({ ...EMPTY, file, name: offeredName(file.name, new Date()), reading: t`Reading the file…` });
      const nature = natureOf(new Uint8Array(await file.slice(0, 64 * 1024).arrayBuffer()));
      const refused = notASheet(nature);
      if (refused) return set({ reading: null, problem: speak(refused), file: null });
      Object.assign(source, { blob: file, said: what });
      if (nature === 'text') {
        let sent = Promise.resolve();
        await read(store, house, what, undefined, () => (sent = state().send()));
        await sent;
      } else {
        // Workbooks and cards are turned into text by the server, in a process that a hostile file can't
        // hurt.
        set({ reading: t`The server reads the file…` });
        await state().send();
        if (state().batchId === null) set({ reading: null, problem: state().unsent, unsent: null });
        else await fromServer(store, house, null);
      }
      saveLater(store);
    },
    async send() {
      const own = source.blob as File;
      set({ unsent: null });
      await upload(own, state().name, source.said).then(
        (id) => void (source.blob === own && (set({ batchId: id }), saveLater(store))),
        (error: Error) => void (source.blob === own && set({ unsent: error.message })),
      );
    },
    async open(batch, house, theirsStays = false) {
      if (theirsStays) writeStored(nameHere(batch.id), null);
      // What was settled here and never reached the server goes on; where somebody else saved since, both are
      // shown.
      const here = readStored<KeptHere>(nameHere(batch.id));
      const own = here?.draft ?? null;
      const isNewer = here !== null && here.basedOn !== batch.draftVersion && !isWhatWeSent(batch, here.sent);
      sentBefore(here?.sent ?? null);
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
      await fromServer(store, house, plan as IntakeDraft['plan']);
    },
    async readAgain(change, what, house) {
      const readAs = { ...state().readAs, ...change };
      const found = state().analysis?.found;
      set({ readAs, parts: { ...state().parts, mends: [], ...(what ? { what } : {}) } });
      if (change.sheet === undefined) await read(store, house, what ?? state().parts.what, undefined);
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
        await fromServer(store, house, null);
      }
      if (found) saveLater(store);
    },
  };
}

type Choices = 'choose' | 'chooseAll' | 'mend' | 'unmend' | 'set' | 'rename' | 'setPermission';

/** What is settled about it, each at once on the page and before long on the server. */
function choicesOf(
  { state }: DraftStore,
  changed: (values: Partial<DraftState>, again?: boolean) => void,
): Pick<DraftState, Choices> {
  return {
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
  };
}

/** A batch on its way in. The page reads the file for itself and the server keeps what is decided. */
export const useDraft = create<DraftState>()((set, state) => {
  const store: DraftStore = { set, state };
  const changed = (values: Partial<DraftState>, again = false) => {
    set(values);
    keepHere(store);
    saveLater(store);
    if (again) void judge(store);
  };
  return {
    ...EMPTY,
    go: (step) => changed({ step }),
    ...filesOf(store),
    ...choicesOf(store, changed),
    save: (leaving) => save(store, leaving),
    async keepMine() {
      const { newer } = state();
      if (!newer) return;
      set({ draftVersion: newer.theirs.draftVersion, newer: null });
      await state()
        .save()
        .catch(() => undefined);
    },
    reset: () => {
      forget();
      nextQuestion();
      source.blob = null;
      set(EMPTY);
    },
  };
});
