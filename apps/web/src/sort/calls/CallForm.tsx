import { t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import type { PeopleGroup } from '@goodword/core/contract';
import { registryOf } from '@goodword/core/merge';
import { PURPOSES, type Purpose } from '@goodword/core/permission';
import { api } from '../../app/api';
import { useTyped } from '../../app/drafting';
import { refresh } from '../../app/refresh';
import { useLists, useTags } from '../../app/groups';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { MergeField } from '../../write/MergeField';
import { BeginWith, type BegunFrom } from '../../write/templates/BeginWith';
import { beginningWords } from '../../write/templates/beginningWords';
import { treeOf } from './groups';
import { reading } from '../../app/reading';

const START = t`Hello ${'{First name, or "there"}'}, it is ${'{Sender: name}'} of ${'{Organization: name}'}. Have you a moment?`;

/** Whom to call, where nobody was chosen in a table before. */
function GroupPart({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  const segments = useQuery(reading('segments')).data ?? [];
  const lists = useLists().data ?? [];
  const tags = useTags().data ?? [];
  const campaigns = useQuery(reading('campaigns')).data ?? [];
  const groups: [string, string, readonly { id: number; name: string }[]][] = [
    ['segment', t`Segments`, segments],
    ['list', t`Lists`, lists],
    ['tag', t`Tags`, tags],
    ['roster', t`Rosters`, campaigns],
  ];
  return (
    <Labelled label={t`Whom to call`}>
      <select className="input" value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="">{t`Choose…`}</option>
        {groups.map(([kind, words, rows]) => (
          <optgroup key={kind} label={words}>
            {rows.map((row) => (
              <option key={row.id} value={`${kind}:${row.id}`}>
                {row.name}
              </option>
            ))}
          </optgroup>
        ))}
      </select>
    </Labelled>
  );
}

/** What to say: from the words that are kept for calls, or a starter's. */
function ScriptPart({
  value,
  begun,
  onChange,
  onBegin,
}: {
  value: string;
  begun: string | null;
  onChange: (value: string) => void;
  onBegin: (begun: string | null, script: string) => void;
}) {
  const begin = useMutation({
    mutationFn: (beginning: BegunFrom) => beginningWords(beginning),
    onSuccess: ({ name, words: found }) => onBegin(name, found?.text ?? START),
  });
  const names = useQuery(reading('merge-fields'));
  const registry = useMemo(() => (names.data ? registryOf(names.data) : null), [names.data]);
  return (
    <div className="flex flex-col gap-1">
      <BeginWith channel="call" chosen={begun} onChoose={(one) => begin.mutate(one)} />
      <ProblemNote error={begin.error} />
      <span className="font-semibold text-[13px] -mb-[30px] pt-3" id="script-label">
        {t`What to say`}
      </span>
      <MergeField
        long
        beside="above"
        className="input"
        rows={6}
        maxLength={4000}
        aria-labelledby="script-label"
        registry={registry}
        value={value}
        onChange={onChange}
      />
    </div>
  );
}

/** Makes a list of people to call, with what to say and the campaign whose roster their answers go on. */
export function CallForm({ group }: { group: (() => PeopleGroup) | null }) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const campaigns = useQuery(reading('campaigns')).data ?? [];
  const draft = useTyped('call-list:new', {
    name: '',
    campaignId: '',
    purpose: 'appeals' as Purpose,
    script: START,
    begun: null as string | null,
    of: '',
  });
  const values = draft.value;
  const set = (part: Partial<typeof values>) => draft.set({ ...values, ...part });
  const make = useMutation({
    mutationFn: () =>
      api.post('calls', {
        body: {
          name: values.name,
          campaignId: Number(values.campaignId) || null,
          purpose: values.purpose,
          script: values.script,
          group: group ? group() : { tree: treeOf(values.of), without: [] },
        },
      }),
    onSuccess: ({ id }) => (
      draft.discard(),
      void refresh(queryClient, 'calls'),
      void navigate(`/sort/calls/${id}`)
    ),
  });
  return (
    <form
      className="sheet p-5 flex flex-col gap-4 overflow-y-auto"
      onSubmit={(event) => (event.preventDefault(), make.mutate())}
    >
      <Labelled label={t`Name of the list`}>
        <input
          className="input"
          required
          autoFocus
          maxLength={120}
          value={values.name}
          onChange={(event) => set({ name: event.target.value })}
        />
      </Labelled>
      {!group && <GroupPart value={values.of} onChange={(of) => set({ of })} />}
      <Labelled label={t`Campaign`} hint={t`Its stages are the answers, and go on its roster.`}>
        <select
          className="input"
          value={values.campaignId}
          onChange={(event) => set({ campaignId: event.target.value })}
        >
          <option value="">{t`none`}</option>
          {campaigns.map((campaign) => (
            <option key={campaign.id} value={campaign.id}>
              {campaign.name}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label={t`For`} hint={t`Who may not be called for this is passed over, and told.`}>
        <select
          className="input"
          value={values.purpose}
          onChange={(event) => set({ purpose: event.target.value as Purpose })}
        >
          {PURPOSES.map((purpose) => (
            <option key={purpose}>{purpose}</option>
          ))}
        </select>
      </Labelled>
      <ScriptPart
        value={values.script}
        begun={values.begun}
        onChange={(script) => set({ script })}
        onBegin={(begun, script) => set({ begun, script })}
      />
      <ProblemNote error={make.error} />
      <Button
        weight="main"
        type="submit"
        className="self-start"
        disabled={values.name.trim() === '' || (!group && !values.of) || make.isPending}
      >
        {t`Make the list`}
      </Button>
    </form>
  );
}
