import type { DraftState } from './draft';

export type Acts = Pick<DraftState, 'choose' | 'chooseAll' | 'mend' | 'unmend'> & {
  readAgain: (change: Parameters<DraftState['readAgain']>[0]) => void;
};

export const headerOf = (draft: DraftState, column: number) =>
  draft.analysis!.found.header[column] || `column ${column + 1}`;
