import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { ReactNode } from 'react';
import { BATCH_COLLECTION_METHODS, permissionFaults, type ChannelPermission } from '@goodword/core/intake';
import { PURPOSES, type Scope } from '@goodword/core/permission';
import { COLLECTION_METHOD_WORDS, speak } from '@goodword/core/words';
import { useSession } from '../app/session';
import { Button, Labelled } from '../ui/basics';
import { useMargin, type Note } from '../ui/margin';
import { planOfDraft, useDraft } from './draft';
import { localDay } from '../app/day';
import { useLists, type ListName } from '../app/groups';
import { DayField } from '../ui/DayField';

type Yes = Extract<ChannelPermission, { said: 'yes' }>;

const INLINE = 'input !w-auto !inline-block !min-h-[30px] !py-[2px] mx-1 leading-normal';

function Scopes({
  channel,
  value,
  lists,
  onChange,
}: {
  channel: string;
  value: Scope[];
  lists: readonly ListName[];
  onChange: (scopes: Scope[]) => void;
}) {
  const offers: [Scope, string][] = [
    ...PURPOSES.filter((purpose) => purpose !== 'service').map((purpose): [Scope, string] => [
      purpose,
      purpose,
    ]),
    ...lists.filter((list) => list.isPublic).map((list): [Scope, string] => [`list:${list.id}`, list.name]),
  ];
  return (
    <fieldset className="flex flex-wrap gap-x-4 py-1 leading-[26px]">
      <legend className="sr-only">
        <Trans>What they agreed to by {channel}</Trans>
      </legend>
      {offers.map(([scope, words]) => (
        <label key={scope} className="flex gap-2 items-center">
          <input
            type="checkbox"
            className="accent-[#0F766B]"
            name={`${channel}-${scope}`}
            checked={value.includes(scope)}
            onChange={() =>
              onChange(value.includes(scope) ? value.filter((one) => one !== scope) : [...value, scope])
            }
          />
          {words}
        </label>
      ))}
    </fieldset>
  );
}

function AgreedWords({
  channel,
  yes,
  lists,
  set,
  when,
  withWords,
}: {
  channel: 'email' | 'text';
  yes: Yes;
  lists: readonly ListName[];
  set: (part: Partial<Yes>) => void;
  when: ReactNode;
  withWords: string;
}) {
  return (
    <Trans>
      agreed to <b>{channel === 'email' ? t`emails` : t`texts`}</b> about
      <Scopes channel={channel} value={yes.scopes} lists={lists} onChange={(scopes) => set({ scopes })} />
      by
      <select
        className={INLINE}
        aria-label={t`How`}
        value={yes.how}
        onChange={(event) => set({ how: event.target.value as Yes['how'] })}
      >
        {BATCH_COLLECTION_METHODS.map((road) => (
          <option key={road} value={road}>
            {COLLECTION_METHOD_WORDS[road]}
          </option>
        ))}
      </select>
      {when}, {withWords}
    </Trans>
  );
}

