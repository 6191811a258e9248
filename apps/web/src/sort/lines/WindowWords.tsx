import { t } from '@lingui/core/macro';
import { type Window } from '@goodword/core/segment';
import { describeWindow } from '@goodword/core/words';
import { PickWord, TypeWord } from './Word';
import { localDay } from '../../app/day';

const OVERS: Window['over'][] = [
  'ever',
  'this-year',
  'last-year',
  'earlier-years',
  'this-fiscal-year',
  'last-fiscal-year',
  'this-month',
  'last-month',
  'last-days',
  'last-weeks',
  'last-months',
  'between',
];

const START: Partial<Record<Window['over'], number>> = {
  'last-days': 90,
  'last-weeks': 12,
  'last-months': 12,
};

function startOf(over: Window['over']): Window {
  const today = localDay();
  switch (over) {
    case 'last-days':
    case 'last-weeks':
    case 'last-months':
      return { over, days: START[over]! };
    case 'between':
      return { over, from: `${today.slice(0, 4)}-01-01`, to: today };
    default:
      return { over };
  }
}

function wordsOf(over: Window['over']): string {
  if (over === 'ever') return 'ever';
  if (over === 'between') return t`from … to …`;
  return START[over] === undefined
    ? `in ${describeWindow(startOf(over))}`
    : t`in the last … ${over.slice(5)}`;
}

/** When something was: words that open, shared by lines about gifts and about messages. */
export function WindowWords({ window, onChange }: { window: Window; onChange: (window: Window) => void }) {
  return (
    <>
      <PickWord
        label={t`When`}
        value={window.over}
        options={OVERS.map((over) => [over, wordsOf(over)] as const)}
        onPick={(over) => onChange(startOf(over))}
      />
      {'days' in window && (
        <>
          {' '}
          <TypeWord
            label={t`How many ${window.over.slice(5)}`}
            type="number"
            value={String(window.days)}
            shown={`(${window.days})`}
            onType={(days) => onChange({ ...window, days: Math.max(1, Math.round(Number(days)) || 1) })}
          />
        </>
      )}
      {window.over === 'between' && (
        <>
          {' '}
          <TypeWord
            label={t`From`}
            type="date"
            value={window.from}
            onType={(from) => from && onChange({ ...window, from })}
          />{' '}
          {t`to`}{' '}
          <TypeWord
            label={t`To`}
            type="date"
            value={window.to}
            onType={(to) => to && onChange({ ...window, to })}
          />
        </>
      )}
    </>
  );
}
