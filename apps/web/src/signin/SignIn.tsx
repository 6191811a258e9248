import { t } from '@lingui/core/macro';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
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
  const [error, setError] = useState<unknown>(null);
  const { register, handleSubmit, formState } = useForm({ defaultValues: { email: '', password: '' } });
  const { data: beginning } = useQuery({ ...reading('beginning'), retry: false });
  const submit = handleSubmit(async (values) => {
    setError(null);
    try {
      await api.post('session', { body: values });
      queryClient.clear();
      const to = params.get('to') ?? '/';
      // Only ever a page of ours.
      forgetAll();
      void navigate(/^\/(?!\/)/.test(to) ? to : '/');
    } catch (problem) {
      setError(problem);
    }
  });
  if (beginning?.open) return <Navigate to="/begin" replace />;
  return (
    <Card
      title={t`Good Word`}
      note={t`Personal words, to people who asked for them.`}
      onSubmit={() => void submit()}
    >
      <ProblemNote error={error} />
      <Labelled label={t`Email`}>
        <input
          className="input"
          type="email"
          autoComplete="username"
          autoFocus
          required
          {...register('email')}
        />
      </Labelled>
      <Labelled label={t`Password`}>
        <input
          className="input"
          type="password"
          autoComplete="current-password"
          required
          {...register('password')}
        />
      </Labelled>
      <Button type="submit" weight="main" disabled={formState.isSubmitting} className="justify-center">
        {formState.isSubmitting ? t`Signing in…` : t`Sign in`}
      </Button>
      <Link to="/forgotten" className="underline underline-offset-4 self-start">
        {t`I forgot my password`}
      </Link>
    </Card>
  );
}
