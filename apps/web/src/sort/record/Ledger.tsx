import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { EntryView, RecordView } from '@goodword/core/contract';
import { type Channel } from '@goodword/core/permission';
import { CHANNEL_WORDS, ENTRY_WORDS, COLLECTION_METHOD_WORDS } from '@goodword/core/words';
import { useFormat } from '../../app/format';
import { BackChip, PauseChip, StateChip } from '../../ui/permission';
import { Drawer } from '../../ui/dialogs';
import { EntryForm } from './EntryForm';
import { LedgerActs } from './LedgerActs';
import { reading } from '../../app/reading';

const INK = {
  yes: 'bg-verdigris text-white',
  implied: 'text-verdigris',
  asked: 'text-ochre',
  never: 'text-ink3 bg-[#f1f3f2]',
  no: 'text-madder',
} as const;

function Band({ record }: { record: RecordView }) {
  const format = useFormat();
  const tiles = (['email', 'text', 'call'] as const).map((channel: Channel) => {
    const status =
      record.consent.find((one) => one.channel === channel && one.scope === 'appeals') ??
      record.consent.find((one) => one.channel === channel && one.scope === 'marketing') ??
      record.consent.find((one) => one.channel === channel && one.scope === 'all');
    return {
      channel,
      state: status?.state ?? ('never' as const),
      paused: status?.pausedUntil ?? null,
      until: status?.until ?? null,
    };
  });
  const words = {
    yes: t`Yes`,
    implied: t`Implied`,
    asked: t`Asked`,
    never: t`Never asked`,
    no: t`No`,
  } as const;
  return (
    <div className="grid grid-cols-3 border border-ink rounded-paper overflow-hidden">
      {tiles.map(({ channel, state, paused, until }) => (
        <div key={channel} className={`px-2 py-2 border-l border-hair first:border-0 ${INK[state]}`}>
          <p className="text-[12px]">
            <Trans>{channel === 'call' ? t`Call` : CHANNEL_WORDS[channel]} appeals</Trans>
          </p>
          <p
            className={`font-title font-bold text-[16px] leading-tight ${state === 'no' ? 'line-through' : ''}`}
          >
            {words[state]}
          </p>
          {(paused ?? until) && (
            <p className="text-[11.5px]">
              {paused ? t`paused until ${format.day(paused)}` : t`until ${format.day(until!)}`}
            </p>
          )}
        </div>
      ))}
    </div>
  );
}

function Entry({ entry, supporterId }: { entry: EntryView; supporterId: number }) {
  const format = useFormat();
  return (
    <li
      className={`grid grid-cols-[74px_1fr] gap-2 border-t border-hair py-3 ${entry.takenBack ? 'opacity-60' : ''}`}
    >
      <span>
        {entry.state === 'pause' ? (
          <PauseChip />
        ) : entry.state === 'back' || entry.state === 'start' ? (
          <BackChip words={ENTRY_WORDS[entry.state]} />
        ) : (
          <StateChip state={entry.state} />
        )}
      </span>
      <div>
        <p className="font-semibold text-[13px]">
          {CHANNEL_WORDS[entry.channel]}, {entry.scopeName}: {COLLECTION_METHOD_WORDS[entry.how]}
        </p>
        {entry.words && <p className="text-ink2 text-[12.5px]">“{entry.words}”</p>}
        <p className="text-ink2 text-[12.5px]">
          {[
            entry.source,
            entry.recordedBy && t`recorded by ${entry.recordedBy}`,
            entry.address ?? t`every address`,
          ]
            .filter(Boolean)
            .join(', ')}
        </p>
        <p className="text-ink3 text-[12px]">
          {format.day(entry.at)}
          {entry.until && t`, until ${format.day(entry.until)}`}
          {entry.takenBack && t`, taken back with its batch`}
          {entry.old && <span className="text-ochre">{t`, old: ask again`}</span>}
          {entry.evidence && (
            <>
              ,{' '}
              <a className="link" href={`/api/supporters/${supporterId}/evidence/${entry.evidence.id}`}>
                {t`the sheet`}
              </a>
            </>
          )}
        </p>
      </div>
    </li>
  );
}

/** Why somebody is in a segment or not, line by line. */
function WhySegment({ supporterId }: { supporterId: number }) {
  const segments = useQuery(reading('segments'));
  const [segment, setSegment] = useState('');
  const why = useQuery({
    ...reading('segments/{id}/why/{supporterId}', { id: Number(segment), supporterId }),
    enabled: segment !== '',
  });
  return (
    <div className="border-t border-ink pt-3">
      <label className="font-semibold text-[13px] flex flex-col gap-1">
        {t`In or out, and why?`}
        <select className="input" value={segment} onChange={(event) => setSegment(event.target.value)}>
          <option value="">{t`Choose a segment`}</option>
          {segments.data?.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      {why.data && (
        <div className="pt-2 text-[13px]">
          <p className="font-semibold">{why.data.holds ? t`In, because:` : t`Out, because:`}</p>
          <ul className="pt-1 flex flex-col gap-1">
            {(why.data.inner.length > 0 ? why.data.inner : [why.data]).map((line) => (
              <li key={line.words} className="grid grid-cols-[34px_1fr]">
                <span className={line.holds ? 'text-verdigris font-semibold' : 'text-madder font-semibold'}>
                  {line.holds ? t`yes` : t`no`}
                </span>
                <span className="text-ink2">{line.words}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}

/** What one person agreed to, and how we know. */
export function Ledger({ record }: { record: RecordView }) {
  const [adding, setAdding] = useState(false);
  return (
    <section
      aria-label={t`Permission ledger`}
      className="sheet p-4 w-[336px] shrink-0 overflow-y-auto"
      tabIndex={0}
    >
      <h2 className="subtitle">{t`Permission ledger`}</h2>
      <p className="text-ink2 text-[12.5px] pb-2">{t`What they agreed to, and how we know. Entries are only ever added.`}</p>
      <Band record={record} />
      <ul className="pt-3">
        {record.entries.map((entry) => (
          <Entry key={entry.id} entry={entry} supporterId={record.id} />
        ))}
      </ul>
      {record.entries.length === 0 && <p className="text-ink2 pb-3">{t`Nothing on record: never asked.`}</p>}
      <LedgerActs record={record} onRecord={() => setAdding(true)} />
      <WhySegment supporterId={record.id} />
      <Drawer
        open={adding}
        onClose={() => setAdding(false)}
        title={t`Record what they said`}
        note={t`On the phone, on a card, in person`}
      >
        <EntryForm record={record} onDone={() => setAdding(false)} />
      </Drawer>
    </section>
  );
}
