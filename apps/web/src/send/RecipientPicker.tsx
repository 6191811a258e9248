import { useQuery } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { BatchView, GroupKind, GroupRef, Page, Recipients, SegmentView, SupporterRow } from '@goodword/core/contract';
import { useState } from 'react';
import { get, query } from '../app/api';
import { useLists, useTags } from '../app/groups';
import { Button } from '../ui/basics';
import { personName } from '../ui/people';

const ITEM = 'px-3 py-[5px] rounded-[3px] outline-none data-[highlighted]:bg-bench cursor-pointer';
const CHIP = 'inline-flex items-center gap-1 bg-bench rounded-paper px-2 py-[2px] font-semibold';

export type Named = Record<Offered, { id: number; name: string }[]>;
/** Single people are written to from their record. */
type Offered = Exclude<GroupKind, 'person'>;

export function useGroups(): Named | null {
  const segments = useQuery({ queryKey: ['segments'], queryFn: () => get<SegmentView[]>('segments') });
  const lists = useLists();
  const tags = useTags();
  const batches = useQuery({ queryKey: ['batches'], queryFn: () => get<BatchView[]>('batches') });
  if (!segments.data || !lists.data || !tags.data || !batches.data) return null;
  return { segment: segments.data, list: lists.data, tag: tags.data, batch: batches.data.filter((batch) => batch.state === 'done') };
}

/** "Ferry news or Menders, but not Board notes; 2 people struck out". */
export function groupWords({ from, minus, without }: Recipients, groups: Named): string {
  const nameOf = (ref: GroupRef) =>
    ref.kind === 'person' ? 'one person' : (groups[ref.kind].find(({ id }) => id === ref.id)?.name ?? 'a group since deleted');
  const parts = [from.map(nameOf).join(' or ') || 'nobody', ...(minus.length > 0 ? [`but not ${minus.map(nameOf).join(' or ')}`] : [])];
  return `${parts.join(', ')}${without.length > 0 ? `; ${without.length} struck out by name` : ''}`;
}

const KIND_WORDS: Record<Offered, string> = { segment: 'Segments', list: 'Lists', tag: 'Tags', batch: 'Batches' };

function Refs({ label, refs, groups, onChange }: { label: string; refs: GroupRef[]; groups: Named; onChange: (refs: GroupRef[]) => void }) {
  const nameOf = (ref: GroupRef) =>
    (ref.kind === 'person' ? [] : groups[ref.kind]).find((group) => group.id === ref.id)?.name ?? 'a group since deleted';
  const has = (kind: GroupKind, id: number) => refs.some((ref) => ref.kind === kind && ref.id === id);
  return (
    <span className="inline-flex flex-wrap gap-2 items-center">
      {refs.map((ref) => (
        <span key={`${ref.kind}${ref.id}`} className={CHIP}>
          {nameOf(ref)}
          <button aria-label={`Take out ${nameOf(ref)}`} className="hover:text-madder" onClick={() => onChange(refs.filter((one) => one !== ref))}>
            <X size={13} />
          </button>
        </span>
      ))}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="rounded-paper border border-dashed border-[#8b989d] px-2 py-[1px] font-semibold">
          {label}
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="sheet p-1 max-h-[400px] overflow-y-auto z-20" align="start">
            {(Object.keys(KIND_WORDS) as Offered[]).map((kind) => (
              <DropdownMenu.Group key={kind}>
                <DropdownMenu.Label className="px-3 pt-2 text-ink2 text-[12.5px]">{KIND_WORDS[kind]}</DropdownMenu.Label>
                {groups[kind]
                  .filter((group) => !has(kind, group.id))
                  .map((group) => (
                    <DropdownMenu.Item key={group.id} className={ITEM} onSelect={() => onChange([...refs, { kind, id: group.id }])}>
                      {group.name}
                    </DropdownMenu.Item>
                  ))}
                {groups[kind].length === 0 && <p className="px-3 text-ink3">none</p>}
              </DropdownMenu.Group>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </span>
  );
}

function Without({ value, onChange }: { value: number[]; onChange: (ids: number[]) => void }) {
  const [search, setSearch] = useState('');
  const [open, setOpen] = useState(false);
  const found = useQuery({
    queryKey: ['supporters', 'named', search],
    queryFn: () => get<Page<SupporterRow>>(`supporters${query({ search, limit: 6 })}`),
    enabled: search.length >= 2,
  });
  return (
    <span className="inline-flex flex-wrap gap-2 items-center">
      {value.map((id) => (
        <PersonChip key={id} id={id} onOff={() => onChange(value.filter((one) => one !== id))} />
      ))}
      {open ? (
        <span className="relative">
          <input
            className="input !w-[230px]"
            autoFocus
            aria-label="Find a person to strike out"
            placeholder="Name or email"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
            onKeyDown={(event) => event.key === 'Escape' && setOpen(false)}
          />
          {found.data && search.length >= 2 && (
            <span className="absolute left-0 top-full sheet p-1 z-20 flex flex-col w-[300px]">
              {found.data.rows.map((row) => (
                <button
                  key={row.id}
                  className={`${ITEM} text-left hover:bg-bench`}
                  onClick={() => (onChange([...new Set([...value, row.id])]), setSearch(''), setOpen(false))}
                >
                  {personName(row)} <span className="text-ink2">{row.email ?? row.mobile}</span>
                </button>
              ))}
              {found.data.rows.length === 0 && <span className="px-3 py-1 text-ink2">Nobody of that name</span>}
            </span>
          )}
        </span>
      ) : (
        <Button className="!min-h-[26px] !px-2 !border-dashed" onClick={() => setOpen(true)}>
          a person…
        </Button>
      )}
    </span>
  );
}

function PersonChip({ id, onOff }: { id: number; onOff: () => void }) {
  const { data } = useQuery({ queryKey: ['record', id], queryFn: () => get<{ firstName: string; lastName: string }>(`supporters/${id}`) });
  const name = data ? personName(data) : '…';
  return (
    <span className={CHIP}>
      {name}
      <button aria-label={`Let ${name} back in`} className="hover:text-madder" onClick={onOff}>
        <X size={13} />
      </button>
    </span>
  );
}

/** Who is in the group, as a sentence: any of these, minus those, minus single people. */
export function RecipientPicker({ value, groups, onChange }: { value: Recipients; groups: Named; onChange: (value: Recipients) => void }) {
  return (
    <div className="sheet px-5 py-3 text-[15px] leading-9 flex flex-wrap gap-x-2 items-center">
      <span>It goes to everybody in</span>
      <Refs
        label={value.from.length === 0 ? 'choose a group' : 'or in…'}
        refs={value.from}
        groups={groups}
        onChange={(from) => onChange({ ...value, from })}
      />
      <span>but not to those in</span>
      <Refs
        label={value.minus.length === 0 ? 'nobody' : 'or in…'}
        refs={value.minus}
        groups={groups}
        onChange={(minus) => onChange({ ...value, minus })}
      />
      <span>and not to</span>
      <Without value={value.without} onChange={(without) => onChange({ ...value, without })} />
    </div>
  );
}
