import { useMutation, useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import type { ListView } from '@goodword/core/contract';
import { BATCH_ROADS, type ChannelPermission } from '@goodword/core/intake';
import { PURPOSES, ROAD_WORDS, type Scope } from '@goodword/core/permission';
import { call, get } from '../app/api';
import { useSession } from '../app/session';
import { Button, Labelled, Problem } from '../ui/basics';
import { useMargin, type Note } from '../ui/margin';
import { planOf, useDraft } from './draft';

type Yes = Extract<ChannelPermission, { said: 'yes' }>;

function Scopes({
  channel,
  value,
  lists,
  onChange,
}: {
  channel: string;
  value: Scope[];
  lists: readonly ListView[];
  onChange: (scopes: Scope[]) => void;
}) {
  const offers: [Scope, string][] = [
    ...PURPOSES.filter((purpose) => purpose !== 'service').map((purpose): [Scope, string] => [purpose, purpose]),
    ...lists.filter((list) => list.isPublic).map((list): [Scope, string] => [`list:${list.id}`, list.name]),
  ];
  return (
    <fieldset>
      <legend className="font-semibold text-[13px] pb-1">They agreed to</legend>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {offers.map(([scope, words]) => (
          <label key={scope} className="flex gap-2 items-center">
            <input
              type="checkbox"
              className="accent-[#0F766B]"
              name={`${channel}-${scope}`}
              checked={value.includes(scope)}
              onChange={() => onChange(value.includes(scope) ? value.filter((one) => one !== scope) : [...value, scope])}
            />
            {words}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

function Evidence({
  channel,
  yes,
  lists,
  onChange,
}: {
  channel: 'email' | 'text';
  yes: Yes;
  lists: readonly ListView[];
  onChange: (yes: Yes) => void;
}) {
  const hasColumn = useDraft((draft) => draft.columns.some((column) => column.to === 'consent' && column.channel === channel));
  const set = (part: Partial<Yes>) => onChange({ ...yes, ...part });
  return (
    <div className="flex flex-col gap-3 border-l-[3px] border-verdigris pl-4">
      <Scopes channel={channel} value={yes.scopes} lists={lists} onChange={(scopes) => set({ scopes })} />
      {hasColumn && (
        <Labelled label="Who of them">
          <select className="input" value={yes.from} onChange={(event) => set({ from: event.target.value as Yes['from'] })}>
            <option value="column">Those whose column says yes</option>
            <option value="everyone">Everyone, but those whose column says no</option>
          </select>
        </Labelled>
      )}
      <div className="grid grid-cols-2 gap-3">
        <Labelled label="How">
          <select className="input" value={yes.how} onChange={(event) => set({ how: event.target.value as Yes['how'] })}>
            {BATCH_ROADS.map((road) => (
              <option key={road} value={road}>
                {ROAD_WORDS[road]}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled label="When">
          <input
            type="date"
            className="input"
            value={yes.on}
            max={new Date().toISOString().slice(0, 10)}
            onChange={(event) => set({ on: event.target.value })}
          />
        </Labelled>
      </div>
      <Labelled label="In what words" hint="As they stood on the sheet or form. They are kept as the evidence.">
        <textarea className="input min-h-[58px]" value={yes.words} onChange={(event) => set({ words: event.target.value })} />
      </Labelled>
      <Labelled label="Who vouches for it">
        <input className="input" value={yes.voucher} onChange={(event) => set({ voucher: event.target.value })} />
      </Labelled>
    </div>
  );
}

function ChannelCard({ channel, lists }: { channel: 'email' | 'text'; lists: readonly ListView[] }) {
  const { permission, setPermission, columns } = useDraft();
  const { teammate } = useSession();
  const said = permission[channel];
  const hasColumn = columns.some((column) => column.to === 'consent' && column.channel === channel);
  const start: Yes = { said: 'yes', from: hasColumn ? 'column' : 'everyone', scopes: [], how: 'paper', on: '', words: '', voucher: teammate.name };
  const name = channel === 'email' ? 'email' : 'text';
  const options = [
    ['yes', `They agreed to ${name}s, and we can show it`, () => setPermission(channel, said.said === 'yes' ? said : start)],
    ['nothing', `They did not, or nobody knows`, () => setPermission(channel, { said: 'nothing' })],
    ['bought', 'They were bought, rented or collected from the web', () => setPermission(channel, { said: 'bought' })],
  ] as const;
  return (
    <section className="sheet p-5 flex flex-col gap-3" aria-labelledby={`${channel}-title`}>
      <h2 className="subtitle" id={`${channel}-title`}>
        May we {channel === 'email' ? 'email' : 'text'} these people?
      </h2>
      <div role="radiogroup" aria-labelledby={`${channel}-title`} className="flex flex-col">
        {options.map(([value, words, choose]) => (
          <label key={value} className="flex gap-3 items-center py-1">
            <input type="radio" name={`said-${channel}`} className="accent-[#0F766B]" checked={said.said === value} onChange={choose} />
            {words}
          </label>
        ))}
      </div>
      {said.said === 'yes' && <Evidence channel={channel} yes={said} lists={lists} onChange={(yes) => setPermission(channel, yes)} />}
      {said.said === 'nothing' && <p className="text-ink2">They come in as never asked. No {name} goes to them until they say yes themselves.</p>}
      {said.said === 'bought' && (
        <p className="text-madder">
          Then they do not come in. Nobody on such a list asked to hear from you, and one complaint costs the delivery of a thousand others. Ask at
          the next event instead.
        </p>
      )}
    </section>
  );
}

/** For each channel: how these people agreed, when, in what words, and who vouches for it. There is no way past it. */
export function PermissionStep() {
  const draft = useDraft();
  const navigate = useNavigate();
  const lists = useQuery({ queryKey: ['lists'], queryFn: () => get<ListView[]>('lists') });
  const plan = planOf(draft);
  const check = useMutation({
    mutationFn: async () => {
      const form = new FormData();
      form.append('file', draft.file!);
      const { id } = await call<{ id: number }>('POST', 'batches', form);
      await call('PUT', `batches/${id}/plan`, plan);
      return id;
    },
    onSuccess: (id) => void navigate(`/gather/${id}`),
  });
  const notes: Note[] = [
    {
      key: 'no',
      tone: 'plain',
      title: 'A past no stays a no',
      body: 'Whoever left before is not brought back by a file. Only they can come back, by their own act.',
    },
  ];
  if (!plan) notes.unshift({ key: 'open', tone: 'doubt', title: 'Both channels need an answer', body: '“Nobody knows” is an answer too.' });
  useMargin(notes);
  return (
    <>
      <div className="grid grid-cols-2 gap-4 items-start grow min-h-0 overflow-y-auto">
        <ChannelCard channel="email" lists={lists.data ?? []} />
        <ChannelCard channel="text" lists={lists.data ?? []} />
      </div>
      <Problem error={check.error} />
      <div className="flex justify-between pt-3">
        <Button onClick={() => draft.go('Where they go')}>Back to where they go</Button>
        <Button weight="main" disabled={!plan || check.isPending} onClick={() => check.mutate()}>
          {check.isPending ? 'Handing the file over…' : 'Next: check the batch'}
        </Button>
      </div>
    </>
  );
}
