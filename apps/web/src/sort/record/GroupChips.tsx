import type { UseMutationResult, UseQueryResult } from '@tanstack/react-query';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus, Tag, X } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import type { CampaignView, RecordView } from '@goodword/core/contract';
import { api } from '../../app/api';
import { useFormat } from '../../app/format';
import { useMay } from '../../app/session';
import { refresh } from '../../app/refresh';
import { useLists, useTags } from '../../app/groups';
import { reading } from '../../app/reading';

const CHIP = 'inline-flex items-center gap-1 sheet px-2 py-[3px] text-[12.5px]';
const ITEM = 'px-3 py-[6px] rounded-[3px] outline-none data-[highlighted]:bg-bench cursor-pointer';

/** On a roster: where they stand, to be moved from here or taken off. */
function RosterChip({ record, roster }: { record: RecordView; roster: RecordView['rosters'][number] }) {
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const group = { ids: [record.id] };
  const change = useMutation({
    mutationFn: (stage: string | null) =>
      stage === null
        ? api.post('campaigns/{id}/roster/off', { id: roster.id, body: { group } })
        : api.put('campaigns/{id}/roster', { id: roster.id, body: { group, stage } }),
    onSuccess: () => refresh(queryClient, 'supporters', 'campaigns'),
  });
  const words = t`Roster: ${roster.name}, ${roster.stage}`;
  if (!may) return <span className={CHIP}>{words}</span>;
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={`${CHIP} hover:underline`} aria-label={t`${words}. Move or remove`}>
        {words}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="sheet p-1 z-20" align="start">
          {roster.stages
            .filter((one) => one !== roster.stage)
            .map((one) => (
              <DropdownMenu.Item key={one} className={ITEM} onSelect={() => change.mutate(one)}>
                <Trans>Move to “{one}”</Trans>
              </DropdownMenu.Item>
            ))}
          <DropdownMenu.Separator className="h-px bg-hair my-1" />
          <DropdownMenu.Item className={ITEM} asChild>
            <Link to={`/sort/campaigns/${roster.id}`}>{t`Open the campaign`}</Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => change.mutate(null)}>
            {t`Remove from the roster`}
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Tags, lists, rosters and segments of one person; all but the last can be put on and taken off here. */
function putOn(id: number, kind: 'tags' | 'lists', groupId: number, on: boolean): Promise<void> {
  if (kind === 'tags') {
    const at = { id, tagId: groupId };
    return on ? api.put('supporters/{id}/tags/{tagId}', at) : api.delete('supporters/{id}/tags/{tagId}', at);
  }
  const at = { id, listId: groupId };
  return on
    ? api.put('supporters/{id}/lists/{listId}', at)
    : api.delete('supporters/{id}/lists/{listId}', at);
}

function AddToGroup({
  record,
  change,
  campaigns,
  put,
}: {
  record: RecordView;
  change: UseMutationResult<
    void,
    Error,
    { method: 'PUT' | 'DELETE'; kind: 'tags' | 'lists'; id: number },
    unknown
  >;
  campaigns: UseQueryResult<CampaignView[], Error>;
  put: UseMutationResult<{ people: number }, Error, CampaignView, unknown>;
}) {
  const tags = useTags();
  const lists = useLists();
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="inline-flex items-center gap-1 rounded-paper border border-dashed border-[#8b989d] px-2 text-[12.5px] font-semibold">
        <Plus size={12} /> {t`Add to`}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="sheet p-1 max-h-[380px] overflow-y-auto z-20" align="start">
          <DropdownMenu.Label className="px-3 py-1 text-ink2 text-[12.5px]">{t`Tags`}</DropdownMenu.Label>
          {tags.data
            ?.filter((tag) => !record.tags.some((one) => one.id === tag.id))
            .map((tag) => (
              <DropdownMenu.Item
                key={tag.id}
                className={ITEM}
                onSelect={() => change.mutate({ method: 'PUT', kind: 'tags', id: tag.id })}
              >
                {tag.name}
              </DropdownMenu.Item>
            ))}
          <DropdownMenu.Label className="px-3 py-1 text-ink2 text-[12.5px]">{t`Lists`}</DropdownMenu.Label>
          {lists.data
            ?.filter((list) => !record.lists.some((one) => one.id === list.id))
            .map((list) => (
              <DropdownMenu.Item
                key={list.id}
                className={ITEM}
                onSelect={() => change.mutate({ method: 'PUT', kind: 'lists', id: list.id })}
              >
                {list.name}
              </DropdownMenu.Item>
            ))}
          <DropdownMenu.Label className="px-3 py-1 text-ink2 text-[12.5px]">{t`Rosters`}</DropdownMenu.Label>
          {campaigns.data
            ?.filter(
              (campaign) =>
                campaign.isOpen &&
                campaign.stages.length > 0 &&
                !record.rosters.some((one) => one.id === campaign.id),
            )
            .map((campaign) => (
              <DropdownMenu.Item key={campaign.id} className={ITEM} onSelect={() => put.mutate(campaign)}>
                {campaign.name}, {campaign.stages[0]}
              </DropdownMenu.Item>
            ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

export function GroupChips({ record }: { record: RecordView }) {
  const may = useMay('organizer');
  const format = useFormat();
  const queryClient = useQueryClient();
  const campaigns = useQuery({ ...reading('campaigns'), enabled: may });
  const put = useMutation({
    mutationFn: ({ id, stages }: CampaignView) =>
      api.put('campaigns/{id}/roster', { id, body: { group: { ids: [record.id] }, stage: stages[0]! } }),
    onSuccess: () => refresh(queryClient, 'supporters', 'campaigns'),
  });
  const change = useMutation({
    mutationFn: ({ method, kind, id }: { method: 'PUT' | 'DELETE'; kind: 'tags' | 'lists'; id: number }) =>
      putOn(record.id, kind, id, method === 'PUT'),
    onSuccess: () => refresh(queryClient, 'supporters', 'campaigns'),
  });
  const off = (kind: 'tags' | 'lists', id: number, words: string) =>
    may && (
      <button
        aria-label={t`Remove ${words}`}
        className="text-ink3 hover:text-madder"
        onClick={() => change.mutate({ method: 'DELETE', kind, id })}
      >
        <X size={12} />
      </button>
    );
  return (
    <div className="flex flex-wrap gap-[7px] pb-4">
      {record.tags.map((tag) => (
        <span key={tag.id} className={CHIP} title={t`Added ${tag.how}, ${format.day(tag.since)}`}>
          <Tag size={11} className="text-verdigris" aria-label={t`Tag`} /> {tag.name}{' '}
          {off('tags', tag.id, tag.name)}
        </span>
      ))}
      {record.lists.map((list) => (
        <span key={list.id} className={CHIP} title={t`Added ${list.how}, ${format.day(list.since)}`}>
          <Trans>
            List: {list.name} {off('lists', list.id, list.name)}
          </Trans>
        </span>
      ))}
      {record.rosters.map((roster) => (
        <RosterChip key={roster.id} record={record} roster={roster} />
      ))}
      {record.segments.map((segment) => (
        <Link key={segment.id} className={`${CHIP} hover:underline`} to={`/sort/segments/${segment.id}`}>
          <Trans>Segment: {segment.name}</Trans>
        </Link>
      ))}
      {may && <AddToGroup record={record} change={change} campaigns={campaigns} put={put} />}
    </div>
  );
}
