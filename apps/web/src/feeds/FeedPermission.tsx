import { t } from '@lingui/core/macro';
import type { FeedBasis as Permission, FeedPlan } from '@goodword/core/feeds';
import { PURPOSES, type Scope, type SendingChannel } from '@goodword/core/permission';
import { useLists } from '../app/groups';
import { useSession } from '../app/session';
import { Labelled } from '../ui/basics';
import { Open, Tick, withOrWithout } from './FeedWord';

type Yes = Extract<Permission, { said: 'yes' }>;

const CHANNELS: readonly [SendingChannel, string][] = [
  ['email', t`email`],
  ['text', t`text`],
];

/** Who of them may be written to on one channel, in a few words. */
function who(permission: Permission | undefined): string {
  if (permission === undefined) return '…';
  if (permission.said === 'nothing') return t`nobody`;
  return permission.from === 'column' ? t`those whose column says yes` : t`all of them`;
}

/** The rest of the sentence: why they may. */
function why(permission: Permission | undefined): string {
  const words = permission?.said === 'yes' ? permission.words : '';
  return words === '' ? t`may be written to` : t`may be written to, because ${words}`;
}

function Basis({ channel, yes, onChange }: { channel: string; yes: Yes; onChange: (yes: Yes) => void }) {
  const { data: lists = [] } = useLists();
  const set = (part: Partial<Yes>) => onChange({ ...yes, ...part });
  const offers: [Scope, string][] = [
    ...lists.filter(({ isPublic }) => isPublic).map(({ id, name }): [Scope, string] => [`list:${id}`, name]),
    ...PURPOSES.filter((one) => one !== 'service').map((one): [Scope, string] => [one, one]),
  ];
  return (
    <>
      <fieldset>
        <legend className="font-semibold">{t`What they agreed to by ${channel}`}</legend>
        {offers.map(([scope, words]) => (
          <Tick
            key={scope}
            on={yes.scopes.includes(scope)}
            onTick={() => set({ scopes: withOrWithout(yes.scopes, scope) })}
          >
            {words}
          </Tick>
        ))}
      </fieldset>
      <Labelled label={t`Why they may be written to`}>
        <textarea
          className="input"
          rows={3}
          maxLength={1000}
          defaultValue={yes.words}
          placeholder={t`They ticked “news” on the membership form`}
          onBlur={({ target }) => target.value !== yes.words && set({ words: target.value })}
        />
      </Labelled>
      <Labelled label={t`Who vouches for it`}>
        <input
          className="input"
          maxLength={120}
          defaultValue={yes.voucher}
          onBlur={({ target }) => target.value !== yes.voucher && set({ voucher: target.value })}
        />
      </Labelled>
    </>
  );
}

/** On what basis people of the feed may be written to, channel by channel. */
export function FeedPermission({
  plan,
  onChange,
}: {
  plan: FeedPlan;
  onChange: (part: Partial<FeedPlan>) => void;
}) {
  const { teammate } = useSession();
  const nothing: Record<SendingChannel, Permission> = {
    email: { said: 'nothing' },
    text: { said: 'nothing' },
  };
  const set = (channel: SendingChannel, next: Permission) =>
    onChange({ permission: { ...(plan.permission ?? nothing), [channel]: next } });
  const offered = (channel: SendingChannel): [string, Permission['said'] | 'column', boolean][] => {
    const has = plan.columns.some(({ choice }) => choice.to === 'consent' && choice.channel === channel);
    return [
      [t`They agreed to none`, 'nothing', true],
      [t`Those whose column says yes`, 'column', has],
      [t`All of them agreed`, 'yes', true],
    ];
  };
  return (
    <p>
      {CHANNELS.map(([channel, word], i) => {
        const now = plan.permission?.[channel];
        const kind =
          now === undefined
            ? null
            : now.said === 'nothing'
              ? 'nothing'
              : now.from === 'column'
                ? 'column'
                : 'yes';
        const pick = (next: Permission['said'] | 'column') => {
          if (next === 'nothing') return set(channel, { said: 'nothing' });
          const before = now?.said === 'yes' ? now : { scopes: [], words: '', voucher: teammate.name };
          const { scopes, words, voucher } = before;
          set(channel, {
            ...{ said: 'yes', from: next === 'column' ? 'column' : 'everyone' },
            ...{ scopes: [...scopes], words, voucher },
          });
        };
        return (
          <span key={channel}>
            {i > 0 && '; '}
            {i === 0 ? t`By ${word}` : t`by ${word}`}{' '}
            <Open words={who(now)} label={t`Permission by ${word}`}>
              {() => (
                <div className="flex flex-col gap-3 w-[380px]">
                  <div role="radiogroup" aria-label={t`Who agreed to ${word}`}>
                    {offered(channel).map(([words, value, can]) => (
                      <label key={value} className={`flex gap-2 px-2 py-1 ${can ? '' : 'text-ink3'}`}>
                        <input
                          type="radio"
                          className="accent-[#0F766B]"
                          disabled={!can}
                          checked={kind === value}
                          onChange={() => pick(value)}
                        />
                        {words}
                      </label>
                    ))}
                  </div>
                  {now?.said === 'yes' && (
                    <Basis channel={word} yes={now} onChange={(yes) => set(channel, yes)} />
                  )}
                </div>
              )}
            </Open>{' '}
            {why(now)}
          </span>
        );
      })}
      .
    </p>
  );
}
