import type { UseMutationResult } from '@tanstack/react-query';
import { plural, t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { CampaignView, RosterGroup, RosterRow } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { useLists, useTags } from '../app/groups';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { Button, Empty, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Confirm, Drawer } from '../ui/dialogs';
import { personName, usePages } from '../ui/people';
import { SortNav } from '../sort/SortNav';
import { VirtualTable, type TableColumn } from '../ui/VirtualTable';
import { EditCampaign } from './EditCampaign';
import { WriteToThem } from '../write/WriteToThem';
import { reading } from '../app/reading';

/** Says what goes with a campaign before it does. */
function DeleteCampaign({
  open,
  setOpen,
  name,
  people,
  id,
}: {
  open: 'edit' | 'put' | 'off' | 'remove' | null;
  setOpen: (next: 'edit' | 'put' | 'off' | 'remove' | null) => void;
  name: string;
  people: number;
  id: number;
}) {
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const format = useFormat();
  return (
    <Confirm
      open={open === 'remove'}
      onClose={() => setOpen(null)}
      title={t`Delete “${name}”?`}
      act={
        people === 0
          ? t`Delete it`
          : t`Delete it, with ${plural(people, { one: '# person', other: '# people' })} on its roster`
      }
      onAct={() =>
        api
          .delete('campaigns/{id}', { id })
          .then(() => (refresh(queryClient, 'campaigns'), void navigate('/sort/campaigns')))
      }
      body={
        <p>
          <Trans>
            {format.number(people)} <Plural value={people} one="person leaves" other="people leave" /> its
            roster. They themselves, their gifts and messages stay.
          </Trans>
        </p>
      }
    />
  );
}

/**
 * One campaign: how many stand where, and who; people are put on, moved and taken off, one by one or as a
 * group.
 */
export default function Campaign() {
  const id = Number(useParams().id);
  const format = useFormat();
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const [params, setParams] = useSearchParams();
  const stage = params.get('stage');
  const [open, setOpen] = useState<'edit' | 'put' | 'off' | 'remove' | null>(null);
  const campaign = useQuery(reading('campaigns/{id}', { id }));
  const close = () => (setOpen(null), refresh(queryClient, 'campaigns'));
  if (!campaign.data)
    return campaign.error ? <ProblemNote error={campaign.error} /> : <Loading what={t`the campaign`} />;
  const { name, kind, people, counts, stages, appealCode } = campaign.data;
  return (
    <>
      <Heading
        title={name}
        page={t`Campaign: ${name}`}
        note={t`${kind}, ${format.number(people)} ${plural(people, { one: 'person', other: 'people' })} on the roster${appealCode ? t`, appeal code ${appealCode}` : ''}`}
      >
        <Link className="link self-center" to={`/send/campaigns/${id}`}>
          {t`Its plan`}
        </Link>
        {may && (
          <>
            <Button onClick={() => setOpen('remove')}>{t`Delete`}</Button>
            <Button onClick={() => setOpen('edit')}>{t`Change`}</Button>
            <Button onClick={() => setOpen('off')}>{t`Remove people`}</Button>
            {people > 0 && (
              <WriteToThem
                whom={stage ? `${name}, ${stage}` : name}
                to={() => ({ ref: { kind: 'campaign', id, ...(stage ? { stage: stage } : {}) } })}
              />
            )}
            <Button weight="main" onClick={() => setOpen('put')}>
              {t`Put people on`}
            </Button>
          </>
        )}
      </Heading>
      <SortNav />
      <div className="flex flex-wrap gap-2 pb-3" role="group" aria-label={t`Stages`}>
        {[null, ...stages].map((one) => (
          <button
            key={one ?? ''}
            aria-pressed={stage === one}
            className={`rounded-paper border px-3 py-1 ${stage === one ? 'bg-ink text-white border-ink' : 'border-[#8b989d] bg-sheet'}`}
            onClick={() => setParams(one ? { stage: one } : {}, { replace: true })}
          >
            {one ?? t`All`} <b className="font-title">{format.number(one ? (counts[one] ?? 0) : people)}</b>
          </button>
        ))}
      </div>
      {people === 0 ? (
        <div className="sheet grow">
          <Empty title={t`Nobody is on the roster yet`}>
            <p>
              <Trans>
                Put a list, a tag, a segment or a batch on it, or choose the campaign when you bring in a
                file.
              </Trans>
            </p>
          </Empty>
        </div>
      ) : (
        <Roster id={id} stage={stage} stages={stages} may={may} />
      )}
      {open === 'edit' && <EditCampaign campaign={campaign.data} onClose={close} />}
      {(open === 'put' || open === 'off') && (
        <PutOn campaign={campaign.data} off={open === 'off'} onClose={close} />
      )}
      <DeleteCampaign open={open} setOpen={setOpen} name={name} people={people} id={id} />
    </>
  );
}

function Roster({
  id,
  stage,
  stages,
  may,
}: {
  id: number;
  stage: string | null;
  stages: readonly string[];
  may: boolean;
}) {
  const format = useFormat();
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const { rows, total, more } = usePages<RosterRow>(['roster', id, stage], (after) =>
    api.get('campaigns/{id}/roster', { id, stage, after }),
  );
  const act = useMutation({
    mutationFn: ({ person, to }: { person: number; to: string }) =>
      to === ''
        ? api.post('campaigns/{id}/roster/off', { id, body: { group: { ids: [person] } } })
        : api.put('campaigns/{id}/roster', { id, body: { group: { ids: [person] }, stage: to } }),
    onSuccess: () => refresh(queryClient, 'campaigns'),
  });
  const columns: TableColumn<RosterRow>[] = [
    { key: 'name', title: t`Name`, width: '1.2fr', cell: (row) => personName(row) },
    {
      key: 'stage',
      title: t`Stage`,
      width: '190px',
      cell: (row) =>
        may ? (
          <select
            className="input !min-h-[28px] !py-[1px]"
            aria-label={t`Stage of ${personName(row)}`}
            value={row.stage}
            onClick={(event) => event.stopPropagation()}
            onKeyDown={(event) => event.stopPropagation()}
            onChange={(event) => act.mutate({ person: row.supporterId, to: event.target.value })}
          >
            {stages.map((one) => (
              <option key={one}>{one}</option>
            ))}
            <option value="">{t`Remove from the roster`}</option>
          </select>
        ) : (
          row.stage
        ),
    },
    {
      key: 'since',
      title: t`Since`,
      width: '1fr',
      cell: (row) => <span className="text-ink2">{format.moment(row.putAt)}</span>,
    },
    {
      key: 'by',
      title: t`Put there`,
      width: '1.2fr',
      cell: (row) => <span className="text-ink2">{row.by}</span>,
    },
  ];
  return (
    <>
      <ProblemNote error={act.error} />
      <VirtualTable
        label={t`Roster`}
        rows={rows}
        total={total}
        columns={columns}
        idOf={(row) => row.supporterId}
        wordOf={(row) => row.lastName}
        onMore={more}
        onOpen={(row) => void navigate(`/sort/supporters/${row.supporterId}`)}
      />
    </>
  );
}

type Kind = 'list' | 'tag' | 'segment' | 'batch';
const KINDS: [Kind, string, string][] = [
  ['list', t`A list`, 'lists'],
  ['tag', t`A tag`, 'tags'],
  ['segment', t`A segment`, 'segments'],
  ['batch', t`A batch`, 'batches'],
];

/** Whom to put on the roster, and at which stage. */
function PutOnForm({
  act,
  kind,
  setKind,
  setChosen,
  search,
  setSearch,
  chosen,
  offers,
  off,
  stage,
  setStage,
  campaign,
}: {
  act: UseMutationResult<{ people: number }, Error, void, unknown>;
  kind: Kind | 'person';
  setKind: (next: Kind | 'person') => void;
  setChosen: (next: number) => void;
  search: string;
  setSearch: (next: string) => void;
  chosen: number;
  offers: { id: number; name: string }[];
  off: boolean;
  stage: string;
  setStage: (next: string) => void;
  campaign: CampaignView;
}) {
  return (
    <form className="flex flex-col gap-3" onSubmit={(event) => (event.preventDefault(), act.mutate())}>
      <Labelled label={t`Whom`}>
        <select
          className="input"
          value={kind}
          onChange={(event) => (setKind(event.target.value as Kind), setChosen(0))}
        >
          {KINDS.map(([one, words]) => (
            <option key={one} value={one}>
              {words}
            </option>
          ))}
          <option value="person">{t`One person`}</option>
        </select>
      </Labelled>
      {kind === 'person' && (
        <Labelled label={t`Name, email or number`}>
          <input className="input" value={search} onChange={(event) => setSearch(event.target.value)} />
        </Labelled>
      )}
      <Labelled label={t`Which`}>
        <select
          className="input"
          value={chosen || ''}
          onChange={(event) => setChosen(Number(event.target.value))}
        >
          <option value="">{t`Choose…`}</option>
          {offers.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </Labelled>
      {!off && (
        <Labelled label={t`Stage`}>
          <select className="input" value={stage} onChange={(event) => setStage(event.target.value)}>
            {campaign.stages.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </Labelled>
      )}
      <ProblemNote error={act.error} />
      <Button
        weight={off ? 'grave' : 'main'}
        type="submit"
        className="self-start"
        disabled={chosen === 0 || act.isPending}
      >
        {off ? t`Remove them` : t`Set them to ${stage}`}
      </Button>
    </form>
  );
}

/** Chooses a group, or one person by name, and where they shall stand. */
function PutOn({ campaign, off, onClose }: { campaign: CampaignView; off: boolean; onClose: () => void }) {
  const [kind, setKind] = useState<Kind | 'person'>('list');
  const [chosen, setChosen] = useState(0);
  const [stage, setStage] = useState(campaign.stages[0]!);
  const [search, setSearch] = useState('');
  const [lists, tags] = [useLists(), useTags()];
  const others = useQuery({
    ...reading(kind === 'batch' ? 'batches' : 'segments'),
    enabled: kind === 'segment' || kind === 'batch',
  });
  const groups: { data?: readonly { id: number; name: string }[] } =
    kind === 'list' ? lists : kind === 'tag' ? tags : others;
  const people = useQuery({
    ...reading('supporters', { search, limit: 20 }),
    enabled: kind === 'person' && search.trim().length > 1,
  });
  const group: RosterGroup = kind === 'person' ? { ids: [chosen] } : { kind, id: chosen };
  const act = useMutation({
    mutationFn: () =>
      off
        ? api.post('campaigns/{id}/roster/off', { id: campaign.id, body: { group } })
        : api.put('campaigns/{id}/roster', { id: campaign.id, body: { group, stage } }),
    onSuccess: onClose,
  });
  const offers =
    kind === 'person'
      ? (people.data?.rows ?? []).map((row) => ({ id: row.id, name: personName(row) }))
      : (groups.data ?? []).map(({ id, name }) => ({ id, name }));
  return (
    <Drawer
      open
      onClose={onClose}
      title={off ? t`Remove people from the roster` : t`Add people to the roster`}
      note={off ? undefined : t`Whoever is on it already is moved to this stage`}
    >
      <PutOnForm
        act={act}
        kind={kind}
        setKind={setKind}
        setChosen={setChosen}
        search={search}
        setSearch={setSearch}
        chosen={chosen}
        offers={offers}
        off={off}
        stage={stage}
        setStage={setStage}
        campaign={campaign}
      />
    </Drawer>
  );
}
