import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { MessageView, Page, Preview, SupporterRow } from '@goodword/core/contract';
import { get, query } from '../app/api';
import { Problem } from '../ui/basics';
import { personName } from '../ui/people';

/** The message as any supporter will get it. */
export function PreviewPane({ message, stamp }: { message: MessageView; stamp: string }) {
  const [search, setSearch] = useState('');
  const [supporterId, setSupporter] = useState<number | null>(null);
  const people = useQuery({
    queryKey: ['preview-people', search],
    queryFn: () => get<Page<SupporterRow>>(`supporters${query({ search, limit: 20 })}`),
  });
  const preview = useQuery({
    queryKey: ['preview', message.id, supporterId, stamp],
    queryFn: () => get<Preview>(`messages/${message.id}/preview${query({ supporterId })}`),
    placeholderData: keepPreviousData,
  });
  const data = preview.data;
  return (
    <section className="sheet flex flex-col min-h-0" aria-label="As they will get it">
      <div className="p-3 border-b border-hair flex flex-col gap-2">
        <h2 className="font-semibold">As {data?.supporter.name || 'they'} will get it</h2>
        <div className="flex gap-2">
          <input
            type="search"
            className="input"
            aria-label="Find whom to read it as"
            placeholder="Read it as…"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          <select
            className="input"
            aria-label="Whom to read it as"
            value={supporterId ?? ''}
            onChange={(event) => setSupporter(Number(event.target.value) || null)}
          >
            <option value="">{data ? data.supporter.name || 'Someone' : 'Choose'}</option>
            {people.data?.rows.map((row) => (
              <option key={row.id} value={row.id}>
                {personName(row)}
              </option>
            ))}
          </select>
        </div>
        {data && data.holes.length > 0 && <p className="text-madder text-[13px]">Empty here: {data.holes.join(', ')}</p>}
      </div>
      <Problem error={preview.error} />
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
