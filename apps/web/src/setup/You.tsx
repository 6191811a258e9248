import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Profile } from '@goodword/core/contract';
import { ProblemError, api } from '../app/api';
import { useDrafting } from '../app/drafting';
import { useFormat } from '../app/format';
import { refresh } from '../app/refresh';
import { Button, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { useMargin } from '../ui/margin';
import { Unsaved } from '../ui/Unsaved';
import { SetupNav } from './SetupNav';
import { SignaturePicture } from './SignaturePicture';
import { keyOf, reading } from '../app/reading';

/** As they are typed in a message, in every language of the program. */
const MERGED = ['name', 'title', 'mobile', 'email', 'signature']
  .map((part) => `{Sender: ${part}}`)
  .join(', ');

/** Oneself: what people read of the sender, the password, and where one is signed in. */
export default function You() {
  const { data, error } = useQuery(reading('me'));
  useMargin([
    {
      key: 'where',
      tone: 'plain',
      title: t`Where it is read`,
      body: t`Messages that go out as you merge these by ${MERGED}.`,
    },
  ]);
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`your profile`} />;
  return (
    <>
      <Heading title={t`Setup`} page={t`You`} note={t`You`} />
      <SetupNav />
      <div className="grid grid-cols-[1fr_1fr] gap-4 items-start overflow-y-auto">
        <ProfileForm profile={data} />
        <div className="flex flex-col gap-4">
          <PasswordForm />
          <SessionList />
        </div>
      </div>
    </>
  );
}

function ProfileForm({ profile }: { profile: Profile }) {
  const queryClient = useQueryClient();
  const draft = useDrafting<Profile, Profile>('me', { value: profile, version: profile });
  const own = draft.value;
  const save = useMutation({
    mutationFn: (sent: Profile) => {
      const { email: _email, ...said } = sent;
      const { email: _same, ...was } = draft.basedOn;
      return api.put('me', { body: { ...said, was } });
    },
    onError: () => refresh(queryClient, 'me'),
    onSuccess: async (_done, sent) => {
      await refresh(queryClient, 'me');
      draft.saved(sent);
    },
  });
  const fault = (field: string) =>
    (save.error instanceof ProblemError ? save.error.of(field) : undefined) ?? null;
  const line = (part: 'name' | 'title' | 'mobile' | 'answersTo', label: string, hint?: string) => (
    <Labelled label={label} hint={hint} fault={fault(part)}>
      <input
        className="input"
        maxLength={254}
        value={own[part]}
        onChange={(event) => draft.set({ ...own, [part]: event.target.value })}
      />
    </Labelled>
  );
  return (
    <form
      className="sheet p-5 flex flex-col gap-3"
      onSubmit={(event) => (event.preventDefault(), save.mutate(own))}
    >
      <h2 className="subtitle">{t`What people read of you`}</h2>
      {line('name', t`Name`)}
      {line('title', t`Title`, t`Ferry keeper, Treasurer, …`)}
      {line('mobile', t`Mobile`)}
      {line('answersTo', t`Address for answers`, t`Empty for ${profile.email}, with which you sign in`)}
      <Labelled label={t`Signature`} fault={fault('signature')}>
        <textarea
          className="input"
          rows={3}
          maxLength={500}
          value={own.signature}
          onChange={(event) => draft.set({ ...own, signature: event.target.value })}
        />
      </Labelled>
      <SignaturePicture
        pictureId={own.pictureId}
        onChange={(pictureId) => draft.set({ ...own, pictureId })}
      />
      <Unsaved draft={draft} what={t`your profile`} />
      {save.error !== null && !(save.error instanceof ProblemError && save.error.problem.faults?.length) && (
        <ProblemNote error={save.error} />
      )}
      <Button
        weight="main"
        type="submit"
        className="self-start"
        disabled={!draft.isChanged || draft.theirs !== null || save.isPending}
      >
        {t`Save`}
      </Button>
    </form>
  );
}

function PasswordForm() {
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  const queryClient = useQueryClient();
  const save = useMutation({
    mutationFn: () => api.put('me/password', { body: { current, password } }),
    onSuccess: async () => {
      setCurrent('');
      setPassword('');
      await queryClient.invalidateQueries({ queryKey: keyOf('me/sessions') });
    },
  });
  const fault = (field: string) =>
    (save.error instanceof ProblemError ? save.error.of(field) : undefined) ?? null;
  return (
    <form
      className="sheet p-5 flex flex-col gap-3"
      onSubmit={(event) => (event.preventDefault(), save.mutate())}
    >
      <h2 className="subtitle">{t`Password`}</h2>
      <Labelled label={t`Current password`} fault={fault('current')}>
        <input
          className="input"
          type="password"
          autoComplete="current-password"
          value={current}
          onChange={(event) => setCurrent(event.target.value)}
        />
      </Labelled>
      <Labelled
        label={t`New password`}
        hint={t`Four words that have nothing to do with each other do well`}
        fault={fault('password')}
      >
        <input
          className="input"
          type="password"
          autoComplete="new-password"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
      </Labelled>
      {save.error !== null && !(save.error instanceof ProblemError && save.error.problem.faults?.length) && (
        <ProblemNote error={save.error} />
      )}
      {save.isSuccess && (
        <p role="status">{t`Changed. Wherever else you were signed in, you are not any more.`}</p>
      )}
      <Button
        type="submit"
        className="self-start"
        disabled={current === '' || password === '' || save.isPending}
      >
        {t`Change the password`}
      </Button>
    </form>
  );
}

function SessionList() {
  const format = useFormat();
  const queryClient = useQueryClient();
  const { data } = useQuery(reading('me/sessions'));
  const end = useMutation({
    mutationFn: (id: number | 'others') =>
      id === 'others' ? api.delete('me/sessions') : api.delete('me/sessions/{id}', { id }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: keyOf('me/sessions') }),
  });
  const all = data ?? [];
  return (
    <section className="sheet p-5 flex flex-col gap-2" aria-label={t`Where you are signed in`}>
      <h2 className="subtitle">{t`Where you are signed in`}</h2>
      <ul>
        {all.map((one) => (
          <li key={one.id} className="flex items-center gap-3 py-2 border-b border-hair last:border-0">
            <div className="grow">
              <p className="font-semibold">
                {one.browser}
                {one.isThis && t`, here`}
              </p>
              <p className="text-ink2 text-[13px]">
                <Trans>
                  From {one.network}, since {format.moment(one.since)}, last used {format.moment(one.usedAt)}
                </Trans>
              </p>
            </div>
            {!one.isThis && <Button onClick={() => end.mutate(one.id)}>{t`End it`}</Button>}
          </li>
        ))}
      </ul>
      <ProblemNote error={end.error} />
      {all.length > 1 && (
        <Button className="self-start" onClick={() => end.mutate('others')}>
          {t`End all but this one`}
        </Button>
      )}
    </section>
  );
}
