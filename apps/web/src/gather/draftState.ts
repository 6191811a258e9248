import { t } from '@lingui/core/macro';
import type { BatchView, FieldView, IntakeDraft, LayoutView } from '@goodword/core/contract';
import {
  EMPTY_PLAN,
  type BatchKind,
  type ChannelPermission,
  type ColumnChoice,
  type ParseOptions,
  type IntakePlan,
  type LayoutFit,
  type Mend,
} from '@goodword/core/intake';
import type { Analysis, Judgement } from './intake.worker';

export const STEPS = ['File', 'Columns', 'Where they go', 'Permission', 'Matches'] as const;
export type BatchStep = (typeof STEPS)[number];

/** The steps that a kind of file goes through. */
export function stepsOf(what: BatchKind): readonly BatchStep[] {
  if (what === 'people') return STEPS;
  return what === 'here' ? ['File', 'Columns', 'Where they go', 'Matches'] : ['File', 'Columns', 'Matches'];
}

export type DraftPermission = ChannelPermission | { said: 'unanswered' } | { said: 'bought' };
export type PlanParts = Omit<IntakePlan, 'columns' | 'permission' | 'reading'>;

/** What of the house bears on how a file is read. */
export interface ReadersHouse {
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
  take(file: File, house: ReadersHouse, what: BatchKind | null): Promise<void>;
  /** Hands the file to the server, once more where that did not work. */
  send(): Promise<void>;
  open(batch: BatchView, house: ReadersHouse, theirsStays?: boolean): Promise<void>;
  readAgain(change: ParseOptions, what: BatchKind | null, house: ReadersHouse): Promise<void>;
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
/** A draft in which nothing is settled yet. */
export const EMPTY = {
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

/** What a batch is called where nobody says otherwise: its file without the ending, and the day. */
export function offeredName(fileName: string, day: Date): string {
  const bare = fileName
    .replace(/\.\w{1,5}$/, '')
    .replace(/[_-]+/g, ' ')
    .trim();
  return `${(bare || t`Batch`).slice(0, 90)}, ${day.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })}`;
}

/** What the server keeps of a half-done batch. */
export function draftOf({ step, name, parts, columns, permission, readAs }: DraftState): IntakeDraft {
  return { step, name: name.trim() || 'Unnamed', plan: { ...parts, columns, permission, reading: readAs } };
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

/** The store's own ways to change it and to look at it. */
export interface DraftStore {
  set(values: Partial<DraftState>): void;
  state(): DraftState;
}
