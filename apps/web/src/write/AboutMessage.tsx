import { t } from '@lingui/core/macro';
import { PURPOSES, type Purpose, type SendingChannel } from '@goodword/core/permission';
import { Labelled } from '../ui/basics';

export interface About {
  name: string;
  channel: SendingChannel;
  purpose: Purpose;
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
            onChange={(event) => onChange({ ...value, channel: event.target.value as SendingChannel })}
          >
            <option value="email">{t`Email`}</option>
            <option value="text">{t`Text`}</option>
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
    </>
  );
}
