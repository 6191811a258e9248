import { t } from '@lingui/core/macro';
import { formatMoney } from '@goodword/core/fields';
import type { GaveLine, GiftMeasure } from '@goodword/core/segment';
import { useSession } from '../../app/session';
import type { LineEditor, LineProps } from './subjects';
import { WindowWords } from './WindowWords';
import { PickWord, Word } from './Word';

const MEASURES: [GiftMeasure, string][] = [
  ['sum', t`in all`],
  ['count', t`in number of gifts`],
  ['largest', t`as their largest gift`],
  ['first', t`as their first gift ever`],
  ['last', t`as their last gift`],
];

/** One end of what was given: minor units, or a number of gifts. */
function Bound({
  label,
  value,
  unit,
  onType,
}: {
  label: string;
  value: number | null;
  unit: 1 | 100;
  onType: (value: number | null) => void;
}) {
  return (
    <label className="flex flex-col gap-1">
      <span className="font-semibold text-[13px]">{label}</span>
      <input
        className="input"
        type="number"
        min={0}
        defaultValue={value === null ? '' : value / unit}
        onChange={(event) =>
          onType(Number(event.target.value) > 0 ? Math.round(Number(event.target.value) * unit) : null)
        }
      />
    </label>
  );
}

function GaveWords({ line, onChange }: LineProps<GaveLine>) {
  const { organization } = useSession();
  const { measure = 'sum', atLeast, atMost = null } = line;
  const unit = measure === 'count' ? 1 : 100;
  const show = (value: number) => (measure === 'count' ? String(value) : formatMoney(value, organization));
  const words = [
    atLeast === null ? '' : t`at least ${show(atLeast)}`,
    atMost === null ? '' : t`at most ${show(atMost)}`,
  ]
    .filter(Boolean)
    .join(' and ');
  return (
    <>
      <PickWord
        label={t`Gave or not`}
        value={line.did ? 'gave' : 'not'}
        tone={line.did ? undefined : 'no'}
        options={[
          ['gave', t`gave`],
          ['not', t`did not give`],
        ]}
        onPick={(did) => onChange({ ...line, did: did === 'gave' })}
      />{' '}
      <Word words={words || t`anything`} label={t`Amount`}>
        {() => (
          <>
            <Bound
              label={t`At least; empty for anything`}
              value={atLeast}
              unit={unit}
              onType={(value) => onChange({ ...line, atLeast: value })}
            />
            <Bound
              label={t`At most; empty for no limit`}
              value={atMost}
              unit={unit}
              onType={(value) => onChange({ ...line, atMost: value })}
            />
          </>
        )}
      </Word>{' '}
      <PickWord
        label={t`Measured`}
        value={measure}
        options={MEASURES}
        onPick={(picked) =>
          onChange({
            ...line,
            measure: picked,
            ...((picked === 'count') === (measure === 'count') ? {} : { atLeast: null, atMost: null }),
          })
        }
      />{' '}
      <WindowWords window={line.window} onChange={(window) => onChange({ ...line, window })} />
    </>
  );
}

export const gaveEditor: LineEditor<GaveLine> = {
  Words: GaveWords,
  offer: t`gave, or did not`,
  begin: () => ({ kind: 'gave', did: true, atLeast: null, window: { over: 'ever' } }),
};
