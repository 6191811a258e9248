import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { TemplateView } from '@goodword/core/contract';
import { ProblemError } from '../../app/api';
import { anew, reading } from '../../app/reading';
import { useSession } from '../../app/session';
import { ProblemNote } from '../../ui/basics';
import { TypedMenu } from '../../ui/TypedMenu';
import { isFresh } from '../../ui/waitingEnter';
import { PreviewOf } from '../PreviewOf';

/** A template as somebody would get it from oneself: anybody, by typing. */
export function TemplatePreview({ template, stamp }: { template: TemplateView; stamp: string }) {
  const { teammate } = useSession();
  const [typed, setTyped] = useState('');
  const [reader, setReader] = useState<number | null>(null);
  const found = useQuery({
    ...reading('find', { text: typed }),
    enabled: typed.length >= 2,
    placeholderData: keepPreviousData,
  });
  const preview = useQuery({
    ...anew(reading('templates/{id}/preview', { id: template.id, supporterId: reader }), stamp),
    placeholderData: keepPreviousData,
  });
  const nameOf = (name: string) => name || t`somebody without a name`;
  const people = typed.length < 2 ? [] : (found.data ?? []).filter(({ kind }) => kind === 'supporter');
  const items = people.map(({ id, name, note }) => ({
    key: String(id),
    words: nameOf(name),
    note,
    act: () => setReader(id),
  }));
  const { data } = preview;
  // A house with nobody in it yet.
  const nobody = preview.error instanceof ProblemError && preview.error.problem.status === 404;
  return (
    <section className="sheet flex flex-col min-h-0" aria-label={t`As they would get it`}>
      <div className="p-3 border-b border-hair flex flex-col gap-1">
        <h2 className="font-semibold">
          <Trans>
            As{' '}
            <TypedMenu
              label={t`Whom to read it as`}
              className="link"
              groups={[{ title: t`Supporters`, items }]}
              placeholder={t`Name or email`}
              none={typed.length < 2 ? t`Type two letters or more.` : t`Nobody by that name`}
              onType={setTyped}
              fresh={typed.length < 2 || isFresh(found)}
            >
              {data ? nameOf(data.supporter.name) : t`they`}
            </TypedMenu>{' '}
            would get it from you
          </Trans>
        </h2>
        {data && data.holes.length > 0 && (
          <p className="text-madder text-[13px]">
            <Trans>Empty here: {data.holes.join(', ')}</Trans>
          </p>
        )}
      </div>
      {nobody ? (
        <p className="p-4 text-ink2">{t`Nobody is here yet whom it could be read as.`}</p>
      ) : (
        <ProblemNote error={preview.error ?? found.error} />
      )}
      {data && <PreviewOf channel={template.channel} preview={data} senderId={teammate.id} />}
    </section>
  );
}
