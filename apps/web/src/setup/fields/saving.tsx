import { useMutation, useQueryClient } from '@tanstack/react-query';
import { FIELD_TYPES, type FieldType } from '@goodword/core/fields';
import { FIELD_TYPE_WORDS } from '@goodword/core/words';
import { refresh } from '../../app/refresh';

export const TYPES = FIELD_TYPES.map((type) => [type, FIELD_TYPE_WORDS[type]] as const);

export function useSaved<V>(work: (values: V) => Promise<unknown>, onDone: (saved: V) => void) {
  const queryClient = useQueryClient();
  return useMutation({
    mutationFn: work,
    onSuccess: (_done, saved) => (void refresh(queryClient, 'fields', 'house'), onDone(saved)),
    onError: () => refresh(queryClient, 'fields', 'house'),
  });
}

export function Options({ type }: { type: FieldType }) {
  return TYPES.map(([one, words]) => (
    <option key={one} value={one} disabled={one === type}>
      {words}
    </option>
  ));
}
