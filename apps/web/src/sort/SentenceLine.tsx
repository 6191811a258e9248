import type { BatchView, FieldView, ListView, TagView } from '@goodword/core/contract';
import { formatDay, formatMoney } from '@goodword/core/fields';
import { parseIsoDay } from '@goodword/core/common';
import { PURPOSES, STATE_WORDS, STATES, type Scope } from '@goodword/core/permission';
import { FIELD_OPS_BY_TYPE, type FieldLine, type GaveLine, type Line } from '@goodword/core/segment';
import { useSession } from '../app/session';
import { fieldLine, MONTHS, NEEDS_NOTHING, OP_WORDS, startValue, typeOf } from './sentence';
import { PickWord, TypeWord, Word } from './Word';

/** What lines can speak of. */
export interface Subjects {
  fields: FieldView[];
  tags: TagView[];
  lists: ListView[];
  batches: BatchView[];
}

interface Props<L extends Line> {
  line: L;
  subjects: Subjects;
  onChange: (line: Line) => void;
}

const byId = (rows: readonly { id: number; name: string }[]) => rows.map((row) => [row.id, row.name] as const);

function FieldWords({ line, subjects, onChange }: Props<FieldLine>) {
  const { organization } = useSession();
  const type = typeOf(line.field, subjects.fields);
  const fields: [FieldLine['field'], string][] = [
    ['firstName', 'First name'],
    ['lastName', 'Last name'],
    ['created', 'Day of joining us'],
    ...subjects.fields.map((field): [number, string] => [field.id, field.name]),
  ];
  const ops = FIELD_OPS_BY_TYPE[type].map((op) => [op, OP_WORDS[op]] as const);
  const days = line.op === 'within-next' || line.op === 'within-last';
  const shown = (value: string | number | undefined) => {
    const day = type === 'date' && typeof value === 'string' ? parseIsoDay(value) : null;
    if (day !== null) return formatDay(day, organization.locale);
    return type === 'money' && !days ? formatMoney(Number(value), organization) : days ? `${value} days` : String(value ?? '');
  };
  const read = (text: string) => (type === 'money' && !days ? Math.round(Number(text) * 100) : days || type === 'number' ? Number(text) : text);
  const typed = (value: string | number | undefined) => (type === 'money' && !days ? String(Number(value) / 100) : String(value ?? ''));
  const input = days || type === 'number' || type === 'money' ? 'number' : type === 'date' ? 'date' : 'text';
  return (
    <>
      have <PickWord label="Field" value={line.field} options={fields} onPick={(field) => onChange(fieldLine(field, subjects.fields, line.op))} />{' '}
      which{' '}
      <PickWord
        label="How"
        value={line.op}
        options={ops}
        onPick={(op) => onChange({ ...line, value: undefined, to: undefined, op, ...startValue(type, op) })}
      />{' '}
      {line.op === 'in-month' ? (
        <PickWord
          label="Month"
          value={Number(line.value)}
          options={MONTHS.map((month, i) => [i + 1, month] as const)}
          onPick={(value) => onChange({ ...line, value })}
        />
      ) : (
        !NEEDS_NOTHING.includes(line.op) && (
          <TypeWord
            label="Value"
            type={input}
            value={typed(line.value)}
            shown={shown(line.value)}
            onType={(text) => onChange({ ...line, value: read(text) })}
          />
        )
      )}
      {line.op === 'between' && (
        <>
          {' '}
          and{' '}
          <TypeWord
            label="Up to"
            type={input}
            value={typed(line.to)}
            shown={shown(line.to)}
            onType={(text) => onChange({ ...line, to: read(text) })}
          />
        </>
      )}
    </>
  );
}

const WINDOWS = [
  ['ever', 'ever'],
  ['this-year', 'in this calendar year'],
  ['last-year', 'in last calendar year'],
  ['earlier-years', 'in any earlier year'],
  ['last-days', 'in the last days'],
] as const;

function GaveWords({ line, onChange }: Props<GaveLine>) {
  const { organization } = useSession();
  const { window } = line;
  return (
    <>
      <PickWord
        label="Gave or not"
        value={line.did ? 'gave' : 'did not give'}
        tone={line.did ? undefined : 'no'}
        options={[
          ['gave', 'gave'],
          ['did not give', 'did not give'],
        ]}
        onPick={(did) => onChange({ ...line, did: did === 'gave' })}
      />{' '}
      <Word words={line.atLeast === null ? 'anything' : `at least ${formatMoney(line.atLeast, organization)}`} label="Amount">
        {() => (
          <label className="flex flex-col gap-1">
            <span className="font-semibold text-[13px]">At least, in all; empty for anything</span>
            <input
              className="input"
              type="number"
              min={0}
              autoFocus
              defaultValue={line.atLeast === null ? '' : line.atLeast / 100}
              onChange={(event) =>
                onChange({ ...line, atLeast: Number(event.target.value) > 0 ? Math.round(Number(event.target.value) * 100) : null })
              }
            />
          </label>
        )}
      </Word>{' '}
      <PickWord
        label="When"
        value={window.over}
        options={WINDOWS}
        onPick={(over) => onChange({ ...line, window: over === 'last-days' ? { over, days: 90 } : { over } })}
      />
      {window.over === 'last-days' && (
        <>
          {' '}
          <TypeWord
            label="Days"
            type="number"
            value={String(window.days)}
            shown={`(${window.days})`}
            onType={(days) => onChange({ ...line, window: { over: 'last-days', days: Math.max(1, Number(days)) } })}
          />
        </>
      )}
    </>
  );
}

