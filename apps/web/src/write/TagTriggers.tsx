import { keyOf } from '../app/reading';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import type { MessageView, TagTrigger, TagTriggerEvent } from '@goodword/core/contract';
import { api } from '../app/api';
import { useMay } from '../app/session';
import { useTags } from '../app/groups';
import { ProblemNote } from '../ui/basics';
import { changed, triggersOf, offeredTriggers } from './triggers';

const WORDS: Record<TagTriggerEvent, string> = { clicked: t`clicks a link`, replied: 'replies' };
const WORD = 'bg-transparent border-b-2 border-ink font-semibold cursor-pointer max-w-[240px]';

function TriggerLine({
  at,
  trigger,
  change,
  known,
}: {
  at: number;
  trigger: TagTrigger;
  change: (make: (triggers: TagTrigger[]) => TagTrigger[]) => void;
  known: readonly ('clicked' | 'replied')[];
}) {
  const may = useMay('organizer');
  const tags = useTags().data ?? [];
  return (
    <p className="flex items-center gap-[6px] flex-wrap">
      <Trans>
        Whoever
        <select
          aria-label={t`What somebody does`}
          className={WORD}
          disabled={!may}
          value={trigger.on}
          onChange={(event) =>
            change((triggers) => changed(triggers, at, { on: event.target.value as TagTriggerEvent }))
          }
        >
          {known.map((on) => (
            <option key={on} value={on}>
              {WORDS[on]}
            </option>
          ))}
        </select>
        gets the tag
      </Trans>
      <select
        aria-label={t`The tag that they get`}
        className={WORD}
        disabled={!may}
        value={trigger.tagId}
        onChange={(event) =>
          change((triggers) => changed(triggers, at, { tagId: Number(event.target.value) }))
        }
      >
        {!tags.some((tag) => tag.id === trigger.tagId) && (
          <option value={trigger.tagId}>{t`a tag that is gone`}</option>
        )}
        {tags.map((tag) => (
          <option key={tag.id} value={tag.id}>
            {tag.name}
          </option>
        ))}
      </select>
      {may && (
        <button
          aria-label={t`Take this away`}
          className="text-ink3 hover:text-madder"
          onClick={() => change((triggers) => triggers.filter((_trigger, i) => i !== at))}
        >
          <X size={14} />
        </button>
      )}
    </p>
  );
}

/**
 * Sentences that tag whoever does something with the message; they may change when it has gone, and count
 * from then on.
 */
export function TagTriggers({ message }: { message: MessageView }) {
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const tags = useTags().data ?? [];
  const queryKey = keyOf('messages/{id}', { id: message.id });
  const mutationKey = ['tag-triggers', message.id];
  // All of them are written at once, so a change begins from the one before it and not from what the server
  // last told.
  const save = useMutation({
    mutationKey,
    scope: { id: mutationKey.join(' ') },
    mutationFn: (triggers: { tagTriggers: TagTrigger[]; was: TagTrigger[] }) =>
      api.put('messages/{id}/tag-triggers', { id: message.id, body: triggers }),
    onSettled: () =>
      queryClient.isMutating({ mutationKey }) === 1 ? queryClient.invalidateQueries({ queryKey }) : undefined,
  });
  const { tagTriggers } = message;
  // Kept before anything is waited for, or a second change in haste would begin from before the first.
  const change = (make: (triggers: TagTrigger[]) => TagTrigger[]) => {
    const was = queryClient.getQueryData<MessageView>(queryKey)?.tagTriggers ?? tagTriggers;
    const next = make(was);
    void queryClient.cancelQueries({ queryKey }, { revert: false });
    queryClient.setQueryData<MessageView>(queryKey, (view) => view && { ...view, tagTriggers: next });
    save.mutate({ tagTriggers: next, was });
  };
  const known = triggersOf(message.channel);
  const more = offeredTriggers(tagTriggers, tags, message.channel);
  if (known.length === 0 || tags.length === 0 || (!may && tagTriggers.length === 0)) return null;
  return (
    <section className="sheet px-4 py-2 flex flex-col gap-1" aria-label={t`Tags by what somebody does`}>
      {tagTriggers.map((trigger, at) => (
        <TriggerLine key={at} at={at} trigger={trigger} change={change} known={known} />
      ))}
      {may && more && (
        <button
          className="link self-start text-[13px]"
          onClick={() => change((triggers) => [...triggers, more])}
        >
          {tagTriggers.length === 0
            ? t`Tag whoever ${known.map((on) => WORDS[on]).join(' or ')}…`
            : t`And tag whoever…`}
        </button>
      )}
      <ProblemNote error={save.error} />
    </section>
  );
}
