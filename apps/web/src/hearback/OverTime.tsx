import { t } from '@lingui/core/macro';
import { max } from 'd3-array';
import { scaleLinear, scaleTime } from 'd3-scale';
import { curveStepAfter, line } from 'd3-shape';
import { useState } from 'react';
import { useFormat } from '../app/format';
import { dayTicks, running, SERIES, spread, type ResultHours } from './lines';

const [WIDTH, HEIGHT, LEFT, RIGHT, BOTTOM, TOP] = [560, 210, 44, 112, 24, 12];

/** The same as numbers. */
function HourTable({ hours }: { hours: ResultHours }) {
  const format = useFormat();
  return (
    <div
      className="max-h-[220px] overflow-y-auto"
      tabIndex={0}
      role="region"
      aria-label={t`Over time, as a table`}
    >
      <table className="w-full text-[13px]">
        <thead>
          <tr className="text-left">
            {[t`Hour`, t`Sent`, ...SERIES.map(([, words]) => words)].map((title) => (
              <th key={title} className="pr-3 font-semibold">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {hours.map((hour) => (
            <tr key={hour.at} className="border-t border-hair">
              <td>{format.moment(hour.at)}</td>
              <td>{hour.sent}</td>
              {SERIES.map(([kind]) => (
                <td key={kind}>{hour[kind]}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What came of a message over time: lines labelled at their ends, and the same figures as a table. */
export function OverTime({ hours }: { hours: ResultHours }) {
  const format = useFormat();
  const [table, setTable] = useState(false);
  const shown = SERIES.map(([kind, words, ink]) => ({
    kind,
    words,
    ink,
    points: running(hours, kind),
  })).filter((series) => (series.points.at(-1)?.total ?? 0) > 0);
  if (hours.length < 2 || shown.length === 0)
    return <p className="text-ink2 py-4">{t`A line is drawn once there is more than an hour to draw.`}</p>;
  const top = max(shown, (series) => series.points.at(-1)!.total)!;
  const x = scaleTime([new Date(hours[0]!.at), new Date(hours.at(-1)!.at)], [LEFT, WIDTH - RIGHT]);
  const y = scaleLinear([0, top], [HEIGHT - BOTTOM, TOP]).nice(4);
  const path = line<{ at: Date; total: number }>(
    (point) => x(point.at),
    (point) => y(point.total),
  ).curve(curveStepAfter);
  const labels = spread(shown.map((series) => ({ key: series.kind, y: y(series.points.at(-1)!.total) })));
  return (
    <div>
      <button className="link text-[12.5px] text-ink2" onClick={() => setTable(!table)}>
        {table ? t`As a drawing` : t`As a table`}
      </button>
      {table ? (
        <HourTable hours={hours} />
      ) : (
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          className="w-full"
          role="img"
          aria-label={t`Over time: ${shown.map((series) => `${series.points.at(-1)!.total} ${series.words}`).join(', ')}`}
        >
          {y.ticks(4).map((tick) => (
            <g key={tick}>
              <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(tick)} y2={y(tick)} stroke="#D3DAD6" />
              <text x={LEFT - 6} y={y(tick) + 4} textAnchor="end" fontSize="12" fill="#51626A">
                {format.number(tick)}
              </text>
            </g>
          ))}
          {dayTicks(x).map((tick) => (
            <text
              key={tick.getTime()}
              x={x(tick)}
              y={HEIGHT - 6}
              textAnchor="middle"
              fontSize="12"
              fill="#51626A"
            >
              {tick.toLocaleDateString(undefined, { month: 'short', day: 'numeric' })}
            </text>
          ))}
          {shown.map((series) => (
            <g key={series.kind}>
              <path d={path(series.points)!} fill="none" stroke={series.ink} strokeWidth="2" />
              <text
                x={WIDTH - RIGHT + 6}
                y={labels.get(series.kind)! + 4}
                fontSize="13.5"
                fontWeight="600"
                fill={series.ink}
              >
                {format.number(series.points.at(-1)!.total)} {series.words}
              </text>
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}
