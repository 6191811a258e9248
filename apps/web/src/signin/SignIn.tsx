import { t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, Navigate, useNavigate, useSearchParams } from 'react-router';
import { api } from '../app/api';
import { forgetAll } from '../app/keeping';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { Card } from './Card';
import { reading } from '../app/reading';

export default function SignIn() {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const [params] = useSearchParams();
  // In this view alone: a password is in no draft.
  const [typed, setTyped] = useState({ email: '', password: '' });
  const { data: beginning } = useQuery({ ...reading('beginning'), retry: false });
  const signIn = useMutation({
    mutationFn: () => api.post('session', { body: typed }),
    onSuccess: () => {
      queryClient.clear();
      const to = params.get('to') ?? '/';
      forgetAll();
      // Only ever a page of ours.
      void navigate(/^\/(?!\/)/.test(to) ? to : '/');
    },
  });
  const busy = signIn.isPending || signIn.isSuccess;
  if (beginning?.open) return <Navigate to="/begin" replace />;
  return (
    <Card
      title={t`Good Word`}
      note={t`Personal words, to people who asked for them.`}
      onSubmit={() => signIn.mutate()}
    >
      <ProblemNote error={signIn.error} />
      <Labelled label={t`Email`}>
        <input
          className="input"
          type="email"
          autoComplete="username"
          autoFocus
          required
          value={typed.email}
          onChange={(event) => setTyped({ ...typed, email: event.target.value })}
        />
      </Labelled>
      <Labelled label={t`Password`}>
        <input
          className="input"
          type="password"
          autoComplete="current-password"
          required
          value={typed.password}
          onChange={(event) => setTyped({ ...typed, password: event.target.value })}
        />
      </Labelled>
      <Button type="submit" weight="main" disabled={busy} className="justify-center">
        {busy ? t`Signing in…` : t`Sign in`}
      </Button>
      <Link to="/forgotten" className="underline underline-offset-4 self-start">
        {t`I forgot my password`}
      </Link>
    </Card>
  );
}
