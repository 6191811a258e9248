import type { ReactNode } from 'react';

/** A sentence of the rules, with what can be chosen in it. */
export function RuleLine({ children }: { children: ReactNode }) {
  return <p className="py-[5px] leading-[34px]">{children}</p>;
}

interface PickProps<K extends string> {
  label: string;
  options: Record<K, string>;
  value: K;
  onPick: (value: K) => void;
}

export function Pick<K extends string>({ label, options, value, onPick }: PickProps<K>) {
  return (
    <select
      className="input !w-auto !min-h-[30px] !py-[3px] leading-normal"
      aria-label={label}
      value={value}
      onChange={(event) => onPick(event.target.value as K)}
    >
      {(Object.keys(options) as K[]).map((key) => (
        <option key={key} value={key}>
          {options[key]}
        </option>
      ))}
    </select>
  );
}

export function YesNoChoice(props: {
  label: string;
  yes: string;
  no: string;
  value: boolean;
  onPick: (value: boolean) => void;
}) {
  const { label, yes, no, value, onPick } = props;
  return (
    <Pick
      label={label}
      options={{ yes, no }}
      value={value ? 'yes' : 'no'}
      onPick={(picked) => onPick(picked === 'yes')}
    />
  );
}

export function RuleCount({
  label,
  value,
  most,
  onPick,
}: {
  label: string;
  value: number;
  most: number;
  onPick: (value: number) => void;
}) {
  return (
    <input
      type="number"
      className="input !w-[74px] !min-h-[30px] !py-[3px] leading-normal"
      aria-label={label}
      min={1}
      max={most}
      value={value}
      onChange={(event) => {
        const next = Math.round(Number(event.target.value));
        if (next >= 1 && next <= most) onPick(next);
      }}
    />
  );
}
