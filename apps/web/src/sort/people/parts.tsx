import { t } from '@lingui/core/macro';
import { Labelled } from '../../ui/basics';

/** What was typed so far, all of it text. */
export type TypedValues = Record<string, string>;

export interface BulkPart {
  typed: TypedValues;
  set: (name: string, value: string) => void;
}

export function Choose({
  label,
  name,
  typed,
  set,
  options,
}: BulkPart & { label: string; name: string; options: readonly (readonly [string | number, string])[] }) {
  return (
    <Labelled label={label}>
      <select className="input" value={typed[name] ?? ''} onChange={(event) => set(name, event.target.value)}>
        <option value="">{t`Choose…`}</option>
        {options.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </Labelled>
  );
}
