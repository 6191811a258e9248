import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { CAMPAIGN_KINDS, FIRST_STAGES, type CampaignKind } from '@goodword/core/campaigns';
import type { CampaignView } from '@goodword/core/contract';
import { api } from '../app/api';
import { useDrafting } from '../app/drafting';
import { refresh } from '../app/refresh';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { Unsaved } from '../ui/Unsaved';

/** A stage as it is edited: what it was called before, if it was there. */
interface Row {
  was: string | null;
  name: string;
}

interface Values {
  name: string;
  kind: CampaignKind;
  code: string;
  isOpen: boolean;
  rows: Row[];
}

function valuesOf(campaign: CampaignView | null): Values {
  return {
    name: campaign?.name ?? '',
    kind: campaign?.kind ?? 'appeal',
    code: campaign?.appealCode ?? '',
    isOpen: campaign?.isOpen ?? true,
    rows: (campaign?.stages ?? FIRST_STAGES).map((one) => ({ was: campaign ? one : null, name: one })),
  };
}

const namesOf = (rows: readonly Row[]) => rows.map((row) => row.name.trim()).filter((one) => one !== '');

/** What kind of campaign it is, and the code by which gifts are known to be its own. */
function KindAndCode({
  kind,
  change,
  code,
}: {
  kind: 'appeal' | 'thank-you' | 'update';
  change: (part: Partial<Values>) => void;
  code: string;
}) {
  return (
    <div className="grid grid-cols-2 gap-3">
      <Labelled label={t`Kind`}>
        <select
          className="input"
          value={kind}
          onChange={(event) => change({ kind: event.target.value as CampaignKind })}
        >
          {CAMPAIGN_KINDS.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      </Labelled>
      <Labelled label={t`Appeal code`} hint={t`As it stands in files of gifts.`}>
        <input
          className="input font-mono"
          value={code}
          maxLength={60}
          onChange={(event) => change({ code: event.target.value })}
        />
      </Labelled>
    </div>
  );
}

/** The stages of the roster, in their order. */
function StagesPart({
  rows,
  set,
  setRows,
}: {
  rows: Row[];
  set: (at: number, text: string) => void;
  setRows: (next: Row[]) => void;
}) {
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="font-semibold text-[13px] pb-1">{t`Stages, in their order`}</legend>
      {rows.map((row, at) => (
        <div key={at} className="flex gap-2">
          <input
            className="input"
            aria-label={t`Stage ${at + 1}`}
            value={row.name}
            maxLength={60}
            onChange={(event) => set(at, event.target.value)}
          />
          <Button
            aria-label={t`Remove stage ${row.name}`}
            disabled={rows.length === 1}
            onClick={() => setRows(rows.filter((_row, i) => i !== at))}
          >
            {t`Remove`}
          </Button>
        </div>
      ))}
      <Button
        className="self-start"
        disabled={rows.length >= 20}
        onClick={() => setRows([...rows, { was: null, name: '' }])}
      >
        {t`Add a stage`}
      </Button>
    </fieldset>
  );
}

/** Makes a campaign, or changes it and its own set of stages; those renamed keep their people. */
export function EditCampaign({ campaign, onClose }: { campaign: CampaignView | null; onClose: () => void }) {
  const queryClient = useQueryClient();
  const draft = useDrafting<Values>(`campaign:${campaign?.id ?? 'new'}`, {
    value: valuesOf(campaign),
    version: campaign?.version ?? 0,
  });
  const { name, kind, code, isOpen, rows } = draft.value;
  const change = (part: Partial<Values>) => draft.set({ ...draft.value, ...part });
  const setRows = (next: Row[]) => change({ rows: next });
  const stages = namesOf(rows);
  const save = useMutation({
    mutationFn: async (sent: Values): Promise<unknown> => {
      const body = {
        name: sent.name.trim(),
        kind: sent.kind,
        appealCode: sent.code.trim() || null,
        stages: namesOf(sent.rows),
      };
      if (!campaign) return api.post('campaigns', { body });
      const renamed = Object.fromEntries(
        sent.rows
          .filter((row) => row.was && row.name.trim() && row.was !== row.name.trim())
          .map((row) => [row.was, row.name.trim()]),
      );
      return api.put('campaigns/{id}', {
        id: campaign.id,
        body: {
          ...body,
          isOpen: sent.isOpen,
          renamed,
          basedOn: draft.basedOn,
        },
      });
    },
    onSuccess: async (_none, sent) => {
      await refresh(queryClient, 'campaigns');
      draft.saved(sent);
      onClose();
    },
    // Somebody was quicker: what they saved is fetched, and both are shown.
    onError: () => refresh(queryClient, 'campaigns'),
  });
  const set = (at: number, text: string) =>
    setRows(rows.map((row, i) => (i === at ? { ...row, name: text } : row)));
  return (
    <Drawer open onClose={onClose} title={campaign ? t`Change the campaign` : t`Make a campaign`}>
      <form
        className="flex flex-col gap-3 min-h-0 overflow-y-auto"
        onSubmit={(event) => (event.preventDefault(), save.mutate(draft.value))}
      >
        <Labelled label={t`Name`}>
          <input
            className="input"
            value={name}
            maxLength={120}
            onChange={(event) => change({ name: event.target.value })}
          />
        </Labelled>
        <KindAndCode kind={kind} change={change} code={code} />
        <StagesPart rows={rows} set={set} setRows={setRows} />
        {campaign && (
          <label className="flex gap-2 items-center">
            <input
              type="checkbox"
              className="accent-[#0F766B]"
              checked={isOpen}
              onChange={() => change({ isOpen: !isOpen })}
            />
            {t`Open: offered when people are brought in`}
          </label>
        )}
        <Unsaved draft={draft} what={t`this campaign`} />
        {draft.theirs === null && <ProblemNote error={save.error} />}
        <Button
          weight="main"
          type="submit"
          className="self-start"
          disabled={name.trim() === '' || stages.length === 0 || draft.theirs !== null || save.isPending}
        >
          {campaign ? t`Save` : t`Make it`}
        </Button>
      </form>
    </Drawer>
  );
}
