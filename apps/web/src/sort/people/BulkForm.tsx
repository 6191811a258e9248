import { isScope } from '@goodword/core/permission';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { BulkAct, ExportForm } from '@goodword/core/contract';
import type { PrintForm } from '@goodword/core/print';
import { PURPOSES } from '@goodword/core/permission';
import { COLLECTION_METHOD_WORDS } from '@goodword/core/words';
import { useSession } from '../../app/session';
import { useLists, useTags } from '../../app/groups';
import { Button, Labelled, ProblemNote } from '../../ui/basics';
import { Choose, type BulkPart, type TypedValues } from './parts';
import { printActOf, printStart } from './printing';
import { NewGroup } from './NewGroup';
import { PrintPart } from './PrintPart';
import { DayField } from '../../ui/DayField';
import { reading } from '../../app/reading';

/** How somebody may have said it to many at once. */
const BULK_METHODS = ['paper', 'phone', 'in-person', 'form'] as const;
type Kind = Exclude<BulkAct['do'], 'erase'>;
interface Props {
  act: Kind;
  /** What of paper comes first; for one person not a sheet. */
  form?: PrintForm;
  many: string;
  onBegin: (act: BulkAct) => Promise<void>;
}

const named = (rows: readonly { id: number; name: string }[] | undefined) =>
  (rows ?? []).map((row) => [row.id, row.name] as const);
const PUT = [
  ['on', t`Add`],
  ['off', t`Remove`],
] as const;

function GroupPart({ kind, ...part }: BulkPart & { kind: 'tag' | 'list' }) {
  const [tags, lists] = [useTags(), useLists()];
  const { data } = kind === 'tag' ? tags : lists;
  return (
    <>
      <Choose label={t`What to do`} name="on" options={PUT} {...part} />
      <Choose label={kind === 'tag' ? t`Tag` : t`List`} name="id" options={named(data)} {...part} />
      <NewGroup kind={kind} onMade={(id) => part.set('id', String(id))} />
    </>
  );
}

function FieldPart(part: BulkPart) {
  const { data } = useQuery(reading('fields'));
  const field = data?.find((one) => one.id === Number(part.typed.id));
  return (
    <>
      <Choose label={t`Field`} name="id" options={named(data)} {...part} />
      {field?.choices && field.choices.length > 0 ? (
        <Choose
          label={t`Value`}
          name="text"
          options={field.choices.map((choice) => [choice, choice] as const)}
          {...part}
        />
      ) : (
        <Labelled label={t`Value`} hint={t`Empty takes the value away from all of them.`}>
          <input
            className="input"
            type={field?.type === 'date' ? 'date' : 'text'}
            value={part.typed.text ?? ''}
            onChange={(event) => part.set('text', event.target.value)}
          />
        </Labelled>
      )}
    </>
  );
}

function RosterPart(part: BulkPart) {
  const { data } = useQuery(reading('campaigns'));
  const campaign = data?.find((one) => one.id === Number(part.typed.id));
  return (
    <>
      <Choose label={t`Campaign`} name="id" options={named(data)} {...part} />
      {campaign && (
        <Choose
          label={t`Stage`}
          name="stage"
          options={[
            ...campaign.stages.map((stage) => [stage, stage] as const),
            ['-', t`Remove from the roster`],
          ]}
          {...part}
        />
      )}
    </>
  );
}

const HOWS = (['paper', 'phone', 'in-person', 'form'] as const).map(
  (road) => [road, COLLECTION_METHOD_WORDS[road]] as const,
);

