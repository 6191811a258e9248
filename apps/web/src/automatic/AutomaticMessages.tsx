import { plural, t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { AutomationView } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';

/** Begins one with what most begin with; its sentence is written on its own page. */
function Begin({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [name, setName] = useState('');
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const make = useMutation({
    mutationFn: () =>
      api.post('automations', {
        body: { name: name.trim(), cause: { kind: 'gift', which: 'any', atLeast: null } },
      }),
    onSuccess: ({ id }) => (refresh(queryClient, 'automations'), void navigate(`/send/automatic/${id}`)),
  });
  return (
    <Drawer
      open={open}
      onClose={onClose}
      title={t`Begin an automatic message`}
      note={t`It is off until you switch it on`}
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!make.isPending) make.mutate();
        }}
      >
        <Labelled label={t`What you call it`}>
          <input
            className="input"
            autoFocus
            required
            maxLength={120}
            value={name}
            onChange={({ target }) => setName(target.value)}
          />
        </Labelled>
        <ProblemNote error={make.error} />
        <Button
          weight="main"
          type="submit"
          className="self-start"
          disabled={name.trim() === '' || make.isPending}
        >{t`Write its sentence`}</Button>
      </form>
    </Drawer>
  );
}

function Line({ one }: { one: AutomationView }) {
  const format = useFormat();
  const { id, name, on, words, messages, counts } = one;
  return (
    <li className="border-b border-hair last:border-0 px-5 py-3 flex items-baseline gap-4">
      <span className="grow">
        <Link className="subtitle hover:underline" to={`/send/automatic/${id}`}>
          {name}
        </Link>
        <span className="block text-ink2">
          {t`When ${words}`}
          {messages.length > 0 && `: ${messages.join(', ')}`}
        </span>
      </span>
      {counts.held > 0 && (
        <b className="text-madder">
          {format.number(counts.held)}{' '}
          {plural(counts.held, { one: 'waits for your look', other: 'wait for your look' })}
        </b>
      )}
      {counts.waiting > 0 && (
        <span className="text-ink2">
          {format.number(counts.waiting)} {plural(counts.waiting, { one: 'waits', other: 'wait' })}
        </span>
      )}
      <b className={on ? 'text-verdigris' : 'text-ink2'}>{on ? t`on` : t`off`}</b>
    </li>
  );
}

/** Messages that leave by themselves, each as its sentence. */
export function AutomaticMessages() {
  const may = useMay('organizer');
  const [beginning, setBeginning] = useState(false);
  const { data = [], error } = useQuery(reading('automations'));
  return (
    <section aria-label={t`Automatic messages`}>
      <div className="flex items-baseline gap-4 pb-2">
        <h2 className="subtitle">{t`Automatic messages`}</h2>
        {may && <button className="link text-ink" onClick={() => setBeginning(true)}>{t`Begin one`}</button>}
      </div>
      <ProblemNote error={error} />
      <ul className="sheet mb-5">
        {data.length === 0 && (
          <li className="px-5 py-3 text-ink2">
            {t`A thank-you for each gift, a welcome, a birthday: they leave by themselves once they are on.`}
          </li>
        )}
        {data.map((one) => (
          <Line key={one.id} one={one} />
        ))}
      </ul>
      {beginning && <Begin open onClose={() => setBeginning(false)} />}
    </section>
  );
}
