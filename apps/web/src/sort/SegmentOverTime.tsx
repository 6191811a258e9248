import { plural, t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { extent, max } from 'd3-array';
import { scaleLinear, scaleUtc } from 'd3-scale';
import { curveStepAfter, line } from 'd3-shape';
import { useState } from 'react';
import type { SegmentSize, SegmentVersion } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { followBulk } from './people/following';
import { sizeChangeWords, sizePoints } from './sizes';
import { reading } from '../app/reading';

const W = 660;
const H = 190;
const EDGE = { left: 52, right: 20, top: 16, bottom: 26 };

/** How many it took in, day by day: a line, and the same figures as a table. */
function Sizes({ sizes }: { sizes: readonly SegmentSize[] }) {
  const format = useFormat();
  const [asTable, setAsTable] = useState(false);
  const points = sizePoints(sizes);
  const [from, to] = extent(points, ({ day }) => day);
  if (!from || !to) return null;
  const x = scaleUtc()
    .domain([from, to])
    .range([EDGE.left, W - EDGE.right]);
  const y = scaleLinear()
    .domain([0, Math.max(1, max(points, ({ people }) => people) ?? 1)])
    .nice()
    .range([H - EDGE.bottom, EDGE.top]);
  const path = line<(typeof points)[number]>(
    ({ day }) => x(day),
    ({ people }) => y(people),
  ).curve(curveStepAfter)(points);
  const last = points.at(-1)!;
  const words = `${sizeChangeWords(sizes, format.number, format.day)}`;
  return (
    <section className="sheet p-5" aria-label={t`Size over time`}>
      <div className="flex justify-between items-baseline">
        <h2 className="subtitle">{t`Size over time`}</h2>
        <button
          className="link text-[12.5px] text-ink2"
          aria-pressed={asTable}
          onClick={() => setAsTable(!asTable)}
        >
          {asTable ? t`As a line` : t`As a table`}
        </button>
      </div>
      <p className="text-ink2">
        {words || t`Counted once a day from now on; the line begins with the second day.`}
      </p>
      {asTable ? (
        <table className="mt-2">
          <tbody>
            {[...sizes].reverse().map(({ day, people }) => (
              <tr key={day} className="border-b border-hair">
                <th className="text-left font-normal text-ink2 pr-8 py-1" scope="row">
                  {format.day(day)}
                </th>
                <td className="text-right tabular-nums">{format.number(people)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <svg
          viewBox={`0 0 ${W} ${H}`}
          className="w-full"
          role="img"
          aria-label={t`${format.number(last.people)} ${plural(last.people, { one: 'person', other: 'people' })} now. ${words}`}
        >
          {y.ticks(4).map((tick) => (
            <g key={tick}>
              <line x1={EDGE.left} x2={W - EDGE.right} y1={y(tick)} y2={y(tick)} stroke="#D3DAD6" />
              <text x={EDGE.left - 8} y={y(tick) + 4} textAnchor="end" fontSize="11.5" fill="#51626A">
                {format.number(tick)}
              </text>
            </g>
          ))}
          {points.length > 1 && <path d={path ?? ''} fill="none" stroke="#0F766B" strokeWidth="2" />}
          <circle cx={x(last.day)} cy={y(last.people)} r="4" fill="#0F766B" />
          <text x={points.length > 1 ? EDGE.left : x(last.day) + 10} y={H - 6} fontSize="11.5" fill="#51626A">
            {format.day(sizes[0]!.day)}
          </text>
          {points.length > 1 && (
            <text x={W - EDGE.right} y={H - 6} textAnchor="end" fontSize="11.5" fill="#51626A">
              {format.day(sizes.at(-1)!.day)}
            </text>
          )}
        </svg>
      )}
    </section>
  );
}

function Versions({
  versions,
  onTake,
}: {
  versions: readonly SegmentVersion[];
  onTake: (version: SegmentVersion) => void;
}) {
  const format = useFormat();
  const may = useMay('organizer');
  return (
    <section className="sheet p-5" aria-label={t`Saved versions`}>
      <h2 className="subtitle pb-1">{t`Saved versions`}</h2>
      <ol>
        {versions.map((version, i) => (
          <li key={version.id} className="border-t border-hair py-2">
            <p className="flex justify-between gap-4">
              <b>{version.name}</b>
              <span className="text-ink2 text-[12.5px] whitespace-nowrap">
                {format.moment(version.at)}, {version.by}
              </span>
            </p>
            <p className="text-ink2">{version.words}</p>
            <p className="text-[12.5px] flex gap-4">
              {version.people !== null && (
                <span>
                  <Trans>
                    {format.number(version.people)}{' '}
                    <Plural value={version.people} one="person" other="people" /> then
                  </Trans>
                </span>
              )}
              {i > 0 && may && (
                <button className="link" onClick={() => onTake(version)}>
                  {t`Take this one again`}
                </button>
              )}
            </p>
          </li>
        ))}
      </ol>
    </section>
  );
}

function Snapshot({ id, name, onDone }: { id: number; name: string; onDone: () => void }) {
  const format = useFormat();
  const queryClient = useQueryClient();
  const [list, setList] = useState(`${name}, ${format.day(new Date().toISOString())}`);
  const take = useMutation({
    mutationFn: () => api.post('segments/{id}/snapshot', { id, body: { name: list } }),
    onSuccess: ({ bulkId }) => (followBulk(bulkId, queryClient), onDone()),
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-3"
      onSubmit={(event) => (event.preventDefault(), take.mutate())}
    >
      <h2 className="subtitle">{t`As it is now, as a list`}</h2>
      <p className="text-ink2">
        <Trans>
          Everybody who is in it now goes on a new list, which stays as it is whatever the segment does.
        </Trans>
      </p>
      <Labelled label={t`Name of the list`}>
        <input
          className="input"
          required
          maxLength={120}
          value={list}
          onChange={(event) => setList(event.target.value)}
        />
      </Labelled>
      <ProblemNote error={take.error} />
      <Button type="submit" className="self-start" disabled={list.trim() === '' || take.isPending}>
        {t`Put them on the list`}
      </Button>
    </form>
  );
}

/** What became of a segment over time: its size, its saved versions, and a list of who is in it now. */
export function SegmentOverTime({
  id,
  name,
  open,
  onClose,
  onTake,
}: {
  id: number;
  name: string;
  open: boolean;
  onClose: () => void;
  onTake: (version: SegmentVersion) => void;
}) {
  const may = useMay('organizer');
  const sizes = useQuery({ ...reading('segments/{id}/sizes', { id }), enabled: open });
  const versions = useQuery({ ...reading('segments/{id}/versions', { id }), enabled: open });
  return (
    <Drawer open={open} onClose={onClose} wide title={name} note={t`Over time`}>
      <div className="flex flex-col gap-4 overflow-y-auto">
        <ProblemNote error={sizes.error ?? versions.error} />
        {sizes.isPending && <Loading what={t`its sizes`} />}
        {sizes.data && <Sizes sizes={sizes.data} />}
        {may && <Snapshot key={String(open)} id={id} name={name} onDone={onClose} />}
        {versions.data && <Versions versions={versions.data} onTake={onTake} />}
      </div>
    </Drawer>
  );
}
