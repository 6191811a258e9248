import { reading } from '../../app/reading';
import { useQuery } from '@tanstack/react-query';
import type { BatchView, CampaignView, FieldView, MessageView, SegmentView } from '@goodword/core/contract';
import type { Line } from '@goodword/core/segment';
import type { ComponentType } from 'react';

import { useLists, useTags, type ListName, type TagName } from '../../app/groups';
import { useSession } from '../../app/session';

/** What lines can speak of. */
export interface Subjects {
  fields: FieldView[];
  tags: TagName[];
  lists: ListName[];
  batches: BatchView[];
  campaigns: CampaignView[];
  chapters: { id: number; name: string }[];
  messages: MessageView[];
  segments: SegmentView[];
}

export interface LineProps<L extends Line> {
  line: L;
  subjects: Subjects;
  onChange: (line: Line) => void;
}

/** How a line of one kind is read and changed: its words that open, and how one begins. */
export interface LineEditor<L extends Line> {
  Words: ComponentType<LineProps<L>>;
  /** What it is called where one is added. */
  offer: string;
  /** A line to begin with; nothing where there is nothing to speak of. */
  begin(subjects: Subjects): L | undefined;
}

/** Things to choose from, by their names. */
export const byId = (rows: readonly { id: number; name: string }[]) =>
  rows.map((row) => [row.id, row.name] as const);

/**
 * Everything that a line can speak of, once all of it is there; without the segment that is being edited
 * itself.
 */
export function useSubjects(editing: number | null): Subjects | null {
  const { chapters } = useSession();
  const [fields, tags, lists, batches] = [
    useQuery(reading('fields')).data,
    useTags().data,
    useLists().data,
    useQuery(reading('batches')).data,
  ];
  const [campaigns, messages, segments] = [
    useQuery(reading('campaigns')).data,
    useQuery(reading('messages')).data,
    useQuery(reading('segments')).data,
  ];
  if (!fields || !tags || !lists || !batches || !campaigns || !messages || !segments) return null;
  return {
    fields,
    tags,
    lists,
    batches,
    campaigns,
    chapters,
    messages,
    segments: segments.filter((segment) => segment.id !== editing),
  };
}
