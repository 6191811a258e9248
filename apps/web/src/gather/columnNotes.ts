import { applyLayout, consentHeader, ENCODING_WORDS, isOneCase, readsRefusals, type ColumnChoice, type Mend } from '@goodword/core/intake';
import { plural } from '../app/format';
import type { Note } from '../ui/margin';
import { columnWords } from './columnWords';
import type { DraftState } from './draft';

type Acts = Pick<DraftState, 'choose' | 'chooseAll' | 'mend' | 'unmend'> & { readAgain: (change: Parameters<DraftState['readAgain']>[0]) => void };

/** What the Margin says of the columns step, the gravest first: pure, from what was found and judged. */
export function columnNotes(draft: DraftState, acts: Acts): Note[] {
  if (!draft.analysis) return [];
  return [
    ...refusalNotes(draft, acts),
    ...swapNotes(draft, acts),
    ...faultNotes(draft, acts),
    ...failedNotes(draft),
    ...orderNotes(draft, acts),
    ...spellingNotes(draft, acts),
    ...caseNotes(draft, acts),
    ...layoutNotes(draft, acts),
    ...fileNotes(draft, acts),
    ...hintNotes(draft),
    ...mendNotes(draft, acts),
    {
      key: 'safe',
      tone: 'plain',
      title: 'Nothing is changed yet',
      body: 'People come in when you bring the batch in, and a batch can be taken back out as a whole.',
    },
  ];
}

const headerOf = (draft: DraftState, column: number) => draft.analysis!.found.header[column] || `column ${column + 1}`;
const rowsOf = (rows: readonly number[], count: number) =>
  `${plural(count, 'Row', 'Rows')} ${rows.join(', ')}${count > rows.length ? ' and more' : ''}`;

/** What a column says of permission: a refusal is told, and one that can be read in two ways is asked. */
function refusalNotes(draft: DraftState, acts: Acts): Note[] {
  const { what } = draft.parts;
  return draft.columns.flatMap((choice, column): Note[] => {
    const name = headerOf(draft, column);
    const said = consentHeader(draft.analysis!.found.header[column] ?? '');
    const [anchor, key] = [`column-${column}`, `refusal-${column}`];
    if (!readsRefusals(what)) return [];
    if (choice.to === 'leave' && said?.sense === 'refuses' && said.sure) {
      const refusal = { to: 'refusal', channel: said.channel } as const;
      const remedy = { words: `Read it as “${columnWords(refusal, [], '')[0]}”`, act: () => acts.choose(column, refusal) };
      return [
        {
          key,
          anchor,
          tone: 'doubt',
          title: `“${name}” is left out`,
          body: 'By its name a yes in it is a no, and nobody’s no would be recorded.',
          remedy,
        },
      ];
    }
    if (choice.to === 'consent' && said?.sense === 'refuses') {
      const refusal = { to: 'refusal', channel: said.channel } as const;
      const remedy = { words: `It is “${columnWords(refusal, [], '')[0]}”`, act: () => acts.choose(column, refusal) };
      return [{ key, anchor, tone: 'fault', title: `“${name}” is read as a permission`, body: 'By its name a yes in it is a no.', remedy }];
    }
    if (choice.to === 'leave' && said?.sense === 'agrees' && !said.sure)
      return [
        { key, anchor, tone: 'doubt', title: `“${name}”: to what did they agree?`, body: 'Its name does not tell. It is left out until you choose.' },
      ];
    if (choice.to !== 'refusal') return [];
    const taken = columnWords(choice, [], '')[0];
    if (said?.sense === 'refuses' && said.sure)
      return [
        {
          key,
          anchor,
          tone: 'good',
          title: `“${name}” is a column of refusals`,
          body: `${taken} to whoever has a yes or a day in it, whatever else the file says.`,
        },
      ];
    const title = said ? `“${name}”: what does a yes in it mean?` : `“${name}” names people who left`;
    return [{ key, anchor, tone: 'doubt', title, body: `It is taken for “${taken}” until you choose otherwise.` }];
  });
}

