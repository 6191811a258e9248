import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import type { MessageView } from '@goodword/core/contract';
import { COMPARISON_LIMITS } from '@goodword/core/wordings';
import { api } from '../app/api';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { ProblemNote } from '../ui/basics';
import { wordingName } from './measures';
import { isComparable, useComparison } from './useComparison';

/** The wordings of a message over its words: which one this is, the others, and one more. */
export function WordingsLine({ message, flush }: { message: MessageView; flush: () => Promise<void> }) {
  const may = useMay('writer');
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const comparison = useComparison(message.id);
  const first = message.wordingOf ?? message.id;
  const add = useMutation({
    mutationFn: async () => {
      await flush();
      return api.post('messages/{id}/wordings', { id: first });
    },
    // At once: what is typed while the rest is read again belongs to the new one, and not to the one before.
    onSuccess: ({ id }) => (refresh(queryClient, 'messages'), void navigate(`/write/${id}`)),
  });
  if (!isComparable(message)) return null;
  const wordings = comparison?.wordings ?? [];
  const more = may && message.state === 'draft' && wordings.length < COMPARISON_LIMITS.wordings;
  if (wordings.length === 0 && !more) return null;
  const adding = (
    <button className="link" disabled={add.isPending} onClick={() => add.mutate()}>
      {wordings.length === 0 ? t`Compare it with another wording` : t`Add one more`}
    </button>
  );
  return (
    <nav aria-label={t`Wordings`} className="flex flex-wrap gap-x-4 pb-2 text-[13.5px]">
      {wordings.length > 0 && <span className="text-ink2">{t`Some get one wording, some another:`}</span>}
      {wordings.map(({ id }, i) =>
        id === message.id ? (
          <b key={id} aria-current="page">
            {wordingName(i + 1)}
          </b>
        ) : (
          <Link key={id} className="link" to={`/write/${id}`}>
            {wordingName(i + 1)}
          </Link>
        ),
      )}
      {more && adding}
      {message.wordingOf !== null && (
        <span className="text-ink2">
          <Trans>For whom it is, and when it leaves, is said with the first.</Trans>
        </span>
      )}
      <ProblemNote error={add.error} />
    </nav>
  );
}
