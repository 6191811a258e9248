import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { LABEL_KINDS, LABEL_SHEETS, type LabelKind } from '@goodword/core/print';
import { LABEL_WORDS } from '@goodword/core/words';
import { Labelled } from '../../ui/basics';
import { Choose, type BulkPart } from './parts';
import { toggled } from './printing';
import { reading } from '../../app/reading';

const FORMS = [
  ['call', t`Call sheet, numbered, to enter the answers by`],
  ['door', t`Door-to-door sheet, by street and side`],
  ['labels', t`Mailing labels`],
] as const;

const COLUMNS = [
  ['phone', t`Phone`],
  ['email', t`Email`],
  ['address', t`Address`],
  ['last-gift', t`Last gift`],
  ['tags', t`Tags`],
  ['stage', t`Stage`],
  ['notes', t`Last note`],
] as const;

const PAPERS = [
  ['LETTER', t`US Letter`],
  ['A4', 'A4'],
] as const;

const TOGETHER = [
  ['yes', t`One for each household`],
  ['no', t`One for each person`],
] as const;

function Columns({ typed, set }: BulkPart) {
  const { data = [] } = useQuery(reading('fields'));
  const chosen = (typed.columns ?? '').split(',');
  const all = [...COLUMNS, ...data.map((field) => [String(field.id), field.name] as const)];
  return (
    <fieldset>
      <legend className="font-semibold text-[13px] pb-1">{t`Beside the name, eight at most`}</legend>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1">
        {all.map(([column, words]) => (
          <label key={column} className="flex gap-2 items-center">
            <input
              type="checkbox"
              className="accent-[#0F766B]"
              checked={chosen.includes(column)}
              disabled={!chosen.includes(column) && chosen.filter(Boolean).length >= 8}
              onChange={() => set('columns', toggled(typed.columns ?? '', column))}
            />
            {words}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** A sheet to call from or to walk with. */
function SheetPart(part: BulkPart) {
  const { typed, set } = part;
  return (
    <>
      <Labelled label={t`Title`}>
        <input
          className="input"
          maxLength={120}
          value={typed.title ?? ''}
          onChange={(event) => set('title', event.target.value)}
        />
      </Labelled>
      <Columns {...part} />
      <div className="grid grid-cols-2 gap-3">
        <Choose label={t`Paper`} name="paper" options={PAPERS} {...part} />
        <Labelled label={t`Lines for notes`}>
          <input
            className="input"
            type="number"
            min={0}
            max={6}
            value={typed.noteLines ?? '1'}
            onChange={(event) => set('noteLines', event.target.value)}
          />
        </Labelled>
      </div>
      <p className="text-ink2">
        {typed.form === 'call'
          ? t`Who may not be called for an appeal is left out, and the sheet says how many. The answers are entered under Calls.`
          : t`Who said no to post is left out, and the sheet says how many.`}
      </p>
    </>
  );
}

function LabelsPart(part: BulkPart) {
  const { typed, set } = part;
  const kinds = LABEL_KINDS.map((kind) => [kind, LABEL_WORDS[kind]] as const);
  const sheet = LABEL_SHEETS[(typed.labels ?? 'letter-30') as LabelKind];
  return (
    <>
      <Choose label={t`Sheet`} name="labels" options={kinds} {...part} />
      <Choose label={t`How many`} name="together" options={TOGETHER} {...part} />
      <Labelled label={t`Labels of the first sheet that are used already`}>
        <input
          className="input"
          type="number"
          min={0}
          max={sheet.columns * sheet.rows - 1}
          value={typed.used ?? '0'}
          onChange={(event) => set('used', event.target.value)}
        />
      </Labelled>
      <p className="text-ink2">
        <Trans>
          Who has no postal address, or said no to post, gets none. Print at 100 %, without fitting to the
          page.
        </Trans>
      </p>
    </>
  );
}

/** What is printed of a group, and how. */
export function PrintPart(part: BulkPart) {
  const { form } = part.typed;
  return (
    <>
      <Choose label={t`What to print`} name="form" options={FORMS} {...part} />
      {(form === 'call' || form === 'door') && <SheetPart {...part} />}
      {form === 'labels' && <LabelsPart {...part} />}
    </>
  );
}
