import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { parseIsoDay } from '@goodword/core/common';
import { asksOf, formatDay, formatMoney } from '@goodword/core/fields';
import {
  STANDARD_FIELDS,
  STRETCHES,
  UNITS,
  type FieldLine,
  type Stretch,
  type Unit,
} from '@goodword/core/segment';
import { describeWindow, STANDARD_FIELD_WORDS } from '@goodword/core/words';
import { MONTHS } from '../../app/choices';
import { useSession } from '../../app/session';
import { COUNTS_TIME, newFieldLine, NEEDS_NOTHING, OP_WORDS, startValue, typeOf } from './sentence';
import type { LineEditor, LineProps } from './subjects';
import { PickWord, TypeWord } from './Word';

type ValueProps = LineProps<FieldLine> & { type: ReturnType<typeof typeOf> };

/** So many days, weeks or months. */
function TimeWords({ line, onChange }: ValueProps) {
  return (
    <>
      <TypeWord
        label={t`How many`}
        type="number"
        value={String(line.value ?? '')}
        onType={(many) => onChange({ ...line, value: Math.max(0, Math.round(Number(many)) || 0) })}
      />{' '}
      <PickWord
        label={t`Counted in`}
        value={line.unit ?? 'days'}
        options={UNITS.map((unit): [Unit, string] => [unit, unit])}
        onPick={(unit) => onChange({ ...line, unit })}
      />
      {line.op === 'ago' && t` ago`}
    </>
  );
}

function PlaceWords({ line, onChange }: ValueProps) {
  return (
    <>
      <TypeWord
        label={t`Kilometres`}
        type="number"
        value={String(line.value ?? '')}
        onType={(km) => onChange({ ...line, value: Number(km) })}
      />{' '}
      {t`km of`}{' '}
      <TypeWord
        label={t`Latitude, longitude`}
        value={String(line.to ?? '')}
        onType={(to) => onChange({ ...line, to })}
      />
    </>
  );
}

function PlainWords({ line, onChange, type, subjects }: ValueProps) {
  const { organization } = useSession();
  const choices =
    typeof line.field === 'number'
      ? (subjects.fields.find((field) => field.id === line.field)?.choices ?? [])
      : [];
  if (choices.length > 0)
    return (
      <PickWord
        label={t`Value`}
        value={String(line.value ?? '')}
        options={choices.map((choice) => [choice, choice] as const)}
        onPick={(value) => onChange({ ...line, value })}
      />
    );
  const money = type === 'money';
  const shown = (value: string | number | undefined) => {
    const day = type === 'date' && typeof value === 'string' ? parseIsoDay(value) : null;
    if (day !== null) return formatDay(day, organization.locale);
    return money ? formatMoney(Number(value), organization) : String(value ?? '');
  };
  const read = (text: string) =>
    money ? Math.round(Number(text) * 100) : type === 'number' ? Number(text) : text;
  const typed = (value: string | number | undefined) =>
    money ? String(Number(value) / 100) : String(value ?? '');
  const input = type === 'number' || money ? 'number' : type === 'date' ? 'date' : 'text';
  const word = (label: string, key: 'value' | 'to') => (
    <TypeWord
      label={label}
      type={input}
      value={typed(line[key])}
      shown={shown(line[key])}
      onType={(text) => onChange({ ...line, [key]: read(text) })}
    />
  );
  return (
    <>
      {word(t`Value`, 'value')}
      {line.op === 'between' && (
        <>
          {' '}
          <Trans>and {word(t`Up to`, 'to')}</Trans>
        </>
      )}
    </>
  );
}

function ValueWords(props: ValueProps) {
  const { line, onChange } = props;
  if (NEEDS_NOTHING.includes(line.op)) return null;
  if (COUNTS_TIME.includes(line.op)) return <TimeWords {...props} />;
  if (line.op === 'within-km') return <PlaceWords {...props} />;
  if (line.op === 'in-month')
    return (
      <PickWord
        label={t`Month`}
        value={Number(line.value)}
        options={MONTHS.map((month, i) => [i + 1, month] as const)}
        onPick={(value) => onChange({ ...line, value })}
      />
    );
  if (line.op === 'during')
    return (
      <PickWord
        label={t`Stretch of the calendar`}
        value={String(line.value) as Stretch}
        options={STRETCHES.map((stretch) => [stretch, describeWindow({ over: stretch })] as const)}
        onPick={(value) => onChange({ ...line, value })}
      />
    );
  return <PlainWords {...props} />;
}

function FieldWords(props: LineProps<FieldLine>) {
  const { line, subjects, onChange } = props;
  const type = typeOf(line.field, subjects.fields);
  const fields: [FieldLine['field'], string][] = [
    ...STANDARD_FIELDS.map((ref): [FieldLine['field'], string] => [ref, STANDARD_FIELD_WORDS[ref]]),
    ...subjects.fields.map((field): [number, string] => [field.id, field.name]),
  ];
  return (
    <>
      <Trans>
        have{' '}
        <PickWord
          label={t`Field`}
          value={line.field}
          options={fields}
          onPick={(field) => onChange(newFieldLine(field, subjects.fields, line.op))}
        />{' '}
        which
      </Trans>{' '}
      <PickWord
        label={t`How`}
        value={line.op}
        options={asksOf(type).map((op) => [op, OP_WORDS[op]] as const)}
        onPick={(op) => onChange({ kind: 'field', field: line.field, op, ...startValue(type, op) })}
      />{' '}
      <ValueWords {...props} type={type} />
    </>
  );
}

export const fieldEditor: LineEditor<FieldLine> = {
  Words: FieldWords,
  offer: t`have a field that…`,
  begin: ({ fields }) => newFieldLine(fields[0]?.id ?? 'lastName', fields),
};
