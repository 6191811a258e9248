import { t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { TemplateLine } from '@goodword/core/contract';
import { CHANNELS, type Channel, type SendingChannel } from '@goodword/core/permission';
import { api } from '../../app/api';
import { useLists } from '../../app/groups';
import { reading } from '../../app/reading';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import { Button, Empty, Heading, Loading, ProblemNote } from '../../ui/basics';
import { Drawer } from '../../ui/dialogs';
import { WriteNav } from '../WriteNav';
import { NewTemplate } from './NewTemplate';
import { KIND_OF_WORDS } from '../../app/channels';
import { whoseWords } from './words';

/** Begins a message with a template's words, for what the template is for. */
function WriteWith({ template }: { template: TemplateLine }) {
  const may = useMay('writer');
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const begin = useMutation({
    mutationFn: () =>
      api.post('messages', {
        body: {
          name: template.name,
          channel: template.channel as SendingChannel,
          purpose: template.purpose ?? 'news',
          from: { templateId: template.id },
        },
      }),
    onSuccess: ({ id }) => (refresh(queryClient, 'messages'), void navigate(`/write/${id}`)),
  });
  const isSent = template.channel !== 'call';
  if (!may || !isSent || template.archived) return null;
  return (
    <>
      <Button
        once
        disabled={begin.isPending}
        onClick={() => begin.mutate()}
        aria-label={t`Write with ${template.name}`}
      >
        {t`Write with it`}
      </Button>
      <ProblemNote error={begin.error} />
    </>
  );
}

function Line({ template, listName }: { template: TemplateLine; listName: string | undefined }) {
  const asked = template.purpose ?? (listName === undefined ? t`a list` : t`the list ${listName}`);
  return (
    <li className="border-b border-hair last:border-0 px-5 py-3 flex items-baseline gap-4">
      <div className="grow min-w-0">
        <Link className="subtitle hover:underline" to={`/write/templates/${template.id}`}>
          {template.name}
        </Link>
        {template.folder && <span className="text-ink2 pl-3">{template.folder}</span>}
        <p className="text-ink2 truncate">{template.note || template.beginning || t`Empty`}</p>
      </div>
      <span className="text-ink2 shrink-0 text-right">
        {KIND_OF_WORDS[template.channel]}, {asked}, {whoseWords(template)}
        <br />
        {template.uses === 0 ? (
          t`not used yet`
        ) : (
          <Trans>
            used <Plural value={template.uses} one="once" other="# times" />
          </Trans>
        )}
      </span>
      <WriteWith template={template} />
    </li>
  );
}

/** What narrows the list; kept in the address. */
function Finding({
  search,
  channel,
  archived,
  set,
}: {
  search: string;
  channel: Channel | undefined;
  archived: boolean;
  set: (key: string, value: string) => void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-3 pb-3">
      <input
        className="input !w-[320px]"
        type="search"
        aria-label={t`Find a template`}
        placeholder={t`Name, folder or words inside`}
        maxLength={120}
        value={search}
        onChange={(event) => set('search', event.target.value)}
      />
      <select
        className="input !w-auto"
        aria-label={t`For which channel`}
        value={channel ?? ''}
        onChange={(event) => set('channel', event.target.value as Channel | '')}
      >
        <option value="">{t`for any channel`}</option>
        {CHANNELS.map((one) => (
          <option key={one} value={one}>
            {KIND_OF_WORDS[one]}
          </option>
        ))}
      </select>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={archived}
          onChange={(event) => set('archived', event.target.checked ? 'yes' : '')}
        />
        {t`archived ones`}
      </label>
    </div>
  );
}

function NoneHere({ narrowed, onBegin }: { narrowed: boolean; onBegin: (() => void) | null }) {
  if (narrowed)
    return (
      <Empty title={t`None like that`}>
        <p>{t`Each word that you type begins a word of the name, the folder or the text.`}</p>
      </Empty>
    );
  return (
    <Empty title={t`No words are kept yet`}>
      <p>{t`Make one from a starter, from a message that went well, or from words you have elsewhere.`}</p>
      {onBegin && <Button onClick={onBegin}>{t`Make the first`}</Button>}
    </Empty>
  );
}

/** Words that are kept, found by typing, the most used first. */
export default function Templates() {
  const [params, setParams] = useSearchParams();
  const [beginning, setBeginning] = useState(false);
  const navigate = useNavigate();
  const may = useMay('writer');
  const lists = useLists();
  const search = params.get('search') ?? '';
  const channel = CHANNELS.find((one) => one === params.get('channel'));
  const archived = params.get('archived') === 'yes';
  const set = (key: string, value: string) =>
    setParams(
      (old) => {
        if (value === '') old.delete(key);
        else old.set(key, value);
        return old;
      },
      { replace: true },
    );
  const { data, error } = useQuery({
    ...reading('templates', { search: search.trim(), archived, ...(channel ? { channel } : {}) }),
    placeholderData: keepPreviousData,
  });
  const narrowed = search !== '' || channel !== undefined || archived;
  return (
    <>
      <Heading title={t`Templates`} note={t`Words that are kept and used again`}>
        {may && (
          <Button weight="main" onClick={() => setBeginning(true)}>
            {t`Make a template`}
          </Button>
        )}
      </Heading>
      <WriteNav />
      <Finding search={search} channel={channel} archived={archived} set={set} />
      <ProblemNote error={error} />
      {!data && !error && <Loading what={t`templates`} />}
      {data && (
        <div className="sheet overflow-y-auto" tabIndex={0} role="region" aria-label={t`Templates`}>
          {data.length === 0 && (
            <NoneHere narrowed={narrowed} onBegin={may ? () => setBeginning(true) : null} />
          )}
          <ul>
            {data.map((template) => (
              <Line
                key={template.id}
                template={template}
                listName={lists.data?.find(({ id }) => id === template.listId)?.name}
              />
            ))}
          </ul>
        </div>
      )}
      <Drawer open={beginning} onClose={() => setBeginning(false)} title={t`Make a template`} wide>
        <NewTemplate
          folders={[...new Set((data ?? []).map(({ folder }) => folder).filter(Boolean))]}
          onDone={(id) => void navigate(`/write/templates/${id}`)}
        />
      </Drawer>
    </>
  );
}
