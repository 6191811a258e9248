import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api } from '../app/api';
import { useTyped } from '../app/drafting';
import { KIND_OF_WORDS } from '../app/channels';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Empty, Heading, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { AboutMessage, aboutBody, type About } from './AboutMessage';
import { UseAgain } from './UseAgain';
import { WriteNav } from './WriteNav';
import { letterStart } from './letterStart';
import { reading } from '../app/reading';

function Begin({ onDone }: { onDone: (id: number) => void }) {
  const draft = useTyped<About>('message:new', { name: '', channel: 'email', purpose: 'appeals' });
  const [values, setValues] = [draft.value, draft.set];
  const make = useMutation({
    mutationFn: () => api.post('messages', { body: aboutBody(values) }),
    onSuccess: ({ id }) => (draft.discard(), onDone(id)),
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => (event.preventDefault(), make.mutate())}
    >
      <AboutMessage value={values} onChange={setValues} />
      <ProblemNote error={make.error} />
      <Button type="submit" weight="main" className="self-start" disabled={make.isPending}>
        {t`Begin to write`}
      </Button>
    </form>
  );
}

/** What is being written. */
export default function Drafts() {
  const navigate = useNavigate();
  const format = useFormat();
  const may = useMay('writer');
  const [beginning, setBeginning] = useState(false);
  const { data, error, isPending } = useQuery(reading('messages'));
  if (isPending) return <Loading what={t`drafts`} />;
  const drafts = data?.filter((message) => message.state === 'draft');
  return (
    <>
      <Heading title={t`Write`} note={t`Say it personally`}>
        {may && (
          <Button weight="main" onClick={() => setBeginning(true)}>
            {t`Write a message`}
          </Button>
        )}
      </Heading>
      <WriteNav />
      <ProblemNote error={error} />
      <div className="sheet">
        {drafts?.length === 0 && (
          <Empty title={t`Nothing is half written`}>
            <p>
              <Trans>
                Begin with who it is for and what it asks; the program keeps count of who agreed to that.
              </Trans>
            </p>
          </Empty>
        )}
        <ul>
          {drafts?.map((draft) => (
            <li
              key={draft.id}
              className="border-b border-hair last:border-0 px-5 py-3 flex items-baseline gap-4"
            >
              <div className="grow min-w-0">
                <Link className="subtitle hover:underline" to={`/write/${draft.id}`}>
                  {draft.name}
                </Link>
                <p className="text-ink2 truncate">
                  {draft.channel === 'email'
                    ? draft.subject || t`No subject yet`
                    : (draft.channel === 'post' ? letterStart(draft.letter) : draft.text) || t`Empty`}
                </p>
              </div>
              <span className="text-ink2 shrink-0">
                {KIND_OF_WORDS[draft.channel]}, {draft.purpose ?? t`public list`},{' '}
                {format.moment(draft.updatedAt)}
              </span>
              <UseAgain id={draft.id} name={draft.name} />
            </li>
          ))}
        </ul>
      </div>
      <Drawer open={beginning} onClose={() => setBeginning(false)} title={t`Write a message`}>
        <Begin onDone={(id) => void navigate(`/write/${id}`)} />
      </Drawer>
    </>
  );
}
