import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { scaleLinear } from 'd3-scale';
import { Link } from 'react-router';
import type { WeekView } from '@goodword/core/contract';
import { useFormat } from '../app/format';
import { Loading, ProblemNote } from '../ui/basics';
import { segmentOf } from './waits';
import { reading } from '../app/reading';

type Kind = WeekView['figures'][number]['kind'];

const DAYS = 7;
const WORDS: Record<Kind, string> = {
  joined: t`New here`,
  left: t`Opted out`,
  gave: t`Gave`,
  replied: t`Replied`,
};
const LEADS: Record<Kind, string> = {
  joined: segmentOf(t`New this week`, {
    kind: 'field',
    field: 'created',
    op: 'within-last',
    value: DAYS - 1,
  }),
  left: '/house/proof',
  gave: segmentOf(t`Gave this week`, {
    kind: 'gave',
    did: true,
    atLeast: null,
    window: { over: 'last-days', days: DAYS - 1 },
  }),
  replied: '/hear-back/replies',
};
const WIDTH = 176;

/**
 * The last seven days beside the usual week: a bar for what came, a stroke where it usually ends, both in
 * figures too.
 */
export function Week() {
  const format = useFormat();
  const { data, error, isPending } = useQuery(reading('today/week'));
  if (isPending) return <Loading what={t`the week`} />;
  if (error) return <ProblemNote error={error} />;
  // Of a middle between two weeks nobody wants the halves, nor the cents of a week.
  const shown = (kind: Kind, value: number) =>
    kind === 'gave' ? format.money(Math.round(value / 100) * 100) : format.number(Math.round(value));
  return (
    <>
      <ul>
        {data.figures.map(({ kind, now, usual }) => {
          const x = scaleLinear([0, Math.max(now, usual ?? 0, 1)], [0, WIDTH]);
          return (
            <li key={kind} className="grid grid-cols-[84px_1fr] gap-x-3 py-[7px]">
              <span>{WORDS[kind]}</span>
              <span className="flex items-baseline gap-2">
                <Link
                  to={LEADS[kind]}
                  className="link font-semibold"
                  aria-label={`${WORDS[kind]}: ${shown(kind, now)}`}
                >
                  {shown(kind, now)}
                </Link>
                {usual !== null && (
                  <span className="text-ink2 text-[12.5px]">
                    <Trans>usually {shown(kind, usual)}</Trans>
                  </span>
                )}
              </span>
              <svg
                className="col-start-2"
                width="100%"
                viewBox={`0 0 ${WIDTH + 2} 16`}
                aria-hidden="true"
                preserveAspectRatio="none"
              >
                <rect
                  y={4}
                  width={Math.max(0, x(now))}
                  height={8}
                  className={kind === 'left' ? 'fill-madder' : 'fill-verdigris'}
                />
                {usual !== null && <rect x={x(usual)} width={2} height={16} className="fill-ink" />}
              </svg>
            </li>
          );
        })}
      </ul>
      <p className="text-ink2 text-[12.5px] pt-2">
        {data.figures.some(({ usual }) => usual !== null)
          ? t`The last seven days. The stroke is the usual week, the middle of ${data.weeks}.`
          : t`The last seven days. What is usual is told once four weeks lie behind.`}
      </p>
    </>
  );
}
