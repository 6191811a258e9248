import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api } from '../app/api';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, ProblemNote } from '../ui/basics';

/** Keeps the words of a message to be used again; the message stays as it is. */
export function KeepAsTemplate({ id, name }: { id: number; name: string }) {
  const may = useMay('writer');
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const keep = useMutation({
    mutationFn: async () => {
      const { channel, purpose, listId } = await api.get('messages/{id}', { id });
      const about = { name, channel, purpose, listId, folder: '', note: '' };
      return api.post('templates', { body: { ...about, from: { messageId: id } } });
    },
    onSuccess: (made) => (refresh(queryClient, 'templates'), void navigate(`/write/templates/${made.id}`)),
  });
  if (!may) return null;
  return (
    <>
      <Button
        once
        disabled={keep.isPending}
        onClick={() => keep.mutate()}
        aria-label={t`Keep the words of ${name} as a template`}
      >
        {t`Keep as template`}
      </Button>
      <ProblemNote error={keep.error} />
    </>
  );
}