/** The evidence as one sentence, whose words can be set. */
function Sentence({
  channel,
  yes,
  lists,
  onChange,
}: {
  channel: 'email' | 'text';
  yes: Yes;
  lists: readonly ListName[];
  onChange: (yes: Yes) => void;
}) {
  const { columns, analysis } = useDraft();
  const at = (to: string) => columns.findIndex((column) => column.to === to);
  const consent = columns.findIndex((column) => column.to === 'consent' && column.channel === channel);
  const header = (column: number) => analysis?.found.header[column] ?? '';
  const refusing = columns.flatMap((column, i) =>
    column.to === 'refusal' && (column.channel === channel || column.channel === 'every')
      ? [`“${header(i)}”`]
      : [],
  );
  const set = (part: Partial<Yes>) => onChange({ ...yes, ...part });
  const day = (
    <DayField
      aria-label={t`When`}
      className="input !w-[140px] !min-h-[30px] !py-[2px] leading-normal"
      value={yes.on}
      max={localDay()}
      onChange={(on) => set({ on })}
    />
  );
  const dated = header(at('signedOn'));
  const when = dated ? (
    <Trans>
      on the day in column “{dated}”, or where it is empty on {day}
    </Trans>
  ) : (
    <Trans>on {day}</Trans>
  );
  const worded = header(at('signedWords'));
  const withWords = worded ? t`with the words of column “${worded}”, or else` : t`with the words`;
  return (
    <div className="flex flex-col gap-2 border-l-[3px] border-verdigris pl-4 leading-[34px]">
      <div>
        {consent >= 0 ? (
          <select
            className={INLINE}
            aria-label={t`Who of them`}
            value={yes.from}
            onChange={(event) => set({ from: event.target.value as Yes['from'] })}
          >
            <option value="column">{t`Those whose column “${header(consent)}” says yes`}</option>
            <option value="everyone">{t`Everyone, but those whose column says no`}</option>
          </select>
        ) : (
          t`These people`
        )}
        {refusing.length > 0 && <Trans>, but not whom {refusing.join(' or ')} names,</Trans>}{' '}
        <AgreedWords channel={channel} yes={yes} lists={lists} set={set} when={when} withWords={withWords} />
      </div>
      <textarea
        aria-label={t`In what words`}
        placeholder={t`As they stood on the sheet or form. They are kept as the evidence.`}
        className="input min-h-[58px] leading-normal"
        value={yes.words}
        onChange={(event) => set({ words: event.target.value })}
      />
      <div>
        {t`vouched for by`}
        <input
          aria-label={t`Who vouches for it`}
          className={INLINE}
          value={yes.voucher}
          onChange={(event) => set({ voucher: event.target.value })}
        />
      </div>
    </div>
  );
}

function ChannelCard({
  channel,
  lists,
  children,
}: {
  channel: 'email' | 'text';
  lists: readonly ListName[];
  children?: ReactNode;
}) {
  const { permission, setPermission, columns } = useDraft();
  const { teammate } = useSession();
  const said = permission[channel];
  const hasColumn = columns.some((column) => column.to === 'consent' && column.channel === channel);
  const start: Yes = {
    said: 'yes',
    from: hasColumn ? 'column' : 'everyone',
    scopes: [],
    how: 'paper',
    on: '',
    words: '',
    voucher: teammate.name,
  };
  const name = channel === 'email' ? 'email' : 'text';
  const options = [
    [
      'yes',
      t`They agreed to ${name}s, and we can show it`,
      () => setPermission(channel, said.said === 'yes' ? said : start),
    ],
    ['nothing', t`I don’t know, or they did not`, () => setPermission(channel, { said: 'nothing' })],
    [
      'bought',
      t`They were bought, rented or collected from the web`,
      () => setPermission(channel, { said: 'bought' }),
    ],
  ] as const;
  return (
    <section className="sheet p-5 flex flex-col gap-3" aria-labelledby={`${channel}-title`}>
      <h2 className="subtitle" id={`${channel}-title`}>
        <Trans>May we {channel === 'email' ? t`email` : t`text`} these people?</Trans>
      </h2>
      <div role="radiogroup" aria-labelledby={`${channel}-title`} className="flex flex-col">
        {options.map(([value, words, choose]) => (
          <label key={value} className="flex gap-3 items-center py-1">
            <input
              type="radio"
              name={`said-${channel}`}
              className="accent-[#0F766B]"
              checked={said.said === value}
              onChange={choose}
            />
            {words}
          </label>
        ))}
      </div>
      {said.said === 'yes' && (
        <Sentence
          channel={channel}
          yes={said}
          lists={lists}
          onChange={(yes) => setPermission(channel, yes)}
        />
      )}
      {said.said === 'nothing' && (
        <p className="text-ink2">
          <Trans>They come in as never asked. No {name} goes to them until they say yes themselves.</Trans>
        </p>
      )}
      {said.said === 'bought' && (
        <p className="text-madder">
          <Trans>
            Then they do not come in. Nobody on such a list asked to hear from you, and one complaint costs
            the delivery of a thousand others. Ask at the next event instead.
          </Trans>
        </p>
      )}
      {children}
    </section>
  );
}

