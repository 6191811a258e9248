import { t } from '@lingui/core/macro';
import type { MakeMessageBody } from '@goodword/core/contract';
import { LONE_CHANNELS, PURPOSES, type LoneChannel, type Purpose } from '@goodword/core/permission';
import { KIND_OF_WORDS } from '../app/channels';
import { Labelled } from '../ui/basics';
import { BeginWith, type BegunFrom } from './templates/BeginWith';

export interface About {
  name: string;
  channel: LoneChannel;
  purpose: Purpose;
  /** The words that it begins with, and what they are called; a blank sheet where it is not there. */
  from?: { words: string; source: NonNullable<MakeMessageBody['from']> } | null;
}

/** As it is sent: of the words alone where they come from. */
export const aboutBody = ({ from, ...about }: About): MakeMessageBody => ({
  ...about,
  ...(from ? { from: from.source } : {}),
});

/** What a message is for is what its words were kept for; a name that nobody typed is theirs. */
function begunWith(about: About, beginning: BegunFrom): About {
  const named = (name: string) => (about.name.trim() === '' ? name : about.name);
  switch (beginning.of) {
    case 'template': {
      const { id, name, purpose } = beginning.template;
      const from = { words: name, source: { templateId: id } };
      return { ...about, name: named(name), purpose: purpose ?? about.purpose, from };
    }
    case 'starter': {
      const { key, name, purpose } = beginning.starter;
      return { ...about, name: named(name), purpose, from: { words: name, source: { starter: key } } };
    }
    default:
      return { ...about, from: null };
  }
}

/** What a message is called, how it goes and what for: asked before the first word is written. */
export function AboutMessage({ value, onChange }: { value: About; onChange: (value: About) => void }) {
  return (
    <>
      <Labelled label={t`Name`} hint={t`For you; supporters never see it.`}>
        <input
          className="input"
          required
          autoFocus
          maxLength={120}
          value={value.name}
          onChange={(event) => onChange({ ...value, name: event.target.value })}
        />
      </Labelled>
      <div className="grid grid-cols-2 gap-3">
        <Labelled label={t`It goes by`}>
          <select
            className="input"
            value={value.channel}
            // Words of one channel are none for the other.
            onChange={(event) =>
              onChange({ ...value, channel: event.target.value as LoneChannel, from: null })
            }
          >
            {LONE_CHANNELS.map((channel) => (
              <option key={channel} value={channel}>
                {KIND_OF_WORDS[channel]}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled label={t`It is for`} hint={t`What permission is asked for.`}>
          <select
            className="input"
            value={value.purpose}
            onChange={(event) => onChange({ ...value, purpose: event.target.value as Purpose })}
          >
            {PURPOSES.map((purpose) => (
              <option key={purpose}>{purpose}</option>
            ))}
          </select>
        </Labelled>
      </div>
      <BeginWith
        channel={value.channel}
        chosen={value.from?.words ?? null}
        onChoose={(beginning) => onChange(begunWith(value, beginning))}
      />
    </>
  );
}