const CHANNELS = [
  ['email', 'email'],
  ['text', 'text'],
] as const;

/** What for, and on which channel: the two words that every line about permission has. */
function ForWhat<L extends Extract<Line, { kind: 'permission' | 'may' | 'lapses' }>>({ line, subjects, onChange }: Props<L>) {
  const scopes: [Scope, string][] = [
    ['all', 'everything'],
    ...PURPOSES.map((purpose): [Scope, string] => [purpose, purpose]),
    ...subjects.lists.filter((list) => list.isPublic).map((list): [Scope, string] => [`list:${list.id}`, list.name]),
  ];
  return (
    <>
      <PickWord label="What for" value={line.scope} options={scopes} onPick={(scope) => onChange({ ...line, scope })} /> by{' '}
      <PickWord label="Channel" value={line.channel} options={CHANNELS} onPick={(channel) => onChange({ ...line, channel })} />
    </>
  );
}

const SOON = [7, 14, 30, 60, 90, 180].map((days) => [days, `${days} days`] as const);

/** One line of a segment as words that open. */
export function SentenceLine({ line, subjects, onChange }: Props<Line>) {
  const yesNo = (value: boolean, yes: string, no: string, change: (value: boolean) => void) => (
    <PickWord
      label="With or without"
      value={value ? 'y' : 'n'}
      tone={value ? undefined : 'no'}
      options={[
        ['y', yes],
        ['n', no],
      ]}
      onPick={(picked) => change(picked === 'y')}
    />
  );
  switch (line.kind) {
    case 'tag':
      return (
        <>
          {yesNo(line.has, 'have', 'do not have', (has) => onChange({ ...line, has }))} the tag{' '}
          <PickWord label="Tag" value={line.tagId} options={byId(subjects.tags)} onPick={(tagId) => onChange({ ...line, tagId })} />
        </>
      );
    case 'list':
      return (
        <>
          {yesNo(line.on, 'are', 'are not', (on) => onChange({ ...line, on }))} on the list{' '}
          <PickWord label="List" value={line.listId} options={byId(subjects.lists)} onPick={(listId) => onChange({ ...line, listId })} />
        </>
      );
    case 'batch':
      return (
        <>
          {yesNo(line.in, 'came', 'did not come', (isIn) => onChange({ ...line, in: isIn }))} with the batch{' '}
          <PickWord label="Batch" value={line.batchId} options={byId(subjects.batches)} onPick={(batchId) => onChange({ ...line, batchId })} />
        </>
      );
    case 'permission':
      return (
        <>
          stand for <ForWhat line={line} subjects={subjects} onChange={onChange} /> at{' '}
          <PickWord
            label="Standing"
            value={line.states[0]!}
            options={STATES.map((state) => [state, STATE_WORDS[state]] as const)}
            onPick={(state) => onChange({ ...line, states: [state] })}
          />
        </>
      );
    case 'may':
      return (
        <>
          {yesNo(line.may, 'may', 'may not', (may) => onChange({ ...line, may }))} be written to now for{' '}
          <ForWhat line={line} subjects={subjects} onChange={onChange} />
        </>
      );
    case 'lapses':
      return (
        <>
          have an implied permission for <ForWhat line={line} subjects={subjects} onChange={onChange} /> that lapses within{' '}
          <PickWord label="Days" value={line.days} options={SOON} onPick={(days) => onChange({ ...line, days })} />
        </>
      );
    case 'gave':
      return <GaveWords line={line} subjects={subjects} onChange={onChange} />;
    case 'field':
      return <FieldWords line={line} subjects={subjects} onChange={onChange} />;
  }
}

/** Lines to begin with; those that have nothing to speak of yet are left out. */
export function newLines(subjects: Subjects): [string, Line][] {
  const [tag, list, batch] = [subjects.tags[0], subjects.lists[0], subjects.batches[0]];
  return [
    ['gave, or did not', { kind: 'gave', did: true, atLeast: null, window: { over: 'ever' } }],
    ['have a field that…', fieldLine(subjects.fields[0]?.id ?? 'lastName', subjects.fields)],
    ...(tag ? ([['have a tag', { kind: 'tag', tagId: tag.id, has: true }]] as [string, Line][]) : []),
    ...(list ? ([['are on a list', { kind: 'list', listId: list.id, on: true }]] as [string, Line][]) : []),
    ...(batch ? ([['came with a batch', { kind: 'batch', batchId: batch.id, in: true }]] as [string, Line][]) : []),
    ['may be written to now', { kind: 'may', channel: 'email', scope: 'appeals', may: true }],
    ['have a permission that lapses', { kind: 'lapses', channel: 'email', scope: 'appeals', days: 30 }],
    ['stand at a permission', { kind: 'permission', channel: 'email', scope: 'appeals', states: ['yes'] }],
  ];
}
