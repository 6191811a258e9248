import type { Line } from '@goodword/core/segment';
import { fieldEditor } from './FieldWords';
import { gaveEditor } from './GaveWords';
import { batchEditor, chapterEditor, listEditor, segmentEditor, tagEditor } from './GroupWords';
import { messageEditor } from './MessageWords';
import { lapsesEditor, mayEditor, permissionEditor } from './PermissionWords';
import { rosterEditor } from './RosterWords';
import type { LineEditor, LineProps, Subjects } from './subjects';

/** How a line of each kind is read and changed, in the order in which they are offered. */
const EDITORS: { [K in Line['kind']]: LineEditor<Extract<Line, { kind: K }>> } = {
  gave: gaveEditor,
  field: fieldEditor,
  tag: tagEditor,
  list: listEditor,
  message: messageEditor,
  batch: batchEditor,
  roster: rosterEditor,
  segment: segmentEditor,
  chapter: chapterEditor,
  may: mayEditor,
  lapses: lapsesEditor,
  permission: permissionEditor,
};

/** One line of a segment as words that open. */
export function SentenceLine({ line, subjects, onChange }: LineProps<Line>) {
  const { Words } = EDITORS[line.kind] as LineEditor<Line>;
  return <Words line={line} subjects={subjects} onChange={onChange} />;
}

/** Lines to begin with; those that have nothing to speak of yet are left out. */
export function newLines(subjects: Subjects): [string, Line][] {
  return Object.values(EDITORS).flatMap(({ offer, begin }): [string, Line][] => {
    const line = begin(subjects);
    return line ? [[offer, line]] : [];
  });
}
