import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { X } from 'lucide-react';
import type { GroupKind, GroupRef, MessageGroup, MessageView, Recipients } from '@goodword/core/contract';
import { useState } from 'react';
import { useLists, useTags } from '../app/groups';
import { Button } from '../ui/basics';
import { personName } from '../ui/people';
import { TypedMenu } from '../ui/TypedMenu';
import { reading } from '../app/reading';

const ITEM = 'px-3 py-[5px] rounded-[3px] outline-none data-[highlighted]:bg-bench cursor-pointer';
const CHIP = 'inline-flex items-center gap-1 bg-bench rounded-paper px-2 py-[2px] font-semibold';

export type Named = Record<Exclude<Offered, 'campaign'>, { id: number; name: string }[]> & {
  campaign: { id: number; name: string; stages: string[] }[];
};

/** Messages that somebody has got by now. */
const GONE = new Set<MessageView['state']>(['sending', 'paused', 'stopped', 'done']);

const DID_WORDS: Record<MessageGroup, string> = {
  got: t`who got`,
  clicked: t`who clicked a link in`,
  'not-clicked': t`who got and clicked no link in`,
  replied: t`who replied to`,
  'not-replied': t`who got and did not reply to`,
};

const DEEDS = Object.keys(DID_WORDS) as MessageGroup[];

/** A group by its name, as a part of a sentence. */
function nameOf(ref: GroupRef, groups: Named): string {
  if (ref.kind === 'person') return t`one person`;
  const name = groups[ref.kind].find(({ id }) => id === ref.id)?.name;
  if (name === undefined) return t`a group since deleted`;
  if (ref.kind === 'message') return t`those ${DID_WORDS[ref.did ?? 'got']} “${name}”`;
  return ref.kind === 'campaign'
    ? t`the roster of ${name}${ref.stage === undefined ? '' : t`, at “${ref.stage}”`}`
    : name;
}
/** Single people are written to from their record. */
type Offered = Exclude<GroupKind, 'person'>;

export function useGroups(): Named | null {
  const segments = useQuery(reading('segments'));
  const lists = useLists();
  const tags = useTags();
  const batches = useQuery(reading('batches'));
  const campaigns = useQuery(reading('campaigns'));
  const messages = useQuery(reading('messages'));
  if (!segments.data || !lists.data || !tags.data || !batches.data || !campaigns.data || !messages.data)
    return null;
  return {
    segment: segments.data,
    list: lists.data,
    tag: tags.data,
    batch: batches.data.filter((batch) => batch.state === 'done'),
    campaign: campaigns.data,
    message: messages.data.filter(({ state }) => GONE.has(state)),
  };
}

/** "Ferry news or Menders, but not Board notes; 2 people struck out". */
export function groupWords({ from, chosen = [], minus, without }: Recipients, groups: Named): string {
  const named = (refs: readonly GroupRef[]) => refs.map((ref) => nameOf(ref, groups));
  const all = [...named(from), ...(chosen.length > 0 ? [chosenWords(chosen.length)] : [])];
  const parts = [
    all.join(' or ') || 'nobody',
    ...(minus.length > 0 ? [t`but not ${named(minus).join(' or ')}`] : []),
  ];
  return `${parts.join(', ')}${without.length > 0 ? t`; ${without.length} struck out by name` : ''}`;
}

const chosenWords = (people: number) =>
  t`${people} ${plural(people, { one: 'person', other: 'people' })} chosen by hand`;

const KIND_WORDS: Record<Offered, string> = {
  segment: t`Segments`,
  list: t`Lists`,
  tag: t`Tags`,
  campaign: t`Rosters of campaigns`,
  batch: t`Batches`,
  message: t`Earlier messages`,
};

/** What can be chosen of a kind: a roster also by its stages, a message by what they did with it. */
function refsOf(kind: Offered, groups: Named): GroupRef[] {
  if (kind === 'campaign')
    return groups.campaign.flatMap(({ id, stages }) => [
      { kind, id },
      ...stages.map((stage): GroupRef => ({ kind, id, stage })),
    ]);
  if (kind === 'message')
    return groups.message.flatMap(({ id }) => DEEDS.map((did): GroupRef => ({ kind, id, did })));
  return groups[kind].map(({ id }) => ({ kind, id }));
}
const keyOf = ({ kind, id, stage, did }: GroupRef) => [kind, id, stage ?? '', did ?? ''].join(' ');

