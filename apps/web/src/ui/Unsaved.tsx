import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useState } from 'react';
import type { Drafting } from '../app/drafting';
import { Button } from './basics';

/**
 * Said of what is typed and not saved: that it is kept, or that somebody saved something newer, with both to
 * choose from.
 */
export function Unsaved<T, V>({ draft, what }: { draft: Drafting<T, V>; what: string }) {
  const [sees, setSees] = useState(false);
  if (!draft.isChanged) return null;
  if (draft.theirs === null)
    return (
      <p role="status" className="text-ink2 text-[13px] pb-2">
        <Trans>Not saved yet. What you typed is kept in this browser until you save it.</Trans>
      </p>
    );
  return (
    <div role="alert" className="border-l-[3px] border-madder pl-3 py-1 my-2">
      <div className="flex flex-wrap items-center gap-3">
        <p className="grow">
          <Trans>
            <b>Two versions.</b> Somebody saved {what} since you began to type. Both are kept: see them, and
            say which one stays.
          </Trans>
        </p>
        <Button onClick={() => setSees(!sees)} aria-expanded={sees}>
          {sees ? t`Hide what differs` : t`See what differs`}
        </Button>
        <Button onClick={draft.discard}>{t`Theirs stays`}</Button>
        <Button onClick={draft.keepMine}>{t`Mine stays`}</Button>
      </div>
      {sees && <Differences mine={draft.value} theirs={draft.theirs} />}
    </div>
  );
}

function Differences({ mine, theirs }: { mine: unknown; theirs: unknown }) {
  const lines = differences(mine, theirs).slice(0, 30);
  return (
    <table className="mt-2 text-[13px]">
      <thead>
        <tr className="text-left">
          <th className="pr-4">{t`Where`}</th>
          <th className="pr-4">{t`Mine`}</th>
          <th>{t`Theirs`}</th>
        </tr>
      </thead>
      <tbody>
        {lines.map(({ where, mine: one, theirs: other }) => (
          <tr key={where} className="align-top">
            <td className="pr-4 text-ink2">{where}</td>
            <td className="pr-4 [overflow-wrap:anywhere]">{one}</td>
            <td className="[overflow-wrap:anywhere]">{other}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

export interface UnsavedDifference {
  where: string;
  mine: string;
  theirs: string;
}

/** Where two things of one shape differ, in the words of their parts: `items 2 label`. */
export function differences(mine: unknown, theirs: unknown, at: readonly string[] = []): UnsavedDifference[] {
  if (JSON.stringify(mine) === JSON.stringify(theirs)) return [];
  if (isPart(mine) && isPart(theirs)) {
    const [one, other] = [mine as Record<string, unknown>, theirs as Record<string, unknown>];
    const keys = [...new Set([...Object.keys(one), ...Object.keys(other)])];
    return keys.flatMap((key) =>
      differences(one[key], other[key], [...at, /^\d+$/.test(key) ? String(Number(key) + 1) : spelled(key)]),
    );
  }
  return [{ where: at.join(' ') || 'all', mine: shown(mine), theirs: shown(theirs) }];
}

const isPart = (value: unknown) => typeof value === 'object' && value !== null;
const spelled = (key: string) => key.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

function shown(value: unknown): string {
  if (value === undefined || value === null || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  const text =
    typeof value === 'string' ? value : typeof value === 'number' ? String(value) : JSON.stringify(value);
  return text.length > 160 ? `${text.slice(0, 160)}…` : text;
}
