import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useRef, type KeyboardEvent } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { ThreadLine, ThreadsView } from '@goodword/core/contract';
import { useFormat } from '../app/format';
import { Empty } from '../ui/basics';
import { THREADS_SEEN, type ThreadsSeen } from './views';

const VIEW_WORDS: Record<ThreadsSeen, string> = {
  open: t`to answer`,
  mine: t`mine`,
  aside: t`put aside`,
  done: t`done`,
};

/** Which are looked at: the words of a sentence, each with how many there are. */
function Views({ counts, view }: { counts: ThreadsView['counts'] | undefined; view: ThreadsSeen }) {
  const [params, setParams] = useSearchParams();
  const numberOf = (one: ThreadsSeen) => (one === 'done' ? null : (counts?.[one] ?? 0));
  return (
    <div role="group" aria-label={t`Which replies`} className="flex flex-wrap gap-x-4 gap-y-1 px-4 pt-3">
      {THREADS_SEEN.map((one) => (
        <button
          key={one}
          aria-pressed={one === view}
          className={`min-h-[28px] ${one === view ? 'font-semibold underline underline-offset-4 decoration-2' : 'text-ink2 hover:text-ink'}`}
          onClick={() => {
            const next = new URLSearchParams(params);
            next.set('view', one);
            setParams(next, { replace: true });
          }}
        >
          {VIEW_WORDS[one]}
          {numberOf(one) === null ? '' : ` ${numberOf(one)}`}
        </button>
      ))}
    </div>
  );
}

function Line({ line, current, search }: { line: ThreadLine; current: boolean; search: string }) {
  const format = useFormat();
  const more = line.waiting > 1 ? plural(line.waiting, { one: '# reply', other: '# replies' }) : null;
  const aside = line.asideUntil === null ? null : t`until ${format.moment(line.asideUntil)}`;
  const given = line.assignedTo === null ? null : t`for ${line.assignedTo.name}`;
  const beside = [more, given, aside].filter(Boolean).join(' · ');
  return (
    <li className="border-t border-hair">
      <Link
        to={{ pathname: `/hear-back/replies/${line.replyId}`, search }}
        aria-current={current ? 'true' : undefined}
        className={`block px-4 py-2 border-l-[3px] ${current ? 'border-ink bg-bench' : 'border-transparent hover:bg-bench'}`}
      >
        <span className="flex justify-between gap-2">
          <b className={line.unread ? '' : 'font-normal'}>{line.name}</b>
          <span className="text-ink2 text-[12.5px] shrink-0">{format.moment(line.at)}</span>
        </span>
        <span className={`block truncate ${line.unread ? 'font-semibold' : 'text-ink2'}`}>
          {line.unread && <span className="sr-only">{t`New: `}</span>}
          {line.words || t`No words`}
        </span>
        <span className="block text-ink2 text-[12.5px] truncate">
          {line.channel === 'text' ? t`by text` : t`by email`}
          {beside !== '' && ` · ${beside}`}
        </span>
      </Link>
    </li>
  );
}

const NOTHING: Record<ThreadsSeen, { title: string; body: string }> = {
  open: {
    title: t`Nobody waits for an answer`,
    body: t`What people answer to your emails and texts stands here, and on their record.`,
  },
  mine: { title: t`None of them is yours`, body: t`What is given to you to answer stands here.` },
  aside: { title: t`Nothing is put aside`, body: t`What you put aside comes back at its time.` },
  done: { title: t`Nothing is done yet`, body: t`What has been answered or marked as done stands here.` },
};

/** Who wrote back, newest first: up and down go from one to the next, Enter opens it. */
export function ThreadList({
  data,
  view,
  current,
}: {
  data: ThreadsView | undefined;
  view: ThreadsSeen;
  current: number | null;
}) {
  const [params, setParams] = useSearchParams();
  const q = params.get('q') ?? '';
  const list = useRef<HTMLUListElement>(null);
  const move = (event: KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined) return;
    const links = [...(list.current?.querySelectorAll('a') ?? [])];
    const at = links.indexOf(document.activeElement as HTMLAnchorElement);
    event.preventDefault();
    links[Math.max(0, Math.min(links.length - 1, at + by))]?.focus();
  };
  const search = `?${params.toString()}`;
  return (
    <div className="sheet w-[310px] shrink-0 flex flex-col min-h-0 max-[1100px]:w-[250px]">
      <Views counts={data?.counts} view={view} />
      <div className="px-4 py-2">
        <input
          type="search"
          className="input"
          aria-label={t`Find by name or words`}
          placeholder={t`Find by name or words`}
          value={q}
          onChange={(event) => {
            const next = new URLSearchParams(params);
            if (event.target.value === '') next.delete('q');
            else next.set('q', event.target.value);
            setParams(next, { replace: true });
          }}
        />
      </div>
      <ul
        ref={list}
        className="overflow-y-auto min-h-0"
        aria-label={t`People who wrote back`}
        onKeyDown={move}
      >
        {data?.threads.map((line) => (
          <Line key={line.replyId} line={line} current={line.replyId === current} search={search} />
        ))}
      </ul>
      {q === '' && data && view !== 'done' && data.counts[view] > data.threads.length && (
        <p className="px-4 py-2 text-ink2 border-t border-hair">
          {t`The newest of them are shown. Type a name or words to find another.`}
        </p>
      )}
      {data?.threads.length === 0 && (
        <Empty title={q === '' ? NOTHING[view].title : t`Nothing like it is here`}>
          <p>
            {q === '' ? NOTHING[view].body : <Trans>Nobody’s name and no words have “{q}” in them.</Trans>}
          </p>
        </Empty>
      )}
    </div>
  );
}
