import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { scalePoint } from 'd3-scale';
import { useState } from 'react';
import type { CampaignPlan, PathStep } from '@goodword/core/contract';
import { KIND_OF_WORDS } from '../../app/channels';
import { useFormat } from '../../app/format';
import { reading } from '../../app/reading';
import { Loading, ProblemNote } from '../../ui/basics';
import { PersonPicker } from '../../ui/PersonPicker';

const LINES = {
  send: 'border-l-4 border-verdigris',
  held: 'border-l-2 border-dashed border-madder',
  none: 'border-l-2 border-dashed border-ink3',
} as const;

function toneOf({ verdict, came }: PathStep): keyof typeof LINES {
  if (verdict === 'not-meant' || (verdict === 'fell-out' && came === null)) return 'none';
  return verdict === 'send' ? 'send' : 'held';
}

/** The steps on a line of time, each with what it comes to at somebody. */
function Path({ path, plan }: { path: readonly PathStep[]; plan: CampaignPlan }) {
  const format = useFormat();
  const place = scalePoint<number>()
    .domain(path.map(({ messageId }) => messageId))
    .range([0, 100])
    .padding(0.5);
  return (
    <ol
      className="relative h-[128px] grow min-w-[480px] border-b border-hair mb-6"
      aria-label={t`Step by step`}
    >
      {path.map((one) => {
        const step = plan.steps.find(({ messageId }) => messageId === one.messageId);
        const tone = toneOf(one);
        return (
          <li
            key={one.messageId}
            className={`absolute bottom-0 h-full pl-2 ${LINES[tone]}`}
            style={{
              left: `${(place(one.messageId) ?? 0) - 50 / path.length}%`,
              width: `${100 / path.length}%`,
            }}
          >
            <p className={`font-semibold truncate ${tone === 'held' ? 'text-madder line-through' : ''}`}>
              {step ? KIND_OF_WORDS[step.channel] : ''}
            </p>
            <p className="text-ink2 text-[13px] line-clamp-3" title={one.words}>
              {one.words}
            </p>
            <p className="absolute -bottom-6 -left-1 text-[12.5px] text-ink2 whitespace-nowrap">
              {one.at ? format.day(one.at) : t`no day yet`}
            </p>
          </li>
        );
      })}
    </ol>
  );
}

/** How the campaign reaches one person, step by step, and why not. */
export function PathOfPerson({ id, plan }: { id: number; plan: CampaignPlan }) {
  const [person, setPerson] = useState<{ id: number; name: string } | null>(null);
  const [another, setAnother] = useState(false);
  const path = useQuery({
    ...reading('campaigns/{id}/plan/path', { id, supporterId: person?.id ?? 0 }),
    enabled: person !== null,
  });
  const gets = (path.data ?? []).filter(({ verdict }) => verdict === 'send').length;
  return (
    <section className="sheet p-5" aria-label={t`How it reaches one person`}>
      <h2 className="subtitle pb-2">{t`How it reaches one person`}</h2>
      <div className="flex gap-6 max-[900px]:flex-col">
        <div className="w-[230px] shrink-0">
          {person ? (
            <>
              <p className="font-semibold">{person.name}</p>
              <button
                className="link text-[13px]"
                onClick={() => (setPerson(null), setAnother(true))}
              >{t`Somebody else`}</button>
              {path.data && (
                <p className="text-ink2 pt-2">
                  {t`Gets ${gets} of ${plural(path.data.length, { one: '# step', other: '# steps' })}`}
                </p>
              )}
            </>
          ) : (
            <PersonPicker label={t`Whose path`} focused={another} onPick={setPerson} />
          )}
          <ProblemNote error={path.error} />
        </div>
        {person && path.data && <Path path={path.data} plan={plan} />}
        {person && path.isPending && <Loading what={t`their path`} />}
      </div>
    </section>
  );
}
