import { t } from '@lingui/core/macro';
import type { ThreadItem, ThreadView } from '@goodword/core/contract';
import { concernsIn, type Concern, type ConcernKind } from '@goodword/core/text';
import type { Note } from '../ui/margin';

/** Where in the thread a sentence stands that the Margin speaks of. */
export const concernAnchor = (replyId: number, kind: ConcernKind) => `said-${replyId}-${kind}`;

/** What words of theirs seem to ask for, and where they stand. */
export interface FoundConcern extends Concern {
  item: ThreadItem;
  said: string;
}

/** What the open replies of a thread seem to ask for: of each kind the newest. */
export function concernsOf({ items, open }: Pick<ThreadView, 'items' | 'open'>): FoundConcern[] {
  const words = items.filter(({ kind, keyword }) => kind === 'in' && keyword === 'none');
  const found = new Map<ConcernKind, FoundConcern>();
  // What is done has been seen to; of a thread that is done nothing is asked.
  for (const item of open === 0 ? [] : words.slice(-open))
    for (const concern of concernsIn(item.words))
      found.set(concern.kind, { ...concern, item, said: item.words.slice(concern.from, concern.to) });
  return [...found.values()];
}

const TITLES: Record<ConcernKind, string> = {
  leaving: t`This reads like leaving`,
  address: t`This reads like a new address`,
  gift: t`This reads like a gift`,
  complaint: t`This reads like a complaint`,
};

/** What a note offers to do. */
export function actWords({ kind, named, item }: FoundConcern): string {
  switch (kind) {
    case 'leaving':
      return item.channel === 'text' ? t`Opt them out of texts` : t`Opt them out of email`;
    case 'address':
      return named === null ? t`Change their addresses` : t`Add ${named}`;
    case 'gift':
      return named === null ? t`Enter the gift` : t`Enter ${named}`;
    case 'complaint':
      return t`Write it down as a complaint`;
  }
}

/** A note for each in the Margin; its number is the key that does it. */
export function concernNotes(
  concerns: readonly FoundConcern[],
  act: ((concern: FoundConcern) => void) | null,
): Note[] {
  return concerns.map((concern, i) => {
    const nth = i + 1;
    const words = actWords(concern);
    return {
      key: `concern-${concern.kind}`,
      tone: 'doubt',
      title: TITLES[concern.kind],
      body: t`“${concern.said}”`,
      anchor: concernAnchor(concern.item.id, concern.kind),
      ...(act ? { remedy: { words: t`${words} (key ${nth})`, act: () => act(concern) } } : {}),
    };
  });
}
