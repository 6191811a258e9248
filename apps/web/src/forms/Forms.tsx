import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api } from '../app/api';
import { useTyped } from '../app/drafting';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { useLists } from '../app/groups';
import { GatherNav } from '../gather/GatherNav';
import { Button, Empty, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { reading } from '../app/reading';

const COLUMNS = [t`Form`, t`State`, t`Seen`, t`Begun`, t`Joined`, t`Confirmed`, t`Waiting to confirm`];

/** Sign-up forms, and how far people come in each. */
export default function Forms() {
  const format = useFormat();
  const may = useMay('organizer');
  const [making, setMaking] = useState(false);
  const { data, error, isPending } = useQuery(reading('forms'));
  if (isPending) return <Loading what={t`forms`} />;
  return (
    <>
      <Heading title={t`Gather`} page={t`Forms`} note={t`Forms where people join by themselves`}>
        {may && (
          <Button weight="main" onClick={() => setMaking(true)}>
            {t`Make a form`}
          </Button>
        )}
      </Heading>
      <GatherNav />
      <ProblemNote error={error} />
      <div className="sheet grow overflow-y-auto" tabIndex={0} role="region" aria-label={t`Forms`}>
        {data?.length === 0 ? (
          <Empty title={t`No form yet`}>
            <p>
              <Trans>
                A form asks for a name, an address, and each permission in its own words. It has a page of its
                own, a QR code for posters, and goes into your website.
              </Trans>
            </p>
          </Empty>
        ) : (
          <table className="w-full">
            <thead>
              <tr className="border-b border-ink text-left text-[13px] text-ink2">
                {COLUMNS.map((title, i) => (
                  <th key={title} className={`px-4 py-2 font-normal ${i > 1 ? 'text-right' : ''}`}>
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {data?.map((form) => (
                <tr key={form.id} className="border-b border-hair">
                  <td className="px-4 py-2 font-semibold">
                    <Link className="hover:underline" to={`/gather/forms/${form.id}`}>
                      {form.name}
                    </Link>
                  </td>
                  <td className="px-4">
                    {form.open ? t`open` : form.faults.length > 0 ? t`closed, not ready yet` : t`closed`}
                  </td>
                  {[
                    form.counts.seen,
                    form.counts.begun,
                    form.counts.joined,
                    form.counts.confirmed,
                    form.waiting,
                  ].map((n, i) => (
                    <td key={COLUMNS[i + 2]} className="px-4 text-right">
                      {format.number(n)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
      <Drawer open={making} onClose={() => setMaking(false)} title={t`Make a form`}>
        <Making />
      </Drawer>
    </>
  );
}

function Making() {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const draft = useTyped('form:new', { name: '', listId: '' });
  const { name, listId } = draft.value;
  const lists = useLists();
  const make = useMutation({
    mutationFn: () => api.post('forms', { body: { name, listId: listId === '' ? null : Number(listId) } }),
    onSuccess: ({ id }) => (
      draft.discard(),
      void refresh(queryClient, 'forms'),
      void navigate(`/gather/forms/${id}`)
    ),
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => (event.preventDefault(), make.mutate())}
    >
      <Labelled label={t`Name`} hint={t`Also its title, until you change that`}>
        <input
          className="input"
          required
          autoFocus
          maxLength={120}
          value={name}
          onChange={(event) => draft.set({ name: event.target.value, listId })}
        />
      </Labelled>
      <Labelled label={t`Offered with the public list`} hint={t`Lists that may be joined by a form`}>
        <select
          className="input"
          value={listId}
          onChange={(event) => draft.set({ name, listId: event.target.value })}
        >
          <option value="">{t`none: for news`}</option>
          {lists.data
            ?.filter((list) => list.byForm)
            .map((list) => (
              <option key={list.id} value={list.id}>
                {list.name}
              </option>
            ))}
        </select>
      </Labelled>
      <ProblemNote error={make.error} />
      <Button type="submit" weight="main" className="self-start" disabled={make.isPending}>
        {t`Make it`}
      </Button>
    </form>
  );
}
