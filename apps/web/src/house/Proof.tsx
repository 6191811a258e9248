import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';
import { Button, Heading, Labelled, ProblemNote } from '../ui/basics';
import { HouseNav } from './HouseNav';

/**
 * What shows anyone who asks why somebody was written to: their file, found by an address, and the log of
 * every no.
 */
export default function Proof() {
  const owner = useMay('owner');
  return (
    <>
      <Heading
        title={t`House rules`}
        page={t`Proof`}
        note={t`For whoever asks why somebody was written to, or whether a no was obeyed`}
      />
      <HouseNav />
      <div
        className="grow overflow-y-auto flex flex-col gap-4"
        tabIndex={0}
        role="region"
        aria-label={t`Proof`}
      >
        {owner && <ByAddress />}
        <section className="sheet p-5">
          <h2 className="font-semibold text-[16px]">{t`Everybody who said no`}</h2>
          <p className="my-2 max-w-[62ch]">
            <Trans>
              One row for each time: when it reached us, when it was read, from when the address was on hold,
              when it was acted on, and how many seconds lay between.
            </Trans>
          </p>
          <a className="link" href="/api/permission/revocations.csv">
            {t`Download it as CSV`}
          </a>
        </section>
      </div>
    </>
  );
}

function ByAddress() {
  const format = useFormat();
  const [address, setAddress] = useState('');
  const find = useMutation({
    mutationFn: () => api.get('permission/files', { address }),
  });
  return (
    <section className="sheet p-5">
      <h2 className="font-semibold text-[16px]">{t`One person’s file`}</h2>
      <form
        className="flex items-end gap-2 my-2 max-w-[520px]"
        onSubmit={(event) => (event.preventDefault(), find.mutate())}
      >
        <Labelled label={t`Their address or number`}>
          <input
            className="input w-[340px] max-w-full"
            value={address}
            maxLength={254}
            onChange={(event) => setAddress(event.target.value)}
          />
        </Labelled>
        <Button type="submit" weight="main" disabled={address.trim().length < 3 || find.isPending}>
          {t`Find`}
        </Button>
      </form>
      <p className="text-ink2 mb-2">{t`Also one that was taken off, and of people who were erased.`}</p>
      <ProblemNote error={find.error} />
      {find.data?.length === 0 && <p role="status">{t`Nothing was ever kept under this address.`}</p>}
      <ul>
        {find.data?.map((one) => (
          <li key={one.id} className="py-1.5 border-t border-hair flex gap-4">
            {one.erasedAt ? (
              <span>
                <Trans>
                  Supporter {one.id}, erased {format.day(one.erasedAt)}
                </Trans>
              </span>
            ) : (
              <Link className="link" to={`/sort/supporters/${one.id}`}>
                {one.name}
              </Link>
            )}
            <span className="text-ink2">{one.erasedAt || one.current ? '' : t`had this address before`}</span>
            <a
              className="link ml-auto"
              href={`/api/supporters/${one.id}/permission.html`}
              target="_blank"
              rel="noreferrer"
            >
              {t`Read and print`}
            </a>
            <a className="link" href={`/api/supporters/${one.id}/permission.pdf`}>
              {t`PDF`}
            </a>
            <a className="link" href={`/api/supporters/${one.id}/permission.json`}>
              {t`JSON`}
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}
