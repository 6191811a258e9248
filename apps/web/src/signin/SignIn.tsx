import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { useNavigate, useSearchParams } from 'react-router';
import { call } from '../app/api';
import { forgetAll } from '../app/keeping';
import { Button, Labelled, Problem } from '../ui/basics';

export default function SignIn() {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const [params] = useSearchParams();
  const [error, setError] = useState<unknown>(null);
  const { register, handleSubmit, formState } = useForm({ defaultValues: { email: '', password: '' } });
  const submit = handleSubmit(async (values) => {
    setError(null);
    try {
      await call('POST', 'session', values);
      queryClient.clear();
      const to = params.get('to') ?? '/';
      // Only ever a page of ours.
      forgetAll();
      void navigate(/^\/(?!\/)/.test(to) ? to : '/');
    } catch (problem) {
      setError(problem);
    }
  });
  return (
    <main className="min-h-full grid place-items-center p-6">
      <form onSubmit={(event) => void submit(event)} className="sheet w-[380px] p-7 flex flex-col gap-4">
        <div>
          <h1 className="title">Good Word</h1>
          <p className="text-ink2">Personal words, to people who asked for them.</p>
        </div>
        <Problem error={error} />
        <Labelled label="Email">
          <input className="input" type="email" autoComplete="username" autoFocus required {...register('email')} />
        </Labelled>
        <Labelled label="Password">
          <input className="input" type="password" autoComplete="current-password" required {...register('password')} />
        </Labelled>
        <Button type="submit" weight="main" disabled={formState.isSubmitting} className="justify-center">
          Sign in
        </Button>
      </form>
    </main>
  );
}
