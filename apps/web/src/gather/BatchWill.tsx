import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { BatchView, BatchWill, RowsOnly } from '@goodword/core/contract';
import { CHANNELS } from '@goodword/core/permission';
import { useFormat } from '../app/format';
import { BatchCount, type Opened } from './BatchCounts';

type Line = [count: number, words: string, only: RowsOnly];

function permissionLines(will: BatchWill): Line[] {
  return CHANNELS.flatMap((channel): Line[] => {
    const entries = will.entries[channel];
    if (!entries) return [];
    if (channel === 'call' || channel === 'post')
      return [
        [entries.no, channel === 'call' ? t`calls: a no recorded` : t`post: a no recorded`, 'refusing'],
      ];
    return [
      [entries.yes, t`${channel}s: a yes recorded`, channel],
      [entries.asked, t`emails: asked to confirm, with one request for each person`, channel],
      [entries.no, t`${channel}s: a no recorded`, 'refusing'],
    ];
  });
}

/** What is written beside the people themselves, in counts. */
export function WhatItWrites({
  batch,
  will,
  onOpen,
}: {
  batch: BatchView;
  will: BatchWill;
  onOpen: ((opened: Opened) => void) | null;
}) {
  const format = useFormat();
  const money = will.giftsTotal.map(({ currency, minor }) =>
    new Intl.NumberFormat(undefined, { style: 'currency', currency }).format(minor / 100),
  );
  const lines: Line[] = [
    ...permissionLines(will),
    [will.changes, t`values changed or added, of people who are here`, 'changes'],
    [will.tags, t`tags put on`, 'groups'],
    [will.lists, t`places on lists`, 'groups'],
    [will.roster, t`people on the roster`, 'groups'],
    [will.saidNo, t`opted out before, and stay so`, 'saidNo'],
    [will.alreadyYes, t`opted in before: the older evidence stays`, 'alreadyYes'],
    [will.doNotContact, t`are on do-not-contact, and stay there`, 'doNotContact'],
    [will.onHold, t`have an address on hold`, 'onHold'],
  ];
  const shown = lines.filter(([count]) => count > 0);
  if (shown.length === 0 && money.length === 0) return null;
  return (
    <section className="sheet p-5">
      <h2 className="subtitle pb-2">
        {batch.state === 'done' ? t`What was written` : t`What will be written`}
      </h2>
      <ul className="grid grid-cols-2 gap-x-8">
        {money.length > 0 && (
          <li className="flex gap-3 border-t border-hair py-[6px]">
            <Trans>
              <b className="font-title">{money.join(', ')}</b> in gifts
            </Trans>
          </li>
        )}
        {shown.map(([count, words, only]) => (
          <li key={words} className="flex gap-3 border-t border-hair py-[6px]">
            <BatchCount
              count={format.number(count)}
              words={words}
              className="font-bold min-w-[56px] text-right"
              onOpen={onOpen && (() => onOpen({ only, words }))}
            />{' '}
            <span className="text-ink2">{words}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
