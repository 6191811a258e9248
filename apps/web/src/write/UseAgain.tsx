import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api } from '../app/api';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, ProblemNote } from '../ui/basics';

/** A draft with the same words; who gets it is chosen anew. */
export function UseAgain({ id, name }: { id: number; name: string }) {
  const may = useMay('writer');
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const copy = useMutation({
    mutationFn: () => api.post('messages/{id}/copy', { id }),
    onSuccess: (made) => (refresh(queryClient, 'messages'), void navigate(`/write/${made.id}`)),
  });
  if (!may) return null;
  return (
    <>
      <Button
        once
        disabled={copy.isPending}
        onClick={() => copy.mutate()}
        aria-label={t`Use the words of ${name} again`}
      >
        {t`Use again`}
      </Button>
      <ProblemNote error={copy.error} />
    </>
  );
}
