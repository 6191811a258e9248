import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../app/api';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { Card } from './Card';

/** Has a link sent; whether somebody works here with the address is not told. */
export default function Forgotten() {
  const [email, setEmail] = useState('');
  const ask = useMutation({ mutationFn: () => api.post('password/forgotten', { body: { email } }) });
  return (
    <Card
      title={t`A new password`}
      note={t`A link comes by mail. It works once, for one hour.`}
      onSubmit={() => ask.mutate()}
    >
      <ProblemNote error={ask.error} />
      {ask.isSuccess ? (
        <p role="status">
          <Trans>
            If somebody works here with <b>{email}</b>, a mail is on its way. Look into the spam folder too;
            at most three go within an hour.
          </Trans>
        </p>
      ) : (
        <>
          <Labelled label={t`Email`}>
            <input
              className="input"
              type="email"
              autoComplete="username"
              autoFocus
              required
              value={email}
              onChange={(event) => setEmail(event.target.value)}
            />
          </Labelled>
          <Button type="submit" weight="main" disabled={ask.isPending} className="justify-center">
            {t`Send me a link`}
          </Button>
        </>
      )}
      <Link to="/sign-in" className="underline underline-offset-4 self-start">
        {t`Back to signing in`}
      </Link>
    </Card>
  );
}
