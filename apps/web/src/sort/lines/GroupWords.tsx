import { t } from '@lingui/core/macro';
import type { BatchLine, ChapterLine, ListLine, SegmentLine, TagLine } from '@goodword/core/segment';
import { byId, type LineEditor, type LineProps, type Subjects } from './subjects';
import { PickWord, YesNoWord } from './Word';

type InGroup = TagLine | ListLine | BatchLine | ChapterLine | SegmentLine;

/** Of what such a line speaks: its words, its name, what can be chosen, and where the line keeps it. */
interface GroupSpoken {
  yes: string;
  no: string;
  of: string;
  label: string;
  all: 'tags' | 'lists' | 'batches' | 'chapters' | 'segments';
  id: string;
  is: string;
}

/** The words of a line that says whether somebody is in a group. */
function wordsOf<L extends InGroup>({ yes, no, of, label, all, id, is }: GroupSpoken) {
  return function GroupWords({ line, subjects, onChange }: LineProps<L>) {
    const said = line as unknown as Record<string, number | boolean>;
    const change = (part: object) => onChange({ ...line, ...part });
    return (
      <>
        <YesNoWord value={said[is] === true} yes={yes} no={no} onPick={(so) => change({ [is]: so })} /> {of}{' '}
        <PickWord
          label={label}
          value={Number(said[id])}
          options={byId(subjects[all])}
          onPick={(picked) => change({ [id]: picked })}
        />
      </>
    );
  };
}

export const tagEditor: LineEditor<TagLine> = {
  Words: wordsOf<TagLine>({
    yes: t`have`,
    no: t`do not have`,
    of: t`the tag`,
    label: t`Tag`,
    all: 'tags',
    id: 'tagId',
    is: 'has',
  }),
  offer: t`have a tag`,
  begin: ({ tags: [tag] }) => tag && { kind: 'tag', tagId: tag.id, has: true },
};

export const listEditor: LineEditor<ListLine> = {
  Words: wordsOf<ListLine>({
    yes: t`are`,
    no: t`are not`,
    of: t`on the list`,
    label: t`List`,
    all: 'lists',
    id: 'listId',
    is: 'on',
  }),
  offer: t`are on a list`,
  begin: ({ lists: [list] }) => list && { kind: 'list', listId: list.id, on: true },
};

export const batchEditor: LineEditor<BatchLine> = {
  Words: wordsOf<BatchLine>({
    yes: t`came`,
    no: t`did not come`,
    of: t`with the batch`,
    label: t`Batch`,
    all: 'batches',
    id: 'batchId',
    is: 'in',
  }),
  offer: t`came with a batch`,
  begin: ({ batches: [batch] }) => batch && { kind: 'batch', batchId: batch.id, in: true },
};

export const chapterEditor: LineEditor<ChapterLine> = {
  Words: wordsOf<ChapterLine>({
    yes: t`are`,
    no: t`are not`,
    of: t`of the chapter`,
    label: t`Chapter`,
    all: 'chapters',
    id: 'chapterId',
    is: 'in',
  }),
  offer: t`are of a chapter`,
  // A house of one chapter has nothing to ask there.
  begin: ({ chapters: [chapter, other] }: Subjects) =>
    chapter && other && { kind: 'chapter', chapterId: chapter.id, in: true },
};

export const segmentEditor: LineEditor<SegmentLine> = {
  Words: wordsOf<SegmentLine>({
    yes: t`are`,
    no: t`are not`,
    of: t`in the segment`,
    label: t`Segment`,
    all: 'segments',
    id: 'segmentId',
    is: 'in',
  }),
  offer: t`are in another segment`,
  begin: ({ segments: [segment] }) => segment && { kind: 'segment', segmentId: segment.id, in: true },
};
