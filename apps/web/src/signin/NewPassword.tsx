import { t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { LinkView } from '@goodword/core/contract';
import { ProblemError, api } from '../app/api';
import { forgetAll } from '../app/keeping';
import { Button, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Card } from './Card';
import { reading } from '../app/reading';

/** Where a link of ours leads: whoever was invited or forgot chooses a password, and is in. */
export default function NewPassword() {
  const token = useParams().token ?? '';
  const { data, error } = useQuery({
    ...reading('password/{token}', { token }),
    retry: false,
    staleTime: Infinity,
  });
  if (error)
    return (
      <Card title={t`Good Word`} note="" onSubmit={() => undefined}>
        <ProblemNote error={error} />
        <Link to="/forgotten" className="underline underline-offset-4 self-start">
          {t`Have a link sent`}
        </Link>
      </Card>
    );
  if (!data) return <Loading what={t`the link`} />;
  return <Choosing token={token} link={data} />;
}

function Choosing({ token, link }: { token: string; link: LinkView }) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const isInvitation = link.kind === 'invitation';
  const [name, setName] = useState(link.name);
  const [password, setPassword] = useState('');
  const use = useMutation({
    mutationFn: () =>
      api.post('password/{token}', { token, body: { password, name: isInvitation ? name : '' } }),
    onSuccess: () => {
      queryClient.clear();
      forgetAll();
      void navigate(isInvitation ? '/setup/you' : '/', { replace: true });
    },
  });
  const fault = (use.error instanceof ProblemError ? use.error.of('password') : undefined) ?? null;
  return (
    <Card
      title={isInvitation ? link.organization : t`A new password`}
      note={
        isInvitation
          ? t`You were invited to work here. Choose a password.`
          : t`Wherever else you are signed in, you will not be any more.`
      }
      onSubmit={() => use.mutate()}
    >
      {fault === null && <ProblemNote error={use.error} />}
      {/* For the browser's keeper of passwords. */}
      <Labelled label={t`Email`}>
        <input className="input" type="email" autoComplete="username" readOnly value={link.email} />
      </Labelled>
      {isInvitation && (
        <Labelled label={t`Name`}>
          <input
            className="input"
            autoComplete="name"
            required
            maxLength={120}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </Labelled>
      )}
      <Labelled
        label={t`New password`}
        hint={t`Four words that have nothing to do with each other do well`}
        fault={fault}
      >
        <input
          className="input"
          type="password"
          autoComplete="new-password"
          autoFocus
          required
          maxLength={200}
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
      </Labelled>
      <Button
        type="submit"
        weight="main"
        disabled={password === '' || use.isPending}
        className="justify-center"
      >
        {isInvitation ? t`Come in` : t`Set it and sign in`}
      </Button>
    </Card>
  );
}
