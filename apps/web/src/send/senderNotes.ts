import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { reading } from '../app/reading';
import { useMay } from '../app/session';
import type { Note } from '../ui/margin';

/** What is not right with as whom mail goes out, said before it does. */
export function useSenderNotes(isMail: boolean): Note[] {
  const navigate = useNavigate();
  const may = useMay('organizer');
  const { data } = useQuery({ ...reading('sender'), enabled: may && isMail });
  const wrong = data?.records.filter(({ what, fault }) => fault !== null && what !== 'dkim-next').length ?? 0;
  if (wrong === 0) return [];
  return [
    {
      key: 'sender',
      tone: 'doubt',
      title: plural(wrong, {
        one: 'A record of your sender is not right',
        other: '# records of your sender are not right',
      }),
      body: t`Mail may be refused or count as spam.`,
      remedy: { words: t`Look at the sender`, act: () => void navigate('/setup/sender') },
    },
  ];
}
