import { create } from 'zustand';
import type { ChannelPermission, ColumnChoice, FileReading, IntakePlan, KnownField } from '@goodword/core/intake';
import type { Analysis, Answer, Ask, Judgement } from './intake.worker';

export const STEPS = ['File', 'Columns', 'Where they go', 'Permission'] as const;
export type Step = (typeof STEPS)[number];

interface DraftState {
  step: Step;
  file: File | null;
  /** How the file is read, where a person chose. */
  readAs: FileReading;
  analysis: Analysis | null;
  columns: ColumnChoice[];
  judgement: Judgement | null;
  reading: boolean;
  problem: string | null;
  groups: Pick<IntakePlan, 'tagIds' | 'newTags' | 'listId' | 'newList' | 'existing'>;
  permission: Record<'email' | 'text', ChannelPermission | { said: 'unanswered' } | { said: 'bought' }>;
  go(step: Step): void;
  take(file: File, fields: KnownField[], country: string, readAs?: FileReading): Promise<void>;
  choose(column: number, choice: ColumnChoice, country: string): void;
  setGroups(groups: Partial<DraftState['groups']>): void;
  setPermission(channel: 'email' | 'text', permission: DraftState['permission']['email']): void;
  reset(): void;
}

const EMPTY = {
  step: 'File' as Step,
  file: null,
  readAs: {},
  analysis: null,
  columns: [],
  judgement: null,
  reading: false,
  problem: null,
  groups: { tagIds: [], newTags: [], listId: null, newList: null, existing: 'update' as const },
  permission: { email: { said: 'unanswered' as const }, text: { said: 'unanswered' as const } },
};

let worker: Worker | null = null;
let asked = 0;

/** Puts one question to the worker; an answer to an older question is dropped. */
function ask(question: Ask): Promise<Answer> {
  worker ??= new Worker(new URL('./intake.worker.ts', import.meta.url), { type: 'module' });
  return new Promise((done) => {
    const listen = (event: MessageEvent<Answer>) => {
      if (event.data.id !== question.id) return;
      worker?.removeEventListener('message', listen);
      done(event.data);
    };
    worker!.addEventListener('message', listen);
    worker!.postMessage(question);
  });
}

/** A batch that is being prepared in this browser. Nothing is on the server until it is checked. */
export const useDraft = create<DraftState>()((set, state) => {
  const judge = async (columns: ColumnChoice[], country: string) => {
    const id = ++asked;
    const answer = await ask({ kind: 'judge', id, columns, country });
    if (id === asked && answer.ok && answer.judgement) set({ judgement: answer.judgement });
  };
  return {
    ...EMPTY,
    go: (step) => set({ step }),
    async take(file, fields, country, readAs = {}) {
      const step = state().step;
      set({ ...EMPTY, file, readAs, step: state().file === file ? step : 'File', reading: true });
      const answer = await ask({ kind: 'read', id: ++asked, source: file, reading: readAs, fields, country });
      if (!answer.ok) return set({ reading: false, problem: answer.reason, file: null });
      set({ reading: false, analysis: answer.analysis!, columns: answer.analysis!.guess, step: 'Columns' });
      await judge(answer.analysis!.guess, country);
    },
    choose(column, choice, country) {
      const columns = state().columns.map((old, i) => (i === column ? choice : old));
      set({ columns });
      void judge(columns, country);
    },
    setGroups: (groups) => set({ groups: { ...state().groups, ...groups } }),
    setPermission: (channel, permission) => set({ permission: { ...state().permission, [channel]: permission } }),
    reset: () => set(EMPTY),
  };
});

/** The plan, once both channels are answered; null before. */
export function planOf(draft: Pick<DraftState, 'columns' | 'groups' | 'permission' | 'readAs'>): IntakePlan | null {
  const { email, text } = draft.permission;
  if (email.said === 'unanswered' || email.said === 'bought' || text.said === 'unanswered' || text.said === 'bought') return null;
  const reading = Object.keys(draft.readAs).length > 0 ? { reading: draft.readAs } : {};
  return { ...reading, columns: draft.columns, permission: { email, text }, ...draft.groups };
}
