import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { BatchRowView, RowWrites } from '@goodword/core/contract';
import { CHANNEL_WORDS, scopeWords, type Scope } from '@goodword/core/permission';
import { useFormat } from '../app/format';
import { useLists } from '../app/groups';
import { StateChip } from '../ui/permission';

/** Whom a row meets, and by what; an earlier row of the file by its number. */
export function meetsWords({ meets }: BatchRowView): string {
  if (!meets) return '';
  return `${meets.row === null ? meets.name || 'No name on file' : `Row ${meets.row} of this file`}: ${meets.by}`;
}

/** What changes, in a line: from what to what, and what is added. */
export function changeWords({ changes, reason, hint }: BatchRowView): string {
  if (changes.length === 0) return reason || hint;
  return changes.map(({ what, from, to }) => (from === '' ? `${what}: ${to}` : `${what}: ${from} → ${to}`)).join('; ');
}

/** Everything there is to tell of one row: whom it meets, what it changes, what it writes, what was left out. */
export function RowStory({ row, past }: { row: BatchRowView; past: boolean }) {
  const format = useFormat();
  const { writes, meets } = row;
  const who = `${row.firstName} ${row.lastName}`.trim() || 'No name';
  return (
    <section className="sheet mt-3 px-4 py-3 max-h-[45%] overflow-y-auto shrink-0" aria-label={`Row ${row.row}`} tabIndex={0}>
      <h3 className="font-semibold">
        Row {row.row}, {who}
        {row.supporterId !== null && (
          <Link className="link font-normal ml-3" to={`/sort/supporters/${row.supporterId}`}>
            Open the record
          </Link>
        )}
      </h3>
      <dl className="grid grid-cols-[120px_1fr] gap-x-4 gap-y-[3px] pt-2 text-[13px]">
        {meets && (
          <Part name="Meets">
            {meets.supporterId === null ? (
              meetsWords(row)
            ) : (
              <>
                <Link className="link" to={`/sort/supporters/${meets.supporterId}`}>
                  {meets.name || 'No name on file'}
                </Link>
                : {meets.by}
              </>
            )}
          </Part>
        )}
        {row.changes.length > 0 && (
          <Part name={past ? 'Changed' : 'Changes'}>
            <ul>
              {row.changes.map(({ what, from, to }, i) => (
                <li key={i}>
                  {what}: {from !== '' && <s className="text-ink2">{from}</s>} {to}
                </li>
              ))}
            </ul>
          </Part>
        )}
        {writes && <Writes writes={writes} past={past} />}
        {row.reason && <Part name="Left out">{row.reason}</Part>}
        {row.hint && <Part name="To know">{row.hint}</Part>}
      </dl>
      {!writes && !row.reason && <p className="text-ink2 text-[13px] pt-1">{past ? 'It wrote nothing.' : 'It writes nothing.'}</p>}
      {writes?.gift && (
        <p className="text-[13px] pt-1">
          {past ? 'Gift recorded' : 'Gift'}: {writes.gift.currency} {format.number(writes.gift.minor / 100)}
        </p>
      )}
    </section>
  );
}

function Part({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-ink2">{name}</dt>
      <dd>{children}</dd>
    </>
  );
}

function Writes({ writes, past }: { writes: RowWrites; past: boolean }) {
  const lists = useLists().data ?? [];
  const format = useFormat();
  const nameOf = (id: number) => lists.find((list) => list.id === id)?.name;
  const lines: [string, string][] = [
    ['Emails', writes.emails.join(', ')],
    ['Phones', writes.phones.join(', ')],
    ['Postal address', writes.post ?? ''],
    ['Own id', writes.ownId ?? ''],
    ['Fields', writes.fields.map(({ name, value }) => `${name}: ${value}`).join('; ')],
    ['Tags', writes.tags.join('; ')],
    ['Lists', writes.lists.join('; ')],
    ['Stage', writes.stage ?? ''],
    ['Chapter', writes.chapter ?? ''],
  ];
  return (
    <>
      {lines
        .filter(([, words]) => words !== '')
        .map(([name, words]) => (
          <Part key={name} name={name}>
            {words}
          </Part>
        ))}
      <Part name="Permission">
        {writes.permission.length === 0 ? (
          <span className="text-ink2">{past ? 'Nothing recorded' : 'Nothing is recorded'}</span>
        ) : (
          <ul>
            {writes.permission.map(({ channel, scope, state, at, on }, i) => (
              <li key={i} className="pb-[2px]">
                <StateChip state={state} words={CHANNEL_WORDS[channel]} /> {scopeWords(scope as Scope, nameOf)}, {at ?? 'for the person'}, said{' '}
                {format.day(on)}
              </li>
            ))}
          </ul>
        )}
      </Part>
    </>
  );
}
