import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { ThreadItem } from '@goodword/core/contract';
import { Link } from 'react-router';
import { useFormat } from '../app/format';
import { useLit } from '../ui/margin';
import { concernAnchor, type FoundConcern } from './concernNotes';

/** How it stands with what we wrote. */
function stateWords(state: string): string {
  switch (state) {
    case 'sent':
      return t`sent`;
    case 'delivered':
      return t`arrived`;
    case 'bounced':
    case 'failed':
      return t`did not arrive`;
    case 'suppressed':
    case 'door':
    case 'stopped':
      return t`held back`;
    case 'unsure':
      return t`unsure whether it went`;
    default:
      return t`on its way`;
  }
}

/** What a text with one word did by itself. */
function keywordWords(keyword: string): string {
  switch (keyword) {
    case 'stop':
      return t`Opted out, at once`;
    case 'start':
      return t`Asked to get texts again`;
    case 'help':
      return t`Asked for help, and got the automatic answer`;
    case 'confirm':
      return t`Confirmed`;
    case 'join':
      return t`Joined by a word`;
    default:
      return t`Answered by a machine`;
  }
}

const REFUSED: Record<'kind' | 'many' | 'empty', string> = {
  kind: t`not kept: only pictures, PDFs, office documents and plain text are`,
  many: t`not kept: ten files of a mail are`,
  empty: t`not kept: it is empty`,
};

function Files({ replyId, files }: { replyId: number; files: ThreadItem['files'] }) {
  const format = useFormat();
  if (files.length === 0) return null;
  return (
    <ul className="pt-1 text-[13px]" aria-label={t`Files that came with it`}>
      {files.map(({ id, name, bytes, refused }) => (
        <li key={id} className="break-words">
          {refused === null ? (
            <a className="link" href={`/api/replies/${replyId}/files/${id}`} download>
              {name}
            </a>
          ) : (
            name
          )}{' '}
          <span className="text-ink2">
            {refused === null ? `${format.number(Math.ceil(bytes / 1000))} kB` : REFUSED[refused]}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** Words of theirs, with the sentences that the Margin speaks of. */
function Said({ item, concerns }: { item: ThreadItem; concerns: readonly FoundConcern[] }) {
  const marked = concerns.filter((one) => one.item.id === item.id).sort((a, b) => a.from - b.from);
  if (item.words === '') return <p className="text-ink2">{t`No words`}</p>;
  const parts = marked.map(({ kind, from, to }, i) => ({
    kind,
    before: item.words.slice(marked[i - 1]?.to ?? 0, Math.max(from, marked[i - 1]?.to ?? 0)),
    words: item.words.slice(Math.max(from, marked[i - 1]?.to ?? 0), to),
  }));
  return (
    <p className="whitespace-pre-wrap break-words">
      {parts.map(({ kind, before, words }) => (
        <span key={kind}>
          {before}
          <Marked anchor={concernAnchor(item.id, kind)} words={words} />
        </span>
      ))}
      {item.words.slice(marked.at(-1)?.to ?? 0)}
    </p>
  );
}

function Marked({ anchor, words }: { anchor: string; words: string }) {
  const lit = useLit(anchor);
  return (
    <span {...lit} className={`${lit.className} border-b-2 border-ochremark`}>
      {words}
    </span>
  );
}

function Theirs({ item, from, concerns }: { item: ThreadItem } & AroundItems) {
  const format = useFormat();
  const { message } = item;
  return (
    <>
      <p className="text-ink2 text-[12.5px]">
        {item.channel === 'text' ? t`By text` : t`By email`}
        {item.channel === 'email' && item.by !== from && ` ${t`from ${item.by}`}`}, {format.moment(item.at)}
        {message && (
          <>
            {', '}
            <Trans>
              to{' '}
              <Link className="link" to={`/hear-back/${message.id}`}>
                {message.name}
              </Link>
            </Trans>
          </>
        )}
      </p>
      <Said item={item} concerns={concerns} />
      <Files replyId={item.id} files={item.files} />
    </>
  );
}

function Ours({ item }: { item: ThreadItem }) {
  const format = useFormat();
  const how = item.channel === 'text' ? t`by text` : t`by email`;
  const state = stateWords(item.state ?? '');
  const by = item.by || t`somebody of the team`;
  return (
    <>
      <p className="text-ink2 text-[12.5px]">
        <Trans>
          {by}, {how}, {format.moment(item.at)}:{' '}
          <Link className="link" to={`/hear-back/${item.id}`}>
            {state}
          </Link>
        </Trans>
      </p>
      {item.words === '' ? (
        <p className="text-ink2">{item.subject || t`Its words were not kept.`}</p>
      ) : (
        <p className="whitespace-pre-wrap break-words">{item.words}</p>
      )}
    </>
  );
}

function Noted({ item }: { item: ThreadItem }) {
  const format = useFormat();
  return (
    <>
      <p className="text-ink2 text-[12.5px]">
        <Trans>
          A note of {item.by}, for the team alone, {format.moment(item.at)}
        </Trans>
      </p>
      <p className="whitespace-pre-wrap break-words italic">{item.words}</p>
    </>
  );
}

/** One line for what asks for nothing: machines’ answers and words that act by themselves. */
function Folded({ items }: { items: readonly ThreadItem[] }) {
  const format = useFormat();
  const [first] = items;
  const words =
    items.length === 1
      ? keywordWords(first!.keyword)
      : plural(items.length, { one: '# that asks for nothing', other: '# that ask for nothing' });
  return (
    <details className="text-ink2 text-[13px]">
      <summary className="cursor-pointer">
        {words}, {format.moment(first!.at)}
      </summary>
      {items.map((item) => (
        <div key={item.id} className="pl-4 pt-1">
          <p className="text-[12.5px]">{`${keywordWords(item.keyword)}, ${format.moment(item.at)}`}</p>
          <p className="whitespace-pre-wrap break-words">{item.words}</p>
          <Files replyId={item.id} files={item.files} />
        </div>
      ))}
    </details>
  );
}

const isFolded = ({ kind, keyword }: ThreadItem) => kind === 'in' && keyword !== 'none';

/** What stands together: each by itself, but what asks for nothing in one. */
export function together(items: readonly ThreadItem[]): ThreadItem[][] {
  const out: ThreadItem[][] = [];
  for (const item of items) {
    const last = out.at(-1);
    if (last && isFolded(item) && isFolded(last[0]!)) last.push(item);
    else out.push([item]);
  }
  return out;
}

const LOOKS = {
  in: 'border-l-[3px] border-ink pl-3 mr-10',
  out: 'border-l-[3px] border-verdigris pl-3 ml-10',
  note: 'border-l-[3px] border-dashed border-ink3 pl-3 ml-10',
} as const;

/** What the words of a thread are shown with. */
interface AroundItems {
  /** The address that is on file: a mail that says another says so. */
  from: string;
  concerns: readonly FoundConcern[];
}

/** All that passed, the oldest first. */
export function ThreadItems({ items, ...around }: { items: readonly ThreadItem[] } & AroundItems) {
  return (
    <ol className="flex flex-col gap-4" aria-label={t`What passed between us`}>
      {together(items).map((group) => {
        const [item] = group as [ThreadItem];
        if (isFolded(item))
          return (
            <li key={`in${item.id}`}>
              <Folded items={group} />
            </li>
          );
        const Shown = { in: Theirs, out: Ours, note: Noted }[item.kind];
        return (
          <li key={`${item.kind}${item.id}`} className={LOOKS[item.kind]}>
            <Shown item={item} {...around} />
          </li>
        );
      })}
    </ol>
  );
}