function swapNotes({ judgement, ...draft }: DraftState, acts: Acts): Note[] {
  return (judgement?.swapped ?? []).map(({ a, b, rows, count }) => ({
    key: `swap-${a}-${b}`,
    tone: 'fault',
    anchor: `column-${a}`,
    title: `${count} ${plural(count, 'row has', 'rows have')} “${headerOf({ judgement, ...draft }, a)}” and “${headerOf({ judgement, ...draft }, b)}” swapped`,
    body: `${rowsOf(rows, count)}: each holds what belongs in the other.`,
    remedy: { words: plural(count, 'Swap it', 'Swap them'), act: () => acts.mend({ kind: 'swap', a: a + 1, b: b + 1 }) },
  }));
}

function faultNotes(draft: DraftState, acts: Acts): Note[] {
  const { judgement } = draft;
  return draft.columns.flatMap((_choice, column): Note[] => {
    const count = judgement?.faultsByColumn[column] ?? 0;
    if (count === 0) return [];
    const first = judgement!.first.filter((one) => one.column === column && !one.hint);
    return [
      {
        key: `fault-${column}`,
        tone: 'fault',
        anchor: `column-${column}`,
        title: `${count} ${plural(count, 'cell', 'cells')} of “${headerOf(draft, column)}” can't be read`,
        body: `${rowsOf(
          first.map((one) => one.row),
          count,
        )}: ${first[0]?.reason ?? ''}. Edit the cell, or`,
        remedy: { words: 'Leave the column out', act: () => acts.choose(column, { to: 'leave' }) },
      },
    ];
  });
}

function failedNotes({ judgement }: DraftState): Note[] {
  if (!judgement || judgement.failed === 0) return [];
  const { failed, failedRows } = judgement;
  return [
    {
      key: 'failed',
      tone: 'fault',
      title: `${failed} ${plural(failed, 'row', 'rows')} can't come in as ${plural(failed, 'it is', 'they are')}`,
      body: `${rowsOf(
        failedRows.map((row) => row.row),
        failed,
      )}: ${failedRows[0]?.reason ?? ''}. They can be downloaded with the reason, mended, and brought in again.`,
    },
  ];
}

function orderNotes(draft: DraftState, acts: Acts): Note[] {
  return draft.columns.flatMap((choice, column): Note[] => {
    const dated =
      choice.to === 'signedOn' ||
      choice.to === 'givenOn' ||
      ((choice.to === 'field' || choice.to === 'newField') && (choice.type === 'date' || choice.type === 'birthday'));
    if (!dated || !draft.analysis!.preview.some(({ cells }) => /^\s*\d{1,2}[/.-]\d/.test(cells[column] ?? ''))) return [];
    const ordered = choice as Extract<ColumnChoice, { order?: unknown }>;
    const order = ordered.order ?? 'day-first';
    const other = order === 'day-first' ? 'month-first' : 'day-first';
    const { order: known, mixed } = draft.analysis!.profiles[column]!;
    return [
      {
        key: `order-${column}`,
        tone: known ? 'good' : 'doubt',
        anchor: `column-${column}`,
        title: `“${headerOf(draft, column)}”: day first or month first?`,
        body: known
          ? `The values only work ${known.replace('-', ' ')}, so all are read ${order === known ? 'that way' : `${order.replace('-', ' ')} by your choice`}.`
          : mixed
            ? `Some values work only day first, others only month first. They are read ${order.replace('-', ' ')}; what does not work so can't be read.`
            : `Nothing in the values tells. They are read ${order.replace('-', ' ')}.`,
        remedy: { words: `Read ${other.replace('-', ' ')}`, act: () => acts.choose(column, { ...ordered, order: other } as ColumnChoice) },
      },
    ];
  });
}

function spellingNotes(draft: DraftState, acts: Acts): Note[] {
  return (draft.judgement?.spellings ?? []).flatMap(({ column, gatherings }) =>
    gatherings.slice(0, 3).map(({ to, from }): Note => ({
      key: `spelling-${column}-${to}`,
      tone: 'doubt',
      anchor: `column-${column}`,
      title: `“${headerOf(draft, column)}”: one choice or several?`,
      body: `${from.map((word) => `“${word}”`).join(', ')} ${plural(from.length, 'looks', 'look')} like “${to}”.`,
      remedy: {
        words: `Write “${to}” for ${plural(from.length, 'it', 'all')}`,
        act: () => acts.mend({ kind: 'write', column: column + 1, from, to }),
      },
    })),
  );
}