function PermissionPart(part: BulkPart) {
  const lists = useLists().data ?? [];
  const scopes = [
    ...PURPOSES.map((purpose) => [purpose, purpose] as const),
    ...lists.filter((list) => list.isPublic).map((list) => [`list:${list.id}`, list.name] as const),
  ];
  return (
    <>
      <p className="text-ink2">
        <Trans>
          These people agreed to what follows, and somebody vouches for it. Whoever said no stays no: only
          they themselves can take that back.
        </Trans>
      </p>
      <Choose
        label={t`Channel`}
        name="channel"
        options={[
          ['email', 'email'],
          ['text', 'text'],
        ]}
        {...part}
      />
      <Choose label={t`To what`} name="scope" options={scopes} {...part} />
      <Choose label={t`How`} name="how" options={HOWS} {...part} />
      <Labelled label={t`On the day`}>
        <DayField value={part.typed.on ?? ''} onChange={(on) => part.set('on', on)} />
      </Labelled>
      <Labelled label={t`With the words`}>
        <textarea
          className="input"
          rows={3}
          value={part.typed.words ?? ''}
          onChange={(event) => part.set('words', event.target.value)}
        />
      </Labelled>
      <Labelled label={t`Vouched for by`}>
        <input
          className="input"
          value={part.typed.voucher ?? ''}
          onChange={(event) => part.set('voucher', event.target.value)}
        />
      </Labelled>
    </>
  );
}

const FORMS: [ExportForm, string][] = [
  ['csv', t`CSV, a row for each`],
  ['xlsx', t`Workbook (XLSX)`],
  ['vcard', t`vCards, for address books`],
  ['json', t`JSON, for programs`],
];

/** The act that was typed, or null while something is missing. */
export function actOf(kind: Kind, typed: TypedValues): BulkAct | null {
  const id = Number(typed.id);
  switch (kind) {
    case 'tag':
      return id && typed.on ? { do: 'tag', tagId: id, on: typed.on === 'on' } : null;
    case 'list':
      return id && typed.on ? { do: 'list', listId: id, on: typed.on === 'on' } : null;
    case 'field':
      return id ? { do: 'field', fieldId: id, text: typed.text ?? '' } : null;
    case 'roster':
      return id && typed.stage
        ? { do: 'roster', campaignId: id, stage: typed.stage === '-' ? null : typed.stage }
        : null;
    case 'permission': {
      const { channel, scope, on, words, voucher } = typed;
      const how = BULK_METHODS.find((method) => method === typed.how);
      if (!scope || !isScope(scope) || !how || !on || !words?.trim() || !voucher?.trim()) return null;
      return channel === 'email' || channel === 'text'
        ? { do: 'permission', channel, scopes: [scope], how, on, words, voucher }
        : null;
    }
    case 'export':
      return typed.form ? { do: 'export', form: typed.form as ExportForm, fields: [] } : null;
    case 'print':
      return printActOf(typed);
  }
}

/** What an act needs to know, asked for in a drawer. */
export function BulkForm({ act, many, form = 'call', onBegin }: Props) {
  const { teammate, organization } = useSession();
  const [typed, setTyped] = useState<TypedValues>(() =>
    act === 'print'
      ? printStart(organization.country, form)
      : { voucher: teammate.name, form: 'csv', on: act === 'permission' ? '' : 'on' },
  );
  const begin = useMutation({ mutationFn: onBegin });
  const part: BulkPart = { typed, set: (name, value) => setTyped((old) => ({ ...old, [name]: value })) };
  const ready = actOf(act, typed);
  return (
    <form
      className="sheet p-5 flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) begin.mutate(ready);
      }}
    >
      {(act === 'tag' || act === 'list') && <GroupPart kind={act} {...part} />}
      {act === 'field' && <FieldPart {...part} />}
      {act === 'roster' && <RosterPart {...part} />}
      {act === 'permission' && <PermissionPart {...part} />}
      {act === 'print' && <PrintPart {...part} />}
      {act === 'export' && <Choose label={t`As`} name="form" options={FORMS} {...part} />}
      <ProblemNote error={begin.error} />
      <div>
        <Button weight="main" type="submit" disabled={!ready || begin.isPending}>
          {act === 'export'
            ? t`Write the file of ${many}`
            : act === 'print'
              ? t`Print ${many}`
              : t`Do it for ${many}`}
        </Button>
      </div>
    </form>
  );
}
