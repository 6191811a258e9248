import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ThreadView } from '@goodword/core/contract';
import { reading } from '../app/reading';
import { concernsOf, type FoundConcern } from './concernNotes';

/** What a thread asks for, without what a person has seen to. */
export function useConcerns(thread: ThreadView): {
  concerns: FoundConcern[];
  see: (one: FoundConcern) => void;
} {
  const { supporterId, channel } = thread;
  const [seen, setSeen] = useState<readonly string[]>([]);
  const record = useQuery({
    ...reading('supporters/{id}', { id: supporterId ?? 0 }),
    enabled: supporterId !== null,
  });
  const hasLeft = record.data?.consent.some(
    (one) => one.channel === channel && one.scope === 'all' && one.state === 'no',
  );
  const concerns = concernsOf(thread).filter((one) => {
    if (seen.includes(keyOfConcern(one))) return false;
    // Of a number that is nobody's nothing can be kept.
    return one.kind === 'leaving' ? !hasLeft : supporterId !== null;
  });
  return { concerns, see: (one) => setSeen([...seen, keyOfConcern(one)]) };
}

const keyOfConcern = ({ item, kind }: FoundConcern) => `${item.id}:${kind}`;