/** Names as a caps lock left them: they stay so unless somebody says otherwise, since some are meant. */
function caseNotes(draft: DraftState, acts: Acts): Note[] {
  return draft.columns.flatMap((choice, column): Note[] => {
    if (!['firstName', 'lastName', 'fullName'].includes(choice.to)) return [];
    if (draft.parts.mends.some((mend) => mend.kind === 'recase' && mend.column === column + 1)) return [];
    const found = draft.analysis!.preview.map(({ cells }) => cells[column]?.trim() ?? '').filter(isOneCase);
    if (found.length === 0) return [];
    return [
      {
        key: `case-${column}`,
        tone: 'doubt',
        anchor: `column-${column}`,
        title: `“${headerOf(draft, column)}”: names all in one case`,
        body: `Such as “${found[0]!.slice(0, 40)}”. They come in as they stand.`,
        remedy: { words: 'Write them as names', act: () => acts.mend({ kind: 'recase', column: column + 1 }) },
      },
    ];
  });
}

function layoutNotes(draft: DraftState, acts: Acts): Note[] {
  const { layout, analysis } = draft;
  if (!layout) return [];
  const guessed = analysis!.guesses.map(({ choice }) => choice);
  if (layout.exact)
    return [
      {
        key: 'layout',
        tone: 'good',
        title: `Looks like “${layout.layout.name}”`,
        body: 'The same headers in the same order: its remembered layout was applied.',
        remedy: { words: 'Start clean', act: () => acts.chooseAll(guessed, null) },
      },
    ];
  const { header } = analysis!.found;
  return [
    {
      key: 'layout',
      tone: 'good',
      title: `Looks like “${layout.layout.name}”`,
      body: `${layout.known} of ${header.length} headers match its remembered layout.`,
      remedy: {
        words: 'Apply it',
        act: () => acts.chooseAll(applyLayout(header, guessed, layout.layout), { ...layout, exact: true }),
      },
    },
  ];
}

