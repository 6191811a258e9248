import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useId } from 'react';
import type { Preview } from '@goodword/core/contract';
import { onTelephone } from '@goodword/core/letter';
import { reading } from '../app/reading';
import { useSession } from '../app/session';

/** The mail as a telephone lists it, before anybody has opened it: who, what, and how it begins. */
export function OnTelephone({ senderId, preview }: { senderId: number | null; preview: Preview }) {
  const caption = useId();
  const { organization } = useSession();
  const { data: mates = [] } = useQuery(reading('session/teammates'));
  const sender = mates.find(({ id }) => id === senderId)?.name;
  const { subject, line } = onTelephone(preview.subject, preview.preheader, preview.text);
  return (
    <figure className="mx-4 my-3" aria-labelledby={caption}>
      <div className="w-[320px] max-w-full rounded-paper border border-hair bg-bench px-3 py-2 leading-snug">
        <p className="truncate text-[13px]">{[sender, organization.name].filter(Boolean).join(', ')}</p>
        <p className="font-semibold break-words">{subject || t`No subject`}</p>
        <p className="text-ink2 text-[13px] break-words">{line}</p>
      </div>
      <figcaption id={caption} className="text-ink2 text-[12.5px] pt-1">
        {t`As a telephone lists it`}
      </figcaption>
    </figure>
  );
}
