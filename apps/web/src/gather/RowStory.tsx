import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { BatchRowView, RowWrites } from '@goodword/core/contract';
import { type Scope } from '@goodword/core/permission';
import { CHANNEL_WORDS, scopeWords } from '@goodword/core/words';
import { useFormat } from '../app/format';
import { useLists } from '../app/groups';
import { StateChip } from '../ui/permission';

/** Whom a row meets, and by what; an earlier row of the file by its number. */
export function meetsWords({ meets }: BatchRowView): string {
  if (!meets) return '';
  return `${meets.row === null ? meets.name || t`No name on file` : t`Row ${meets.row} of this file`}: ${meets.by}`;
}

/** What changes, in a line: from what to what, and what is added. */
export function rowChangeWords({ changes, reason, hint }: BatchRowView): string {
  if (changes.length === 0) return reason || hint;
  return changes
    .map(({ what, from, to }) => (from === '' ? `${what}: ${to}` : `${what}: ${from} → ${to}`))
    .join('; ');
}

/**
 * Everything there is to tell of one row: whom it meets, what it changes, what it writes, what was left out.
 */
export function RowStory({ row, past }: { row: BatchRowView; past: boolean }) {
  const format = useFormat();
  const { writes, meets } = row;
  const who = `${row.firstName} ${row.lastName}`.trim() || t`No name`;
  return (
    <section
      className="sheet mt-3 px-4 py-3 max-h-[45%] overflow-y-auto shrink-0"
      aria-label={t`Row ${row.row}`}
      tabIndex={0}
    >
      <h3 className="font-semibold">
        <Trans>
          Row {row.row}, {who}
        </Trans>
        {row.supporterId !== null && (
          <Link className="link font-normal ml-3" to={`/sort/supporters/${row.supporterId}`}>
            {t`Open the record`}
          </Link>
        )}
      </h3>
      <dl className="grid grid-cols-[120px_1fr] gap-x-4 gap-y-[3px] pt-2 text-[13px]">
        {meets && (
          <Part name={t`Meets`}>
            {meets.supporterId === null ? (
              meetsWords(row)
            ) : (
              <>
                <Link className="link" to={`/sort/supporters/${meets.supporterId}`}>
                  {meets.name || t`No name on file`}
                </Link>
                : {meets.by}
              </>
            )}
          </Part>
        )}
        {row.changes.length > 0 && (
          <Part name={past ? t`Changed` : t`Changes`}>
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
        {row.reason && <Part name={t`Left out`}>{row.reason}</Part>}
        {row.hint && <Part name={t`To know`}>{row.hint}</Part>}
      </dl>
      {!writes && !row.reason && (
        <p className="text-ink2 text-[13px] pt-1">{past ? t`It wrote nothing.` : t`It writes nothing.`}</p>
      )}
      {writes?.gift && (
        <p className="text-[13px] pt-1">
          {past ? t`Gift recorded` : t`Gift`}: {writes.gift.currency} {format.number(writes.gift.minor / 100)}
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
    [t`Emails`, writes.emails.join(', ')],
    [t`Phones`, writes.phones.join(', ')],
    [t`Postal address`, writes.post ?? ''],
    [t`Own id`, writes.ownId ?? ''],
    [t`Fields`, writes.fields.map(({ name, value }) => `${name}: ${value}`).join('; ')],
    [t`Tags`, writes.tags.join('; ')],
    [t`Lists`, writes.lists.join('; ')],
    [t`Stage`, writes.stage ?? ''],
    [t`Chapter`, writes.chapter ?? ''],
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
      <Part name={t`Permission`}>
        {writes.permission.length === 0 ? (
          <span className="text-ink2">{past ? t`Nothing recorded` : t`Nothing is recorded`}</span>
        ) : (
          <ul>
            {writes.permission.map(({ channel, scope, state, at, on }, i) => (
              <li key={i} className="pb-[2px]">
                <StateChip state={state} words={CHANNEL_WORDS[channel]} />{' '}
                <Trans>
                  {scopeWords(scope as Scope, nameOf)}, {at ?? t`for the person`}, said {format.day(on)}
                </Trans>
              </li>
            ))}
          </ul>
        )}
      </Part>
    </>
  );
}
