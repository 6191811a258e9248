import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../../app/api';
import { refresh } from '../../app/refresh';
import { Button, Labelled, ProblemNote } from '../../ui/basics';

/** A tag or list made where it is needed; what one was doing goes on with it. */
export function NewGroup({ kind, onMade }: { kind: 'tag' | 'list'; onMade: (id: number) => void }) {
  const queryClient = useQueryClient();
  const [name, setName] = useState('');
  const make = useMutation({
    mutationFn: () =>
      kind === 'tag'
        ? api.post('tags', { body: { name: name.trim() } })
        : api.post('lists', {
            body: { name: name.trim(), isPublic: false, description: '', why: '', folder: '' },
          }),
    onSuccess: async ({ id }) => {
      await refresh(queryClient, 'lists', 'tags');
      setName('');
      onMade(id);
    },
  });
  const ready = name.trim() !== '' && !make.isPending;
  return (
    <Labelled label={t`Or a new ${kind}`}>
      <div className="flex gap-2">
        <input
          className="input"
          maxLength={120}
          placeholder={t`Its name`}
          value={name}
          onChange={(event) => setName(event.target.value)}
          // Enter makes it, and does not begin the act that it is for.
          onKeyDown={(event) => event.key === 'Enter' && (event.preventDefault(), ready && make.mutate())}
        />
        <Button disabled={!ready} onClick={() => make.mutate()}>
          {t`Make it`}
        </Button>
      </div>
      <ProblemNote error={make.error} />
    </Labelled>
  );
}
