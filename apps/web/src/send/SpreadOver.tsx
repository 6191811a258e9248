import { plural, t } from '@lingui/core/macro';
import type { WhenChosen } from './useWhen';

/** So many hours, in words; days from two on. */
export const hoursOf = (hours: number) =>
  hours >= 48 && hours % 24 === 0
    ? plural(hours / 24, { one: '# day', other: '# days' })
    : plural(hours, { one: '# hour', other: '# hours' });

/** Hours over which a message can be spread; 0 for all at once. */
const SPREADS = [0, 1, 2, 4, 8, 12, 24, 48, 72, 168, 336];

/** So that not all telephones ring, and not all mailboxes fill, at one moment. */
export function SpreadOver({ when, onChange }: { when: WhenChosen; onChange: () => void }) {
  return (
    <select
      className="input !w-auto"
      aria-label={t`Over how long it leaves`}
      value={when.spreadHours ?? 0}
      onChange={({ target }) => {
        when.setSpreadHours(Number(target.value) || null);
        onChange();
      }}
    >
      {SPREADS.map((hours) => (
        <option key={hours} value={hours}>
          {hours === 0 ? t`all at once` : t`over ${hoursOf(hours)}`}
        </option>
      ))}
    </select>
  );
}
