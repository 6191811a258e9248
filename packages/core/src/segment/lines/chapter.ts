import { said } from '../../common';
import { columnOf } from '../plan';
import { whether, type LineKind } from './line-kind';

/** Belongs to one of some chapters. */
export interface ChapterLine {
  kind: 'chapter';
  chapterId: number;
  in: boolean;
}

/** What such a line reads, asks and says. */
export const chapterLine: LineKind<ChapterLine> = {
  kind: 'chapter',
  column: () => 'chapter',
  named: ({ chapterId }) => [{ kind: 'chapter', id: chapterId }],
  plan: ({ chapterId, in: wanted }, column) => {
    const { ids } = columnOf(column, 'chapter');
    return { kind: 'test', test: (i) => (ids[i] === chapterId) === wanted };
  },
  said: (line, names) =>
    said('line.chapter', { yes: whether(line.in), chapter: names.chapter(line.chapterId) }),
};
