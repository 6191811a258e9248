import { t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useId } from 'react';
import type { MakeTemplateBody } from '@goodword/core/contract';
import { CHANNELS, type Channel } from '@goodword/core/permission';
import { api } from '../../app/api';
import { useTyped } from '../../app/drafting';
import { useLists } from '../../app/groups';
import { reading } from '../../app/reading';
import { refresh } from '../../app/refresh';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { AskedFor, type AskedScope } from '../AskedFor';
import { pastedWords } from '../pastedWords';
import { KIND_OF_WORDS } from '../../app/channels';

type Source = 'blank' | 'starter' | 'message' | 'pasted';

interface Typed extends AskedScope {
  name: string;
  folder: string;
  channel: Channel;
  note: string;
  source: Source;
  starter: string;
  messageId: number | null;
  pasted: string;
}

const START: Typed = {
  name: '',
  folder: '',
  channel: 'email',
  purpose: 'appeals',
  listId: null,
  note: '',
  source: 'starter',
  starter: '',
  messageId: null,
  pasted: '',
};

const SOURCES: Record<Source, string> = {
  starter: t`a starter`,
  message: t`a message`,
  pasted: t`words I paste`,
  blank: t`a blank sheet`,
};

/** The words that were chosen; undefined for none. */
function fromOf({ source, starter, messageId, pasted, channel }: Typed): MakeTemplateBody['from'] {
  if (source === 'starter') return starter === '' ? undefined : { starter };
  if (source === 'message') return messageId === null ? undefined : { messageId };
  return source === 'pasted' ? pastedWords(pasted, channel) : undefined;
}

interface PartProps {
  value: Typed;
  set: (part: Partial<Typed>) => void;
}

function SourcePart({ value, set }: PartProps) {
  const starters = useQuery({ ...reading('starters'), staleTime: Infinity });
  const messages = useQuery({ ...reading('messages'), enabled: value.source === 'message' });
  const fitting = (starters.data ?? []).filter(({ words }) =>
    words.some(({ channel }) => channel === value.channel),
  );
  switch (value.source) {
    case 'starter':
      return (
        <div className="flex flex-col gap-1 max-h-[260px] overflow-y-auto">
          {fitting.map((starter) => (
            <label key={starter.key} className="flex gap-2 items-baseline">
              <input
                type="radio"
                name="starter"
                required
                checked={value.starter === starter.key}
                onChange={() =>
                  set({
                    starter: starter.key,
                    purpose: starter.purpose,
                    listId: null,
                    note: starter.note,
                    name:
                      value.name === '' || fitting.some((one) => one.name === value.name)
                        ? starter.name
                        : value.name,
                  })
                }
              />
              <span>
                {starter.name} <span className="text-ink2 text-[13px]">{starter.note}</span>
              </span>
            </label>
          ))}
        </div>
      );
    case 'message':
      return (
        <Labelled label={t`Which message`}>
          <select
            className="input"
            required
            value={value.messageId ?? ''}
            onChange={({ target }) => set({ messageId: target.value === '' ? null : Number(target.value) })}
          >
            <option value="">{t`Choose one`}</option>
            {(messages.data ?? [])
              .filter(({ channel }) => channel === value.channel)
              .map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
          </select>
        </Labelled>
      );
    case 'pasted':
      return (
        <Labelled label={t`Words or HTML`} hint={t`Headings, lists and links of HTML stay; its looks go.`}>
          <textarea
            className="input min-h-[160px] font-mono text-[13px]"
            required
            value={value.pasted}
            onChange={({ target }) => set({ pasted: target.value })}
            onPaste={(event) => {
              const html = event.clipboardData.getData('text/html');
              if (html === '' || value.pasted !== '') return;
              event.preventDefault();
              set({ pasted: html });
            }}
          />
        </Labelled>
      );
    default:
      return null;
  }
}

function BeginPart({ value, set }: PartProps) {
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="font-semibold text-[13px] pb-1">{t`Begin with`}</legend>
      <div className="flex flex-wrap gap-4">
        {(Object.keys(SOURCES) as Source[]).map((source) => (
          <label key={source} className="flex items-center gap-2">
            <input
              type="radio"
              name="source"
              checked={value.source === source}
              onChange={() => set({ source })}
            />
            {SOURCES[source]}
          </label>
        ))}
      </div>
      <SourcePart value={value} set={set} />
    </fieldset>
  );
}

function NamePart({ value, folders, set }: PartProps & { folders: readonly string[] }) {
  const known = useId();
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <Labelled label={t`Name`}>
          <input
            className="input"
            required
            maxLength={120}
            value={value.name}
            onChange={({ target }) => set({ name: target.value })}
          />
        </Labelled>
        <Labelled label={t`Folder`}>
          <input
            className="input"
            maxLength={60}
            list={known}
            value={value.folder}
            onChange={({ target }) => set({ folder: target.value })}
          />
          <datalist id={known}>
            {folders.map((folder) => (
              <option key={folder} value={folder} />
            ))}
          </datalist>
        </Labelled>
      </div>
      <Labelled label={t`When to use it`}>
        <input
          className="input"
          maxLength={500}
          value={value.note}
          onChange={({ target }) => set({ note: target.value })}
        />
      </Labelled>
    </>
  );
}

/** What a template is called, for which channel and what, and where its words come from. */
export function NewTemplate({
  folders,
  onDone,
}: {
  folders: readonly string[];
  onDone: (id: number) => void;
}) {
  const lists = useLists();
  const queryClient = useQueryClient();
  const draft = useTyped<Typed>('template:new', START);
  const value = draft.value;
  const set = (part: Partial<Typed>) => draft.set({ ...value, ...part });
  const make = useMutation({
    mutationFn: () => {
      const { name, folder, channel, purpose, listId, note } = value;
      const from = fromOf(value);
      const about = { name, folder, channel, purpose, listId, note };
      return api.post('templates', { body: { ...about, ...(from ? { from } : {}) } });
    },
    onSuccess: ({ id }) => (draft.discard(), void refresh(queryClient, 'templates'), onDone(id)),
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-4 overflow-y-auto"
      onSubmit={(event) => (event.preventDefault(), make.mutate())}
    >
      <div className="grid grid-cols-2 gap-3">
        <Labelled label={t`For which channel`}>
          <select
            className="input"
            value={value.channel}
            onChange={({ target }) => set({ channel: target.value as Channel, starter: '', messageId: null })}
          >
            {CHANNELS.map((channel) => (
              <option key={channel} value={channel}>
                {KIND_OF_WORDS[channel]}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled label={t`It is for`}>
          <AskedFor
            label={t`What permission it asks for`}
            className="input"
            value={value}
            lists={lists.data ?? []}
            onChange={set}
          />
        </Labelled>
      </div>
      <BeginPart value={value} set={set} />
      <NamePart value={value} folders={folders} set={set} />
      <ProblemNote error={make.error} />
      <Button type="submit" weight="main" className="self-start" disabled={make.isPending}>
        {t`Make the template`}
      </Button>
    </form>
  );
}
