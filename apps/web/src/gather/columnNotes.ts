import { plural, t } from '@lingui/core/macro';
import {
  consentHeader,
  isOneCase,
  readsRefusals,
  usualIn,
  type ColumnChoice,
  type Mend,
} from '@goodword/core/intake';
import type { Note } from '../ui/margin';
import { columnWords } from './columnWords';
import type { DraftState } from './draft';
import { layoutNotes, fileNotes } from './fileNotes';
import { type Acts, headerOf } from './noteActs';

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
      title: t`Nothing is changed yet`,
      body: t`People come in when you bring the batch in, and a batch can be taken back out as a whole.`,
    },
  ];
}
const rowsOf = (rows: readonly number[], count: number) =>
  `${plural(count, { one: 'Row', other: 'Rows' })} ${rows.join(', ')}${count > rows.length ? t` and more` : ''}`;

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
      const remedy = {
        words: t`Read it as “${columnWords(refusal, [], '')[0]}”`,
        act: () => acts.choose(column, refusal),
      };
      return [
        {
          key,
          anchor,
          tone: 'doubt',
          title: t`“${name}” is left out`,
          body: t`By its name a yes in it is a no, and nobody’s no would be recorded.`,
          remedy,
        },
      ];
    }
    if (choice.to === 'consent' && said?.sense === 'refuses') {
      const refusal = { to: 'refusal', channel: said.channel } as const;
      const remedy = {
        words: t`It is “${columnWords(refusal, [], '')[0]}”`,
        act: () => acts.choose(column, refusal),
      };
      return [
        {
          key,
          anchor,
          tone: 'fault',
          title: t`“${name}” is read as a permission`,
          body: t`By its name a yes in it is a no.`,
          remedy,
        },
      ];
    }
    if (choice.to === 'leave' && said?.sense === 'agrees' && !said.sure)
      return [
        {
          key,
          anchor,
          tone: 'doubt',
          title: t`“${name}”: to what did they agree?`,
          body: t`Its name does not tell. It is left out until you choose.`,
        },
      ];
    if (choice.to !== 'refusal') return [];
    const taken = columnWords(choice, [], '')[0];
    if (said?.sense === 'refuses' && said.sure)
      return [
        {
          key,
          anchor,
          tone: 'good',
          title: t`“${name}” is a column of refusals`,
          body: t`${taken} to whoever has a yes or a day in it, whatever else the file says.`,
        },
      ];
    const title = said ? t`“${name}”: what does a yes in it mean?` : t`“${name}” names people who left`;
    return [
      { key, anchor, tone: 'doubt', title, body: t`It is taken for “${taken}” until you choose otherwise.` },
    ];
  });
}

function swapNotes({ judgement, ...draft }: DraftState, acts: Acts): Note[] {
  return (judgement?.swapped ?? []).map(({ a, b, rows, count }) => ({
    key: `swap-${a}-${b}`,
    tone: 'fault',
    anchor: `column-${a}`,
    title: t`${count} ${plural(count, { one: 'row has', other: 'rows have' })} “${headerOf({ judgement, ...draft }, a)}” and “${headerOf({ judgement, ...draft }, b)}” swapped`,
    body: t`${rowsOf(rows, count)}: each holds what belongs in the other.`,
    remedy: {
      words: plural(count, { one: 'Swap it', other: 'Swap them' }),
      act: () => acts.mend({ kind: 'swap', a: a + 1, b: b + 1 }),
    },
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
        title: t`${count} ${plural(count, { one: 'cell', other: 'cells' })} of “${headerOf(draft, column)}” can't be read`,
        body: t`${rowsOf(
          first.map((one) => one.row),
          count,
        )}: ${first[0]?.reason ?? ''}. Edit the cell, or`,
        remedy: { words: t`Leave the column out`, act: () => acts.choose(column, { to: 'leave' }) },
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
      title: t`${failed} ${plural(failed, { one: 'row', other: 'rows' })} can't come in as ${plural(failed, { one: 'it is', other: 'they are' })}`,
      body: t`${rowsOf(
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
      ((choice.to === 'field' || choice.to === 'newField') &&
        (choice.type === 'date' || choice.type === 'birthday'));
    if (
      !dated ||
      !draft.analysis!.preview.some(({ cells }) => /^\s*\d{1,2}[/.-]\d/.test(cells[column] ?? ''))
    )
      return [];
    const ordered = choice as Extract<ColumnChoice, { order?: unknown }>;
    const order = ordered.order ?? 'day-first';
    const other = order === 'day-first' ? 'month-first' : 'day-first';
    const { profiles } = draft.analysis!;
    const profile = profiles[column]!;
    const { order: known, mixed } = profile;
    const usual = usualIn(profiles, profile);
    return [
      {
        key: `order-${column}`,
        tone: known ? 'good' : 'doubt',
        anchor: `column-${column}`,
        title: t`“${headerOf(draft, column)}”: day first or month first?`,
        body: known
          ? t`The values only work ${known.replace('-', ' ')}, so all are read ${order === known ? t`that way` : t`${order.replace('-', ' ')} by your choice`}.`
          : mixed
            ? t`Some values work only day first, others only month first. They are read ${order.replace('-', ' ')}; what does not work so can't be read.`
            : usual === order && usual !== profile.usual
              ? t`Nothing in these values tells; the other days of the file are ${order.replace('-', ' ')}, and so these are read.`
              : t`Nothing in the values tells. They are read ${order.replace('-', ' ')}.`,
        remedy: {
          words: t`Read ${other.replace('-', ' ')}`,
          act: () => acts.choose(column, { ...ordered, order: other } as ColumnChoice),
        },
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
      title: t`“${headerOf(draft, column)}”: one choice or several?`,
      body: t`${from.map((word) => `“${word}”`).join(', ')} ${plural(from.length, { one: 'looks', other: 'look' })} like “${to}”.`,
      remedy: {
        words: t`Write “${to}” for ${plural(from.length, { one: 'it', other: 'all' })}`,
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
        title: t`“${headerOf(draft, column)}”: names all in one case`,
        body: t`Such as “${found[0]!.slice(0, 40)}”. They come in as they stand.`,
        remedy: {
          words: t`Write them as names`,
          act: () => acts.mend({ kind: 'recase', column: column + 1 }),
        },
      },
    ];
  });
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
        title: t`${count} ${plural(count, { one: 'cell', other: 'cells' })} of “${headerOf(draft, column)}” to look at`,
        body: t`Row ${first.row}: ${first.reason}. ${plural(count, { one: 'It comes', other: 'They come' })} in as ${plural(count, { one: 'it stands', other: 'they stand' })}.`,
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
      remedy: { words: t`Undo`, act: () => acts.unmend(at) },
    }))
    .slice(-6)
    .reverse();
}

export function mendWords(mend: Mend, draft: Pick<DraftState, 'analysis'>): string {
  const header = (column: number) => `“${draft.analysis?.found.header[column - 1] ?? column}”`;
  switch (mend.kind) {
    case 'edit':
      return t`Row ${mend.row}: ${header(mend.column)} is now “${mend.value.slice(0, 40)}”`;
    case 'swap':
      return t`Swapped ${header(mend.a)} and ${header(mend.b)} where they were wrong`;
    case 'write':
      return t`“${mend.to}” for ${mend.from.length} ${plural(mend.from.length, { one: 'spelling', other: 'spellings' })} of ${header(mend.column)}`;
    case 'recase':
      return t`${header(mend.column)} written as names`;
    case 'strip':
      return t`“${mend.text}” taken out of ${header(mend.column)}`;
  }
}
