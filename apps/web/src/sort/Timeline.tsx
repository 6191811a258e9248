import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { TimelineItem } from '@goodword/core/contract';
import { get } from '../app/api';
import { useFormat } from '../app/format';
import { Loading, Problem } from '../ui/basics';

const DOTS = { good: 'bg-verdigris border-verdigris', plain: 'bg-sheet border-[#87a59e]', bad: 'bg-sheet border-madder' } as const;

/** Everything that passed between us, newest first. */
export function Timeline({ supporterId }: { supporterId: number }) {
  const format = useFormat();
  const { data, error, isPending } = useQuery({
    queryKey: ['timeline', supporterId],
    queryFn: () => get<TimelineItem[]>(`supporters/${supporterId}/timeline`),
  });
  return (
    <section className="sheet p-4 overflow-y-auto min-h-0" tabIndex={0} aria-label="Between you">
      <h2 className="subtitle border-b border-ink pb-1">Between you</h2>
      <Problem error={error} />
      {isPending && <Loading what="what passed between you" />}
      {data?.length === 0 && <p className="text-ink2 py-3">Nothing yet.</p>}
      <ol className="pt-3">
        {data?.map((item, i) => (
          <li key={`${item.at}-${i}`} className="grid grid-cols-[88px_20px_1fr] gap-1">
            <span className="text-ink3 text-[12.5px] pt-[1px]">{format.day(item.at)}</span>
            <span className="flex flex-col items-center">
              <span className={`w-[9px] h-[9px] rounded-full border-2 mt-[6px] ${DOTS[item.tone]}`} />
              {i < data.length - 1 && <span className="w-px grow bg-hair" />}
            </span>
            <div className="pb-4 min-w-0">
              <p className="font-semibold">
                {item.link ? (
                  <Link className="hover:underline" to={item.link}>
                    {item.title}
                  </Link>
                ) : (
                  item.title
                )}
              </p>
              <p className="text-ink2 text-[12.5px] break-words">{item.detail}</p>
            </div>
          </li>
        ))}
      </ol>
    </section>
  );
}
