import { useQuery } from '@tanstack/react-query';
import type { ComparisonView, MessageView } from '@goodword/core/contract';
import { isHandedOver } from '@goodword/core/permission';
import { reading } from '../app/reading';

/** Where wordings can be compared: in an email or a text to a group, which leaves as one. */
export const isComparable = ({ channel, campaignId, automationId }: MessageView): boolean =>
  isHandedOver(channel) && campaignId === null && automationId === null;

/** What marks that how they are compared is being saved: a look that was taken before holds no more. */
export const savingComparison = (id: number) => ['saving-comparison', id] as const;

/** The wordings of a message; undefined while they are read, and where there is one alone. */
export function useComparison(id: number, often: number | false = false): ComparisonView | undefined {
  const { data } = useQuery({
    ...reading('messages/{id}/comparison', { id }),
    refetchInterval: ({ state }) => (state.data && state.data.wordings.length > 1 ? often : false),
  });
  return data && data.wordings.length > 1 ? data : undefined;
}
