import { t } from '@lingui/core/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { MessageView, StarterView, TemplateLine } from '@goodword/core/contract';
import type { WrittenWords } from '@goodword/core/letter';
import type { Channel } from '@goodword/core/permission';
import { reading } from '../../app/reading';
import { TypedMenu, type MenuGroup } from '../../ui/TypedMenu';
import { isFresh } from '../../ui/waitingEnter';
import { whoseWords } from './words';

/** What words begin with. */
export type BegunFrom =
  | { of: 'blank' }
  | { of: 'template'; template: TemplateLine }
  | { of: 'starter'; starter: StarterView; words: WrittenWords }
  | { of: 'message'; message: MessageView };

const holds = (text: string, typed: string) => text.toLowerCase().includes(typed.toLowerCase());

/** Chooses the words to begin with by typing part of a name: a template, an earlier message, a starter. */
export function BeginWith({
  channel,
  chosen,
  withMessages = false,
  onChoose,
}: {
  channel: Channel;
  /** What is chosen now, in words; null for a blank sheet. */
  chosen: string | null;
  /** Whether earlier messages are offered too. */
  withMessages?: boolean;
  onChoose: (beginning: BegunFrom) => void;
}) {
  const [typed, setTyped] = useState('');
  const templates = useQuery({
    ...reading('templates', { search: typed, channel }),
    placeholderData: keepPreviousData,
  });
  const starters = useQuery({ ...reading('starters'), staleTime: Infinity });
  const messages = useQuery({ ...reading('messages'), enabled: withMessages });
  const groups: MenuGroup[] = [
    {
      title: t`Templates`,
      items: (templates.data ?? []).slice(0, 30).map((template) => ({
        key: `template-${template.id}`,
        words: template.name,
        note: [template.folder, whoseWords(template)].filter(Boolean).join(', '),
        act: () => onChoose({ of: 'template', template }),
      })),
    },
    {
      title: t`Earlier messages`,
      items: (withMessages ? (messages.data ?? []) : [])
        .filter((message) => message.channel === channel && holds(message.name, typed))
        .slice(0, 20)
        .map((message) => ({
          key: `message-${message.id}`,
          words: message.name,
          act: () => onChoose({ of: 'message', message }),
        })),
    },
    {
      title: t`Starters, with blanks to fill in`,
      items: (starters.data ?? []).flatMap((starter) => {
        const own = starter.words.find((one) => one.channel === channel);
        if (!own || !holds(`${starter.name} ${starter.note}`, typed)) return [];
        const act = () => onChoose({ of: 'starter', starter, words: own.words });
        return [{ key: `starter-${starter.key}`, words: starter.name, note: starter.purpose, act }];
      }),
    },
    {
      title: t`Or`,
      items: holds(t`a blank sheet`, typed)
        ? [{ key: 'blank', words: t`a blank sheet`, act: () => onChoose({ of: 'blank' }) }]
        : [],
    },
  ];
  return (
    <div className="flex flex-col gap-1">
      <span className="font-semibold text-[13px]">{t`Begin with`}</span>
      <TypedMenu
        label={t`Begin with ${chosen ?? t`a blank sheet`}`}
        className="input text-left truncate"
        groups={groups}
        placeholder={t`Part of a name, or words in it`}
        none={t`Nothing by that name for this channel.`}
        onType={setTyped}
        fresh={isFresh(templates)}
      >
        {chosen ?? t`a blank sheet`}
      </TypedMenu>
    </div>
  );
}
