import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useCallback, useMemo, useState } from 'react';
import {
  BATCH_KINDS,
  DELIMITERS,
  ENCODINGS,
  menderOf,
  usualIn,
  type BatchKind,
  type ColumnChoice,
  type ColumnProfile,
  type Delimiter,
  type Encoding,
  type ParseOptions,
} from '@goodword/core/intake';
import { ENCODING_WORDS } from '@goodword/core/words';
import { useFormat } from '../app/format';
import { Button } from '../ui/basics';
import { useMargin } from '../ui/margin';
import { ColumnCard } from './ColumnCard';
import { columnNotes } from './columnNotes';
import { KIND_WORDS } from './columnWords';
import { Constants } from './Constants';
import { stepsOf, useDraft } from './draft';
import type { Judgement } from './intake.worker';
import { PREVIEW } from './measures';
import { SheetGrid } from './SheetGrid';
import type { HouseVocabulary } from './useHouse';
import { STEP_WORDS } from './stepWords';

/** Three counts and their bar: ready, with a doubt, not as they are. */
export function Tally({ judgement, judging }: { judgement: Judgement | null; judging: boolean }) {
  const format = useFormat();
  if (!judgement) return <p className="text-ink2 grow">{t`Reading the values…`}</p>;
  const { ready, look, failed, counted } = judgement;
  return (
    <div className="grow" role="status">
      <div className="flex h-2 gap-[2px]" aria-hidden="true">
        <div className="bg-verdigris" style={{ flexGrow: ready }} />
        <div className="bg-ochremark" style={{ flexGrow: look }} />
        <div className="bg-madder" style={{ flexGrow: failed }} />
      </div>
      <p className="pt-1 text-ink2">
        <Trans>
          <b className="text-ink">{format.number(ready)}</b> ready ·{' '}
          <b className="text-ink">{format.number(look)}</b> come in without a cell ·{' '}
          <b className="text-ink">{format.number(failed)}</b> can't come in as they are
          {judging ? t`, of the first ${format.number(counted)}…` : ''}
        </Trans>
      </p>
    </div>
  );
}

/**
 * Columns matched to fields over their values, as they stand in the file and as they are after what was
 * mended.
 */
export function ColumnsStep({ house }: { house: HouseVocabulary }) {
  const draft = useDraft();
  const { analysis, columns, judgement, judging, parts, choose, mend, go, readAgain } = draft;
  const again = (change: ParseOptions, what: BatchKind | null = null) => void readAgain(change, what, house);
  useMargin(columnNotes(draft, { ...draft, readAgain: again }));
  const country = parts.phoneCountry ?? house.country;
  const mender = useMemo(() => menderOf(parts.mends, columns, country), [parts.mends, columns, country]);
  const said = judgement?.cells;
  const cellsOf = useCallback(
    ({ row, cells }: { row: number; cells: readonly string[] }) => mender(cells, row - 1),
    [mender],
  );
  const wordOf = useCallback((row: number, column: number) => said?.[`${row}:${column}`], [said]);
  const isLeft = useCallback((column: number) => columns[column]?.to === 'leave', [columns]);
  if (!analysis) return null;
  const { found, preview, profiles, guesses } = analysis;
  const next = stepsOf(parts.what)[stepsOf(parts.what).indexOf('Columns') + 1]!;
  return (
    <>
      <ReadAs onAgain={again} />
      <SheetGrid
        header={found.header}
        rows={preview}
        cellsOf={cellsOf}
        wordOf={wordOf}
        isLeft={isLeft}
        onEdit={(row, column, value) => mend({ kind: 'edit', row, column: column + 1, value })}
        head={(column) => (
          <ColumnCard
            column={column}
            header={found.header[column]!}
            choice={columns[column] ?? { to: 'leave' }}
            what={parts.what}
            fields={house.fields}
            country={country}
            rows={profiles[column]!.filled + profiles[column]!.empty}
            filled={profiles[column]!.filled}
            faults={judgement?.faultsByColumn[column] ?? 0}
            confidence={
              sameChoice(columns[column], guesses[column]?.choice)
                ? (guesses[column]?.confidence ?? null)
                : null
            }
            values={() => preview.map(({ cells }) => cells[column] ?? '')}
            onChoose={(choice) =>
              choose(
                column,
                withOrder(choice, { ...profiles[column]!, usual: usualIn(profiles, profiles[column]!) }),
              )
            }
            onStrip={(text) => text !== '' && mend({ kind: 'strip', column: column + 1, text })}
          />
        )}
      />
      {found.rows > preview.length && preview.length >= PREVIEW && (
        <p className="text-ink2 text-[12.5px] pt-1">
          <Trans>The first {preview.length} rows are shown; all are read.</Trans>
        </p>
      )}
      <Constants house={house} />
      <div className="flex items-center gap-4 pt-2">
        <Tally judgement={judgement} judging={judging} />
        <Button weight="main" disabled={!analysis.whole} onClick={() => go(next)}>
          <Trans>Next: {STEP_WORDS[next].toLowerCase()}</Trans>
        </Button>
      </div>
    </>
  );
}

