import { plural, t } from '@lingui/core/macro';
import { applyLayout, type FileFindings } from '@goodword/core/intake';
import { ENCODING_WORDS } from '@goodword/core/words';
import type { Note } from '../ui/margin';
import type { DraftState } from './draft';
import { type Acts, headerOf } from './noteActs';

export function layoutNotes(draft: DraftState, acts: Acts): Note[] {
  const { layout, analysis } = draft;
  if (!layout) return [];
  const guessed = analysis!.guesses.map(({ choice }) => choice);
  if (layout.exact)
    return [
      {
        key: 'layout',
        tone: 'good',
        title: t`Looks like “${layout.layout.name}”`,
        body: t`The same headers in the same order: its remembered layout was applied.`,
        remedy: { words: t`Start clean`, act: () => acts.chooseAll(guessed, null) },
      },
    ];
  const { header } = analysis!.found;
  return [
    {
      key: 'layout',
      tone: 'good',
      title: t`Looks like “${layout.layout.name}”`,
      body: t`${layout.known} of ${header.length} headers match its remembered layout.`,
      remedy: {
        words: t`Apply it`,
        act: () => acts.chooseAll(applyLayout(header, guessed, layout.layout), { ...layout, exact: true }),
      },
    },
  ];
}

/** Collects what is odd about a file; a doubt where nothing else is said. */
function collected() {
  const notes: Note[] = [];
  const add = (
    key: string,
    title: string,
    body: string,
    remedy?: Note['remedy'],
    tone: Note['tone'] = 'doubt',
  ) => notes.push({ key, tone, title, body, ...(remedy ? { remedy } : {}) });
  return { notes, add };
}

/** To have the file read again in another way. */
type Reread = (words: string, change: Parameters<Acts['readAgain']>[0]) => NonNullable<Note['remedy']>;

/** What stands over the values: titles, the line of the separator, the header. */
function headerNotes(found: FileFindings, set: Reread): Note[] {
  const { notes, add } = collected();
  if (found.titles.length > 0)
    add(
      'titles',
      t`${found.titles.length} ${plural(found.titles.length, { one: 'line', other: 'lines' })} over the header`,
      t`“${found.titles[0]!.slice(0, 60)}” is passed over.`,
      set(t`The first line is the header`, { headerLine: 1 }),
      'good',
    );
  if (found.separatorLine)
    add(
      'separator',
      t`A first line names the separator`,
      t`It is followed and passed over. Another can be chosen over the sheet.`,
      undefined,
      'good',
    );
  if (found.headerLine === null)
    add(
      'no-header',
      t`There is no header row`,
      t`The first line holds values, so the columns are numbered.`,
      set(t`The first line is a header`, { headerLine: 1 }),
    );
  else
    add(
      'header',
      t`${found.titles.length === 0 ? t`The first line` : t`Line ${found.headerLine}`} is taken for headers`,
      t`If it is a person already,`,
      set(t`read it as a person`, { headerLine: null }),
      'plain',
    );
  return notes;
}

/** Lines that are none, rows that are too long or too short, letters that were broken. */
function lineNotes(found: FileFindings, set: Reread): Note[] {
  const { notes, add } = collected();
  if (found.doubled.length > 0)
    add(
      'doubled',
      t`A header stands twice`,
      t`“${found.doubled[0]!}” stands over more than one column. Look at the values before matching them.`,
    );
  const { blank, header, total } = found.asides;
  const lines = [
    blank > 0 && t`${blank} blank`,
    header > 0 && t`${header} that ${plural(header, { one: 'repeats', other: 'repeat' })} the header`,
    total > 0 && t`${total} that ${plural(total, { one: 'sums', other: 'sum' })} up`,
  ].filter(Boolean);
  if (lines.length > 0)
    add(
      'asides',
      t`Lines that are no people`,
      t`${lines.join(', ')}: set aside, and counted apart.`,
      header + total > 0 ? set(t`They are people`, { keepAside: true }) : undefined,
      'good',
    );
  if (found.longer > 0)
    add(
      'longer',
      t`${found.longer} ${plural(found.longer, { one: 'row has', other: 'rows have' })} too many cells`,
      t`A separator may stand inside a value without quotes. These rows do not come in as they are.`,
    );
  if (found.shorter > 0)
    add(
      'shorter',
      t`${found.shorter} ${plural(found.shorter, { one: 'row has', other: 'rows have' })} fewer cells than headers`,
      t`What is missing at the end counts as empty.`,
      undefined,
      'plain',
    );
  if (found.unscramble)
    add(
      'unscramble',
      t`Letters were broken once and are put right`,
      t`Such as “JosÃ©” for “José”.`,
      set(t`Leave them as they are`, { unscramble: false }),
      'good',
    );
  if (found.encoding === 'mixed')
    add('mixed', t`Two encodings in one file`, t`${ENCODING_WORDS.mixed}: each line is read as what it is.`);
  return notes;
}

/** What a workbook hides or holds beside values. */
function workbookNotes(draft: DraftState, acts: Acts): Note[] {
  const { notes, add } = collected();
  const { workbook } = draft.analysis!.found;
  const hidden = (workbook?.hiddenColumns ?? []).map((nth) => nth - 1);
  if (hidden.some((column) => draft.columns[column]?.to !== 'leave'))
    add(
      'hidden',
      t`Hidden columns`,
      t`${hidden.map((column) => `“${headerOf(draft, column)}”`).join(', ')}: hidden in the sheet, shown here.`,
      {
        words: plural(hidden.length, { one: 'Leave it out', other: 'Leave them out' }),
        act: () =>
          acts.chooseAll(
            draft.columns.map((choice, column) => (hidden.includes(column) ? { to: 'leave' } : choice)),
            draft.layout,
          ),
      },
    );
  if (workbook && workbook.hiddenRows > 0)
    add(
      'hidden-rows',
      `${workbook.hiddenRows} hidden ${plural(workbook.hiddenRows, { one: 'row', other: 'rows' })}`,
      t`Hidden or filtered out in the sheet, and read all the same.`,
    );
  if (workbook && workbook.mergedCells > 0)
    add(
      'merged',
      `${workbook.mergedCells} merged ${plural(workbook.mergedCells, { one: 'cell', other: 'cells' })}`,
      t`One merged downwards counts for each of its rows.`,
      undefined,
      'plain',
    );
  if (workbook && workbook.formulas > 0)
    add(
      'formulas',
      `${workbook.formulas} ${plural(workbook.formulas, { one: 'formula', other: 'formulas' })}`,
      t`Read by the value that they had when the sheet was saved.`,
      undefined,
      'plain',
    );
  return notes;
}

/** What is odd about the file itself: told, with the choice where there is one. */
export function fileNotes(draft: DraftState, acts: Acts): Note[] {
  const { found } = draft.analysis!;
  const set: Reread = (words, change) => ({ words, act: () => acts.readAgain(change) });
  return [...headerNotes(found, set), ...lineNotes(found, set), ...workbookNotes(draft, acts)];
}
