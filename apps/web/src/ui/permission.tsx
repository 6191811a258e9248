import { t } from '@lingui/core/macro';
import { type Channel, type PermissionState } from '@goodword/core/permission';
import { CHANNEL_WORDS, STATE_WORDS } from '@goodword/core/words';

const INK: Record<PermissionState, string> = {
  yes: 'bg-verdigris text-white border-verdigris',
  implied: 'bg-sheet text-verdigris border-verdigris',
  asked: 'bg-sheet text-ochre border-ochremark border-dashed',
  never: 'bg-sheet text-ink3 border-[#b6c1bd]',
  no: 'bg-sheet text-madder border-madder',
};

/** A state in its own ink, always in words; a no is struck through. */
export function StateChip({ state, words }: { state: PermissionState; words?: string }) {
  const shown = words ? STATE_WORDS[state].toLowerCase() : STATE_WORDS[state];
  return (
    <span
      className={`inline-block rounded-[3px] border px-[7px] py-[1px] text-[11.5px] font-semibold whitespace-nowrap ${INK[state]}`}
    >
      {words && `${words} `}
      {state === 'no' ? <s>{shown}</s> : shown}
    </span>
  );
}

export function ChannelChip({ channel, state }: { channel: Channel; state: PermissionState }) {
  return <StateChip state={state} words={CHANNEL_WORDS[channel]} />;
}

/** An entry that takes another back says nothing by itself. */
export function BackChip({ words }: { words: string }) {
  return (
    <span className="inline-block rounded-[3px] border border-[#8b989d] px-[7px] py-[1px] text-[11.5px] font-semibold text-ink2">
      {words}
    </span>
  );
}

/** A pause changes no state, so it has no state's ink. */
export function PauseChip() {
  return (
    <span className="inline-block rounded-[3px] border border-ink px-[7px] py-[1px] text-[11.5px] font-semibold text-ink">{t`Pause`}</span>
  );
}
