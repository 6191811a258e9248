import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { LastLook as Look } from '@goodword/core/contract';
import type { Channel, SuppressionReason, Verdict } from '@goodword/core/permission';
import { verdictWords } from '@goodword/core/words';
import { useFormat } from '../app/format';

const HINTS: Record<SuppressionReason, string> = {
  'fell-out': t`what ends it for them`,
  'no-address': t`record`,
  'do-not-contact': t`house rules`,
  'said-no': t`permission ledger`,
  'on-hold': t`until somebody looks at the address`,
  asked: t`permission ledger`,
  'no-permission': t`permission ledger`,
  paused: t`permission ledger`,
  'had-enough': t`house rules`,
  'shared-address': t`one copy per address`,
};
/** Where the reason comes from. */
const hintOf = (reason: SuppressionReason, channel: Channel) =>
  reason === 'shared-address' && channel === 'post' ? t`one letter for a household` : HINTS[reason];
const DOUBTS: readonly Verdict[] = ['shared-address', 'asked'];

/** The drawing of the last look: the group as a full bar, what each reason takes away, what is left. */
export function Down({
  look,
  channel,
  onOpen,
}: {
  look: Look;
  channel: Channel;
  onOpen: (verdict: Verdict) => void;
}) {
  const format = useFormat();
  const width = (people: number) => `${look.group === 0 ? 0 : (people / look.group) * 100}%`;
  let left = look.group;
  return (
    <div className="flex flex-col">
      <div className="grid grid-cols-[1fr_230px_80px] gap-3 items-center border-t border-hair py-3">
        <p className="font-semibold">{t`In the group`}</p>
        <div className="h-5 bg-slate rounded-[2px]" aria-hidden="true" />
        <b className="font-title text-[19px] text-right">{format.number(look.group)}</b>
      </div>
      {look.suppressed.length === 0 && (
        <p className="text-ink2 border-t border-hair py-[9px]">{t`Nobody is held back.`}</p>
      )}
      {look.suppressed.map(({ reason, people }) => {
        left -= people;
        return (
          <div
            key={reason}
            className="grid grid-cols-[1fr_230px_80px] gap-3 items-center border-t border-hair py-[9px]"
          >
            <div>
              <p className="font-semibold">{verdictWords(reason, channel)}</p>
              {hintOf(reason, channel) && <p className="text-ink2 text-[12px]">{hintOf(reason, channel)}</p>}
            </div>
            <div className="h-5 relative border-b border-[#b6c7c2]" aria-hidden="true">
              <div
                className={`absolute h-5 rounded-[2px] min-w-[3px] ${DOUBTS.includes(reason) ? 'bg-ochremark' : 'bg-madder'}`}
                style={{ left: width(left), width: width(people) }}
              />
            </div>
            <button
              className="link text-right text-[15px]"
              onClick={() => onOpen(reason)}
              aria-label={t`${people} held back: ${verdictWords(reason, channel)}. See them`}
            >
              −{format.number(people)}
            </button>
          </div>
        );
      })}
      <div className="grid grid-cols-[1fr_230px_80px] gap-3 items-center border-t border-ink py-3">
        <p className="font-semibold">
          <Trans>Will get it by {channel}</Trans>
        </p>
        <div className="h-5" aria-hidden="true">
          <div className="h-5 bg-verdigris rounded-[2px]" style={{ width: width(look.reached) }} />
        </div>
        <button
          className="link font-title font-bold text-[19px] text-right"
          onClick={() => onOpen('send')}
          aria-label={t`${look.reached} will get it. See them`}
        >
          {format.number(look.reached)}
        </button>
      </div>
    </div>
  );
}
