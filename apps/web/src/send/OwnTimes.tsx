import { t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { Loading, ProblemNote } from '../ui/basics';
import { zoneWords } from '../ui/DayField';

/** When a time comes to those who get the message, zone by zone, before it is sent on its way. */
export function OwnTimes({ id, at, look }: { id: number; at: string; look: string }) {
  const format = useFormat();
  // Counted for the people of the look that is shown.
  const times = useQuery({ ...reading('messages/{id}/own-times', { id, at }), meta: { look } });
  if (times.error) return <ProblemNote error={times.error} />;
  if (!times.data) return <Loading what={t`when it comes to them`} />;
  const { zones, over } = times.data;
  return (
    <section
      className="sheet p-4 mb-3 max-h-[220px] overflow-y-auto"
      aria-label={t`When it comes to them`}
      tabIndex={0}
    >
      {over > 0 && (
        <p className="text-ochre pb-2">
          <Trans>
            For {format.number(over)} <Plural value={over} one="person" other="people" /> that time is over
            already: they get it as soon as it begins.
          </Trans>
        </p>
      )}
      <table className="w-full text-left">
        <thead className="text-ink2 text-[12.5px]">
          <tr>
            <th className="font-normal">{t`Where they are`}</th>
            <th className="font-normal text-right pr-6">{t`People`}</th>
            <th className="font-normal">{t`Which is here`}</th>
          </tr>
        </thead>
        <tbody>
          {zones.map(({ zone, people, at: moment, change }) => (
            <tr key={zone} className="border-t border-hair">
              <td className="py-1">{zoneWords(zone)}</td>
              <td className="py-1 text-right pr-6 tabular-nums">{format.number(people)}</td>
              <td className="py-1">
                {format.moment(moment)}
                {change === 'left-out' && (
                  <span className="text-ochre">{t`, as clocks go forward there just then`}</span>
                )}
                {change === 'twice' && (
                  <span className="text-ochre">{t`, the first of two, as clocks go back there`}</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
