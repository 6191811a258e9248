import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { MessageView, ReaderView } from '@goodword/core/contract';
import { ProblemNote } from '../ui/basics';
import { TypedMenu } from '../ui/TypedMenu';
import { isFresh } from '../ui/waitingEnter';
import { anew, reading } from '../app/reading';
import { LetterPageLink } from './LetterPageLink';
import { PreviewOf } from './PreviewOf';
import type { ProofReader } from './Proofs';

/**
 * The message as any supporter will get it: somebody of its group to begin with, whoever is typed after that.
 */
export function PreviewPane({
  message,
  stamp,
  proof = null,
  onChoose,
}: {
  message: MessageView;
  stamp: string;
  /** Somebody who was found worth a look, before whoever is typed. */
  proof?: ProofReader | null;
  onChoose?: () => void;
}) {
  const [search, setSearch] = useState('');
  const [chosen, setChosen] = useState<ReaderView | null>(null);
  const readersOf = (typed: string) =>
    anew(reading('messages/{id}/readers', { id: message.id, search: typed }), message.groupVersion);
  const first = useQuery(readersOf(''));
  const found = useQuery({ ...readersOf(search), placeholderData: keepPreviousData });
  const asProof = proof ? { ...proof, address: null, note: proof.why } : null;
  const reader: ReaderView | null = asProof ?? chosen ?? first.data?.[0] ?? null;
  const preview = useQuery({
    ...anew(reading('messages/{id}/preview', { id: message.id, supporterId: reader?.id ?? null }), stamp),
    placeholderData: keepPreviousData,
    enabled: !first.isPending,
  });
  const data = preview.data;
  const nameOf = (one: { name: string }) => one.name || t`somebody without a name`;
  const items = (found.data ?? []).map((one) => ({
    key: String(one.id),
    words: nameOf(one),
    note: [one.address, one.note].filter(Boolean).join(', '),
    act: () => (onChoose?.(), setChosen(one)),
  }));
  return (
    <section className="sheet flex flex-col min-h-0" aria-label={t`As they will get it`}>
      <div className="p-3 border-b border-hair flex flex-col gap-1">
        <h2 className="font-semibold">
          <Trans>
            As{' '}
            <TypedMenu
              label={t`Whom to read it as`}
              className="link"
              groups={[{ title: t`Those who would get it first`, items }]}
              placeholder={t`Name or email`}
              none={t`Nobody by that name`}
              onType={setSearch}
              fresh={isFresh(found)}
            >
              {data ? nameOf(data.supporter) : t`they`}
            </TypedMenu>{' '}
            will get it
          </Trans>
        </h2>
        {reader && (
          <p className="text-ink2 text-[13px] truncate">
            {proof ? proof.why : (reader.address ?? t`no address`)}
            {!proof && reader.note && <span className="text-ochre">: {reader.note}</span>}
          </p>
        )}
        {data && data.holes.length > 0 && (
          <p className="text-madder text-[13px]">
            <Trans>Empty here: {data.holes.join(', ')}</Trans>
          </p>
        )}
      </div>
      <ProblemNote error={preview.error ?? first.error ?? found.error} />
      {data && message.channel === 'post' && (
        <p className="px-3 pt-2">
          <LetterPageLink id={message.id} supporterId={data.supporter.id} />
        </p>
      )}
      {data && <PreviewOf channel={message.channel} preview={data} senderId={message.senderId} />}
    </section>
  );
}
