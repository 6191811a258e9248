import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { MessageView, Preview, ReaderView } from '@goodword/core/contract';
import { get, query } from '../app/api';
import { Problem } from '../ui/basics';
import { TypedMenu } from '../ui/TypedMenu';

/** The message as any supporter will get it: somebody of its group to begin with, whoever is typed after that. */
export function PreviewPane({ message, stamp }: { message: MessageView; stamp: string }) {
  const [search, setSearch] = useState('');
  const [chosen, setChosen] = useState<ReaderView | null>(null);
  const readersOf = (typed: string) => ({
    queryKey: ['readers', message.id, message.groupVersion, typed],
    queryFn: () => get<ReaderView[]>(`messages/${message.id}/readers${query({ search: typed })}`),
  });
  const first = useQuery(readersOf(''));
  const found = useQuery({ ...readersOf(search), placeholderData: keepPreviousData });
  const reader = chosen ?? first.data?.[0] ?? null;
  const preview = useQuery({
    queryKey: ['preview', message.id, reader?.id ?? null, stamp],
    queryFn: () => get<Preview>(`messages/${message.id}/preview${query({ supporterId: reader?.id ?? null })}`),
    placeholderData: keepPreviousData,
    enabled: !first.isPending,
  });
  const data = preview.data;
  const nameOf = (one: { name: string }) => one.name || 'somebody without a name';
  const items = (found.data ?? []).map((one) => ({
    key: String(one.id),
    words: nameOf(one),
    note: [one.address, one.note].filter(Boolean).join(', '),
    act: () => setChosen(one),
  }));
  return (
    <section className="sheet flex flex-col min-h-0" aria-label="As they will get it">
      <div className="p-3 border-b border-hair flex flex-col gap-1">
        <h2 className="font-semibold">
          As{' '}
          <TypedMenu
            label="Whom to read it as"
            className="link"
            groups={[{ title: 'Those who would get it first', items }]}
            placeholder="Name or email"
            none="Nobody by that name"
            onType={setSearch}
          >
            {data ? nameOf(data.supporter) : 'they'}
          </TypedMenu>{' '}
          will get it
        </h2>
        {reader && (
          <p className="text-ink2 text-[13px] truncate">
            {reader.address ?? 'no address'}
            {reader.note && <span className="text-ochre">: {reader.note}</span>}
          </p>
        )}
        {data && data.holes.length > 0 && <p className="text-madder text-[13px]">Empty here: {data.holes.join(', ')}</p>}
      </div>
      <Problem error={preview.error ?? first.error ?? found.error} />
      {data && message.channel === 'email' && (
        <>
          <p className="px-4 py-2 border-b border-hair">
            <span className="text-ink2">Subject</span> <b>{data.subject}</b>
          </p>
          <iframe title="The letter as it will look" sandbox="" srcDoc={data.html} className="grow w-full bg-white min-h-[200px]" />
        </>
      )}
      {data && message.channel === 'text' && (
        <div className="p-4 overflow-y-auto">
          <p className="bg-bench rounded-[10px] px-4 py-3 whitespace-pre-wrap text-[15px]">{data.text}</p>
          <p className="text-ink2 pt-2">
            {data.parts} text {data.parts === 1 ? 'segment' : 'segments'}
          </p>
        </div>
      )}
    </section>
  );
}