/** Whether those who signed up lately are asked to confirm; they stand as Asked until they answer. */
function Confirming() {
  const { parts, set, permission } = useDraft();
  const { organization } = useSession();
  if (permission.email.said !== 'yes') return null;
  const start = {
    subject: t`Please confirm: ${organization.name}`,
    body: t`You signed up with ${organization.name} and agreed to hear from us. One click confirms it. If it was not you, do nothing, and we will not write again.`,
  };
  return (
    <div className="flex flex-col gap-2 border-t border-hair pt-3">
      <label className="flex gap-3 items-start">
        <input
          type="checkbox"
          className="mt-1 accent-[#0F766B]"
          checked={parts.confirm !== null}
          onChange={() => set({ confirm: parts.confirm ? null : start })}
        />
        <span>
          <b>{t`Ask them to confirm by email`}</b>
          <span className="block text-ink2">
            <Trans>
              Only those who signed within the days of your house rule. They stand as Asked until they answer,
              and are reminded once at most.
            </Trans>
          </span>
        </span>
      </label>
      {parts.confirm && (
        <>
          <Labelled label={t`Subject`}>
            <input
              className="input"
              value={parts.confirm.subject}
              maxLength={200}
              onChange={(event) => set({ confirm: { ...parts.confirm!, subject: event.target.value } })}
            />
          </Labelled>
          <Labelled
            label={t`Message`}
            hint={t`The button to confirm, and what they agreed to, are put under it.`}
          >
            <textarea
              className="input min-h-[80px]"
              value={parts.confirm.body}
              maxLength={5000}
              onChange={(event) => set({ confirm: { ...parts.confirm!, body: event.target.value } })}
            />
          </Labelled>
        </>
      )}
    </div>
  );
}

/**
 * For each channel: how these people agreed, when, in what words, and who vouches for it. There is no way
 * past it.
 */
export function PermissionStep() {
  const draft = useDraft();
  const lists = useLists();
  const plan = planOfDraft(draft);
  const notes: Note[] = [
    {
      key: 'no',
      tone: 'plain',
      title: t`Who opted out stays opted out`,
      body: t`Whoever left before is not brought back by a file. Only they can come back, by their own act.`,
    },
  ];
  const agreed = Object.values(draft.permission).flatMap((said) => (said.said === 'yes' ? said.scopes : []));
  const missing = (lists.data ?? []).filter(
    (list) => list.isPublic && draft.parts.listIds.includes(list.id) && !agreed.includes(`list:${list.id}`),
  );
  for (const list of missing)
    notes.unshift({
      key: `list-${list.id}`,
      tone: 'fault',
      title: t`“${list.name}” is a public list`,
      body: t`Being on it needs their agreement to it: tick it, or remove it.`,
      remedy: {
        words: t`Remove it`,
        act: () => draft.set({ listIds: draft.parts.listIds.filter((id) => id !== list.id) }),
      },
    });
  // Asked here, and not two steps later.
  const open = plan ? permissionFaults(plan, localDay()) : [];
  open.forEach(({ said }, i) => notes.unshift({ key: `open-${i}`, tone: 'doubt', title: speak(said) }));
  if (!plan)
    notes.unshift({
      key: 'open',
      tone: 'doubt',
      title: t`Both channels need an answer`,
      body: t`“I don’t know” is an answer too.`,
    });
  useMargin(notes);
  return (
    <>
      <div className="grid grid-cols-2 gap-4 items-start grow min-h-0 overflow-y-auto">
        <ChannelCard channel="email" lists={lists.data ?? []}>
          <Confirming />
        </ChannelCard>
        <ChannelCard channel="text" lists={lists.data ?? []} />
      </div>
      <div className="flex justify-between pt-3">
        <Button onClick={() => draft.go('Where they go')}>{t`Back to where they go`}</Button>
        <Button weight="main" disabled={!plan || open.length > 0} onClick={() => draft.go('Matches')}>
          {t`Next: matches`}
        </Button>
      </div>
    </>
  );
}