/** What is odd about the file itself: told, with the choice where there is one. */
function fileNotes(draft: DraftState, acts: Acts): Note[] {
  const { found } = draft.analysis!;
  const notes: Note[] = [];
  const add = (key: string, title: string, body: string, remedy?: Note['remedy'], tone: Note['tone'] = 'doubt') =>
    notes.push({ key, tone, title, body, ...(remedy ? { remedy } : {}) });
  const set = (words: string, change: Parameters<Acts['readAgain']>[0]) => ({ words, act: () => acts.readAgain(change) });
  if (found.titles.length > 0)
    add(
      'titles',
      `${found.titles.length} ${plural(found.titles.length, 'line', 'lines')} over the header`,
      `“${found.titles[0]!.slice(0, 60)}” is passed over.`,
      set('The first line is the header', { headerLine: 1 }),
      'good',
    );
  if (found.separatorLine)
    add('separator', 'A first line names the separator', 'It is followed and passed over. Another can be chosen over the sheet.', undefined, 'good');
  if (found.headerLine === null)
    add(
      'no-header',
      'There is no header row',
      'The first line holds values, so the columns are numbered.',
      set('The first line is a header', { headerLine: 1 }),
    );
  else
    add(
      'header',
      `${found.titles.length === 0 ? 'The first line' : `Line ${found.headerLine}`} is taken for headers`,
      'If it is a person already,',
      set('read it as a person', { headerLine: null }),
      'plain',
    );
  if (found.doubled.length > 0)
    add('doubled', 'A header stands twice', `“${found.doubled[0]}” stands over more than one column. Look at the values before matching them.`);
  const { blank, header, total } = found.asides;
  const lines = [
    blank > 0 && `${blank} blank`,
    header > 0 && `${header} that ${plural(header, 'repeats', 'repeat')} the header`,
    total > 0 && `${total} that ${plural(total, 'sums', 'sum')} up`,
  ].filter(Boolean);
  if (lines.length > 0)
    add(
      'asides',
      'Lines that are no people',
      `${lines.join(', ')}: set aside, and counted apart.`,
      header + total > 0 ? set('They are people', { keepAside: true }) : undefined,
      'good',
    );
  if (found.longer > 0)
    add(
      'longer',
      `${found.longer} ${plural(found.longer, 'row has', 'rows have')} too many cells`,
      'A separator may stand inside a value without quotes. These rows do not come in as they are.',
    );
  if (found.shorter > 0)
    add(
      'shorter',
      `${found.shorter} ${plural(found.shorter, 'row has', 'rows have')} fewer cells than headers`,
      'What is missing at the end counts as empty.',
      undefined,
      'plain',
    );
  if (found.unscramble)
    add(
      'unscramble',
      'Letters were broken once and are put right',
      'Such as “JosÃ©” for “José”.',
      set('Leave them as they are', { unscramble: false }),
      'good',
    );
  if (found.encoding === 'mixed') add('mixed', 'Two encodings in one file', `${ENCODING_WORDS.mixed}: each line is read as what it is.`);
  const { workbook } = found;
  const hidden = (workbook?.hiddenColumns ?? []).map((nth) => nth - 1);
  if (hidden.some((column) => draft.columns[column]?.to !== 'leave'))
    add('hidden', 'Hidden columns', `${hidden.map((column) => `“${headerOf(draft, column)}”`).join(', ')}: hidden in the sheet, shown here.`, {
      words: plural(hidden.length, 'Leave it out', 'Leave them out'),
      act: () =>
        acts.chooseAll(
          draft.columns.map((choice, column) => (hidden.includes(column) ? { to: 'leave' } : choice)),
          draft.layout,
        ),
    });
  if (workbook && workbook.hiddenRows > 0)
    add(
      'hidden-rows',
      `${workbook.hiddenRows} hidden ${plural(workbook.hiddenRows, 'row', 'rows')}`,
      'Hidden or filtered out in the sheet, and read all the same.',
    );
  if (workbook && workbook.mergedCells > 0)
    add(
      'merged',
      `${workbook.mergedCells} merged ${plural(workbook.mergedCells, 'cell', 'cells')}`,
      'One merged downwards counts for each of its rows.',
      undefined,
      'plain',
    );
  if (workbook && workbook.formulas > 0)
    add(
      'formulas',
      `${workbook.formulas} ${plural(workbook.formulas, 'formula', 'formulas')}`,
      'Read by the value that they had when the sheet was saved.',
      undefined,
      'plain',
    );
  return notes;
}

function hintNotes(draft: DraftState): Note[] {
  const { judgement } = draft;
  return draft.columns.flatMap((_choice, column): Note[] => {
    const count = judgement?.hintsByColumn[column] ?? 0;
    const first = judgement?.first.find((one) => one.column === column && one.hint);
    if (count === 0 || !first) return [];
    return [
      {
        key: `hint-${column}`,
        tone: 'doubt',
        anchor: `column-${column}`,
        title: `${count} ${plural(count, 'cell', 'cells')} of “${headerOf(draft, column)}” to look at`,
        body: `Row ${first.row}: ${first.reason}. ${plural(count, 'It comes', 'They come')} in as ${plural(count, 'it stands', 'they stand')}.`,
      },
    ];
  });
}

/** What was mended, each with its way back. */
function mendNotes(draft: DraftState, acts: Acts): Note[] {
  const { mends } = draft.parts;
  return mends
    .map((mend, at): Note => ({
      key: `mend-${at}`,
      tone: 'good',
      title: mendWords(mend, draft),
      remedy: { words: 'Undo', act: () => acts.unmend(at) },
    }))
    .slice(-6)
    .reverse();
}

export function mendWords(mend: Mend, draft: Pick<DraftState, 'analysis'>): string {
  const header = (column: number) => `“${draft.analysis?.found.header[column - 1] ?? column}”`;
  switch (mend.kind) {
    case 'edit':
      return `Row ${mend.row}: ${header(mend.column)} is now “${mend.value.slice(0, 40)}”`;
    case 'swap':
      return `Swapped ${header(mend.a)} and ${header(mend.b)} where they were wrong`;
    case 'write':
      return `“${mend.to}” for ${mend.from.length} ${plural(mend.from.length, 'spelling', 'spellings')} of ${header(mend.column)}`;
    case 'recase':
      return `${header(mend.column)} written as names`;
    case 'strip':
      return `“${mend.text}” taken out of ${header(mend.column)}`;
  }
}
