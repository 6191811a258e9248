import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import type { RecordView } from '@goodword/core/contract';
import type { SendingChannel } from '@goodword/core/permission';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { StateChip } from '../ui/permission';

type Format = ReturnType<typeof useFormat>;

/** So many names of a kind are read; more are a number. */
const MOST_NAMES = 4;

function names(all: readonly { name: string }[]): string {
  const shown = all.slice(0, MOST_NAMES).map(({ name }) => name);
  const more = all.length - shown.length;
  return [...shown, ...(more > 0 ? [t`${more} more`] : [])].join(', ');
}

/** Who somebody is to the house, in a few words: what one wants to know before one answers. */
function wordsOf(record: RecordView, format: Format): string[] {
  const { gifts, household, tags, lists, rosters } = record;
  const [last] = gifts;
  const many = plural(gifts.length, { one: '# gift', other: '# gifts' });
  const amount = last ? format.money(last.amount) : '';
  const on = last ? format.day(last.on) : '';
  const stages = rosters.map(({ name, stage }) => `${name}: ${stage}`).join(', ');
  const size = household?.members.length ?? 0;
  return [
    last ? t`Gave ${amount} on ${on}, ${many} in all` : t`No gift on file`,
    stages,
    tags.length > 0 ? t`tags ${names(tags)}` : '',
    lists.length > 0 ? t`lists ${names(lists)}` : '',
    size > 1 ? t`household of ${size}` : '',
    t`since ${format.month(record.createdAt)}`,
  ].filter((words) => words !== '');
}

/** The person beside what they wrote: gifts, stages, tags, lists, and what they agreed to on this channel. */
export function PersonBeside({ supporterId, channel }: { supporterId: number; channel: SendingChannel }) {
  const format = useFormat();
  const { data } = useQuery(reading('supporters/{id}', { id: supporterId }));
  if (!data) return null;
  const here = data.consent.filter((one) => one.channel === channel);
  return (
    <div className="text-[13px]">
      <p className="text-ink2">{wordsOf(data, format).join(' · ')}</p>
      {here.length > 0 && (
        <p className="flex flex-wrap gap-1 pt-1">
          <span className="text-ink2">{channel === 'text' ? t`Texts:` : t`Email:`}</span>
          {here.map(({ scope, scopeName, state }) => (
            <StateChip key={scope} state={state} words={scopeName} />
          ))}
        </p>
      )}
    </div>
  );
}