const sameChoice = (a: ColumnChoice | undefined, b: ColumnChoice | undefined) =>
  JSON.stringify({ ...a, order: 0 }) === JSON.stringify({ ...b, order: 0 });

const SEPARATORS: Record<Delimiter, string> = {
  ',': 'commas',
  ';': 'semicolons',
  '\t': 'tabs',
  '|': 'pipes',
};
const CHOICE = 'input !w-auto !min-h-[30px] !py-[3px]';

/**
 * How the file is read and what it is for, found by itself and changeable: letters that look wrong are read
 * anew as something else.
 */
function ReadAs({ onAgain }: { onAgain: (change: ParseOptions, what?: BatchKind) => void }) {
  const { analysis, parts } = useDraft();
  const [line, setLine] = useState<string | null>(null);
  if (!analysis) return null;
  const { found } = analysis;
  return (
    <p className="pb-2 flex items-center gap-x-2 gap-y-1 text-ink2 flex-wrap">
      <select
        className={CHOICE}
        aria-label={t`What the file is`}
        value={parts.what}
        onChange={(event) => onAgain({}, event.target.value as BatchKind)}
      >
        {BATCH_KINDS.map((kind) => (
          <option key={kind} value={kind}>
            {KIND_WORDS[kind][0]}
          </option>
        ))}
      </select>
      {found.workbook && (
        <>
          {t`on the sheet`}
          <select
            className={CHOICE}
            aria-label={t`Sheet`}
            value={found.workbook.sheet}
            onChange={(event) => onAgain({ sheet: Number(event.target.value) })}
          >
            {found.workbook.sheets.map((sheet, i) => (
              <option key={i} value={i + 1}>
                {sheet.hidden
                  ? t`${sheet.name} (hidden), ${plural(sheet.rows, { one: '# line', other: '# lines' })}`
                  : t`${sheet.name}, ${plural(sheet.rows, { one: '# line', other: '# lines' })}`}
              </option>
            ))}
          </select>
        </>
      )}
      {found.kind === 'text' && (
        <>
          <Trans>
            {found.sure ? t`read as` : t`read, by a guess, as`}
            <select
              className={`${CHOICE} max-w-[210px]`}
              aria-label={t`Encoding`}
              value={found.encoding}
              onChange={(event) => onAgain({ encoding: event.target.value as Encoding })}
            >
              {ENCODINGS.map((encoding) => (
                <option key={encoding} value={encoding}>
                  {ENCODING_WORDS[encoding]}
                </option>
              ))}
            </select>
            cut at
          </Trans>
          <select
            className={CHOICE}
            aria-label={t`Separator`}
            value={found.delimiter}
            onChange={(event) => onAgain({ delimiter: event.target.value as Delimiter })}
          >
            {DELIMITERS.map((delimiter) => (
              <option key={delimiter} value={delimiter}>
                {SEPARATORS[delimiter]}
              </option>
            ))}
          </select>
        </>
      )}
      {found.kind !== 'vcard' && (
        <label className="flex items-center gap-2">
          {t`with headers in line`}
          <input
            className="input !w-[60px] !min-h-[30px] !py-[3px]"
            inputMode="numeric"
            value={line ?? (found.headerLine === null ? '' : String(found.headerLine))}
            placeholder={t`none`}
            onChange={(event) => setLine(event.target.value.replace(/\D/g, '').slice(0, 2))}
            onBlur={() => {
              if (line !== null) onAgain({ headerLine: line === '' ? null : Math.max(1, Number(line)) });
              setLine(null);
            }}
            onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
          />
        </label>
      )}
    </p>
  );
}

function withOrder(choice: ColumnChoice, profile: Pick<ColumnProfile, 'order' | 'usual'>): ColumnChoice {
  const order = profile.order ?? (profile.usual === 'month-first' ? profile.usual : null);
  return order &&
    (choice.to === 'field' || choice.to === 'newField' || choice.to === 'signedOn' || choice.to === 'givenOn')
    ? { ...choice, order }
    : choice;
}
