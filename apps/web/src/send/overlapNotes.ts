import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useFormat } from '../app/format';
import { anew, reading } from '../app/reading';
import type { Note } from '../ui/margin';

/** Who of those that were found also gets another message that is planned; nothing is held back for it. */
export function useOverlapNotes(id: number, lookedAt: number | null): Note[] {
  const format = useFormat();
  const { data = [] } = useQuery({
    ...anew(reading('messages/{id}/last-look/overlap', { id }), lookedAt ?? 0),
    enabled: lookedAt !== null,
  });
  return data.map(({ messageId, name, people, at }) => ({
    ...{ key: `overlap-${messageId}`, tone: 'doubt' as const },
    title: plural(people, {
      one: `# of them also gets “${name}”`,
      other: `# of them also get “${name}”`,
    }),
    body: t`It leaves ${format.moment(at)}. Leave those out above who need not have both.`,
  }));
}
