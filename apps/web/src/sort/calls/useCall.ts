import { keyOf } from '../../app/reading';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { CallListView, CallRow } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useDrafting } from '../../app/drafting';

export interface CallDraft {
  outcome: string | null;
  note: string;
  noMoreCalls: boolean;
}

const answerOf = ({ outcome, note }: CallRow): CallDraft => ({ outcome, note, noMoreCalls: false });

/**
 * What came of one call: kept in the browser until it is saved. Where somebody else on the same list was
 * quicker, what they wrote is fetched, and both are there to choose from.
 */
export function useCall(list: CallListView, row: CallRow, onSaved: () => void) {
  const queryClient = useQueryClient();
  const [server, setServer] = useState(() => answerOf(row));
  const draft = useDrafting<CallDraft, CallDraft>(`call:${list.id}:${row.position}`, {
    value: server,
    version: server,
  });
  const save = useMutation({
    mutationFn: (sent: CallDraft) => {
      const { outcome, note } = draft.basedOn;
      return api.put('calls/{id}/people/{position}', {
        id: list.id,
        position: row.position,
        body: {
          ...sent,
          was: { outcome, note },
        },
      });
    },
    onSuccess: (saved, sent) => {
      setServer(answerOf(saved));
      draft.saved(sent);
      void queryClient.invalidateQueries({ queryKey: keyOf('calls/{id}', { id: list.id }) });
      onSaved();
    },
    onError: async () => {
      const at = { id: list.id, after: row.position - 1, limit: 1, who: 'all' } as const;
      // Where the server is away, what was said of that stands, and what was typed stays.
      const found = await api.get('calls/{id}/people', at).catch(() => null);
      const now = found?.rows[0];
      if (now?.position === row.position) setServer(answerOf(now));
    },
  });
  return { server, draft, save };
}
