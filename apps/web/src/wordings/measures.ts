import { plural, t } from '@lingui/core/macro';
import type { CompareMeasure } from '@goodword/core/wordings';

/** "… goes to the rest": the one that more of its people did this with. */
export const MEASURE_WORDS: Record<CompareMeasure, string> = {
  clicked: t`more clicked`,
  gave: t`more gave after`,
  replied: t`more answered`,
  opened: t`more opened`,
};

/** What those did who count, as the head of a column. */
export const DID_WORDS: Record<CompareMeasure, string> = {
  clicked: t`Clicked`,
  gave: t`Gave since`,
  replied: t`Answered`,
  opened: t`Opened`,
};

/** What share usually does it, to say what can be told apart: common practice, no source. */
export const USUAL_SHARE: Record<CompareMeasure, number> = {
  clicked: 0.03,
  gave: 0.02,
  replied: 0.02,
  opened: 0.25,
};

/** "the first", "wording 2". */
export const wordingName = (nth: number): string => (nth === 1 ? t`the first` : t`wording ${nth}`);

/** "24 hours", "3 days". */
export const waitedWords = (hours: number): string =>
  hours % 24 === 0 && hours > 24
    ? plural(hours / 24, { one: '# day', other: '# days' })
    : plural(hours, { one: '# hour', other: '# hours' });