function Refs({
  label,
  refs,
  groups,
  onChange,
}: {
  label: string;
  refs: GroupRef[];
  groups: Named;
  onChange: (refs: GroupRef[]) => void;
}) {
  const has = (one: GroupRef) => refs.some((ref) => keyOf(ref) === keyOf(one));
  return (
    <span className="inline-flex flex-wrap gap-2 items-center">
      {refs.map((ref) => (
        <span key={keyOf(ref)} className={CHIP}>
          {nameOf(ref, groups)}
          <button
            aria-label={t`Remove ${nameOf(ref, groups)}`}
            className="hover:text-madder"
            onClick={() => onChange(refs.filter((one) => one !== ref))}
          >
            <X size={13} />
          </button>
        </span>
      ))}
      <TypedMenu
        label={label}
        className="rounded-paper border border-dashed border-[#8b989d] px-2 py-[1px] font-semibold"
        groups={(Object.keys(KIND_WORDS) as Offered[]).map((kind) => ({
          title: KIND_WORDS[kind],
          items: refsOf(kind, groups)
            .filter((ref) => !has(ref))
            .map((ref) => ({
              key: keyOf(ref),
              words: nameOf(ref, groups),
              act: () => onChange([...refs, ref]),
            })),
        }))}
        placeholder={t`Part of its name`}
        none={t`No group of that name`}
      >
        {label}
      </TypedMenu>
    </span>
  );
}

function Without({ value, onChange }: { value: number[]; onChange: (ids: number[]) => void }) {
  const [search, setSearch] = useState('');
  const [open, setOpen] = useState(false);
  const found = useQuery({ ...reading('supporters', { search, limit: 6 }), enabled: search.length >= 2 });
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
            aria-label={t`Find a person to strike out`}
            placeholder={t`Name or email`}
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
              {found.data.rows.length === 0 && (
                <span className="px-3 py-1 text-ink2">{t`Nobody by that name`}</span>
              )}
            </span>
          )}
        </span>
      ) : (
        <Button className="!min-h-[26px] !px-2 !border-dashed" onClick={() => setOpen(true)}>
          {t`a person…`}
        </Button>
      )}
    </span>
  );
}

function PersonChip({ id, onOff }: { id: number; onOff: () => void }) {
  const { data } = useQuery(reading('supporters/{id}', { id }));
  const name = data ? personName(data) : '…';
  return (
    <span className={CHIP}>
      {name}
      <button aria-label={t`Let ${name} back in`} className="hover:text-madder" onClick={onOff}>
        <X size={13} />
      </button>
    </span>
  );
}

/** Who is in the group, as a sentence: any of these, minus those, minus single people. */
export function RecipientPicker({
  value,
  groups,
  onChange,
  byPost = false,
  ofRoster = false,
}: {
  value: Recipients;
  groups: Named;
  onChange: (value: Recipients) => void;
  /** Letters are for a whole household, unless each is wanted to get one. */
  byPost?: boolean;
  /** A step of a campaign: the plan says to whom of its roster; some can be left out. */
  ofRoster?: boolean;
}) {
  return (
    <div className="sheet px-5 py-3 text-[15px] leading-9 flex flex-wrap gap-x-2 items-center">
      <span>{t`It goes to everybody in`}</span>
      {(value.chosen ?? []).length > 0 && (
        <span className={CHIP}>
          {chosenWords(value.chosen!.length)}
          <button
            aria-label={t`Remove those chosen by hand`}
            className="hover:text-madder"
            onClick={() => onChange({ ...value, chosen: [] })}
          >
            <X size={13} />
          </button>
        </span>
      )}
      {ofRoster ? (
        <b>{groupWords({ ...value, minus: [], without: [] }, groups)}</b>
      ) : (
        <Refs
          label={value.from.length === 0 ? t`choose a group` : t`or in…`}
          refs={value.from}
          groups={groups}
          onChange={(from) => onChange({ ...value, from })}
        />
      )}
      <span>{t`but not to those in`}</span>
      <Refs
        label={value.minus.length === 0 ? t`nobody` : t`or in…`}
        refs={value.minus}
        groups={groups}
        onChange={(minus) => onChange({ ...value, minus })}
      />
      <span>{t`and not to`}</span>
      <Without value={value.without} onChange={(without) => onChange({ ...value, without })} />
      {byPost && (
        <select
          className="input !w-auto"
          aria-label={t`How many letters to a household`}
          value={value.apart ? 'each' : 'one'}
          onChange={({ target }) => onChange({ ...value, apart: target.value === 'each' })}
        >
          <option value="one">{t`one letter for a household`}</option>
          <option value="each">{t`one letter for each person`}</option>
        </select>
      )}
    </div>
  );
}
