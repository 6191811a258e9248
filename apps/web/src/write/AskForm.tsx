import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ASK_BASES, type AskBase, type AskRule } from '@goodword/core/letter';
import { askWords } from '@goodword/core/words';
import { useFormat } from '../app/format';
import { readingByPost } from '../app/reading';
import { Button, Labelled, ProblemNote } from '../ui/basics';

const SHARES: [string, AskRule['shares']][] = [
  [t`half, the same and twice`, [0.5, 1, 2]],
  [t`the same, half more and twice`, [1, 1.5, 2]],
  [t`the same, twice and three times`, [1, 2, 3]],
];

const BASES: Record<AskBase, string> = {
  last: t`the last gift`,
  largest: t`the largest gift`,
  average: t`the average gift`,
};

const SPANS: [string, number | null][] = [
  [t`of the last 12 months`, 12],
  [t`of the last 24 months`, 24],
  [t`of the last 36 months`, 36],
  [t`of any time`, null],
];

const hundredths = (typed: string) => Math.round(Number(typed.replace(',', '.')) * 100);

function Amount({
  label,
  value,
  disabled,
  onChange,
}: {
  label: string;
  value: number;
  disabled: boolean;
  onChange: (value: number) => void;
}) {
  return (
    <Labelled label={label}>
      <input
        className="input"
        type="number"
        min={1}
        step="any"
        required
        disabled={disabled}
        value={value / 100}
        onChange={({ target }) => onChange(hundredths(target.value))}
      />
    </Labelled>
  );
}

/** What five people who gave would be asked for. */
function Asked({ rule }: { rule: AskRule }) {
  const format = useFormat();
  const { data, error } = useQuery({
    ...readingByPost('ask-amounts', { body: { ask: rule } }),
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (error) return <ProblemNote error={error} />;
  if (!data || data.length === 0) return <p className="text-ink2">{t`Nobody here has given yet.`}</p>;
  return (
    <table className="w-full">
      <caption className="text-left font-semibold text-[13px] pb-1">{t`What these would be asked for`}</caption>
      <tbody>
        {data.map(({ id, name, last, amounts }) => (
          <tr key={id} className="border-t border-hair">
            <td className="py-1">{name || t`somebody without a name`}</td>
            <td className="text-ink2">
              <Trans>gave {format.money(last)}</Trans>
            </td>
            <td className="text-right tabular-nums">{amounts.map(format.money).join(' · ')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface PartProps {
  rule: AskRule;
  editable: boolean;
  set: (part: Partial<AskRule>) => void;
}

/** Of which gifts, and how much of them. */
function Basis({ rule, editable, set }: PartProps) {
  const shares = SHARES.findIndex(([, one]) => one.join() === rule.shares.join());
  return (
    <>
      <Labelled label={t`Three amounts`}>
        <select
          className="input"
          disabled={!editable}
          value={shares}
          onChange={({ target }) => set({ shares: SHARES[Number(target.value)]![1] })}
        >
          {shares < 0 && <option value={-1}>{rule.shares.join(', ')}</option>}
          {SHARES.map(([words], at) => (
            <option key={words} value={at}>
              {words}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label={t`Of`}>
        <select
          className="input"
          disabled={!editable}
          value={rule.of}
          onChange={({ target }) => set({ of: target.value as AskBase })}
        >
          {ASK_BASES.map((of) => (
            <option key={of} value={of}>
              {BASES[of]}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label={t`Gifts that count`}>
        <select
          className="input"
          disabled={!editable}
          value={rule.months ?? ''}
          onChange={({ target }) => set({ months: target.value === '' ? null : Number(target.value) })}
        >
          {SPANS.map(([words, months]) => (
            <option key={words} value={months ?? ''}>
              {words}
            </option>
          ))}
        </select>
      </Labelled>
    </>
  );
}

/** What those are asked for of whom no gift counts. */
function Otherwise({ rule, editable, set }: PartProps) {
  const [low, middle, high] = rule.otherwise;
  return (
    <fieldset>
      <legend className="font-semibold text-[13px] pb-1">{t`Of those who gave nothing that counts`}</legend>
      <div className="grid grid-cols-3 gap-3">
        <Amount
          label={t`First`}
          value={low}
          disabled={!editable}
          onChange={(one) => set({ otherwise: [one, middle, high] })}
        />
        <Amount
          label={t`Second`}
          value={middle}
          disabled={!editable}
          onChange={(one) => set({ otherwise: [low, one, high] })}
        />
        <Amount
          label={t`Third`}
          value={high}
          disabled={!editable}
          onChange={(one) => set({ otherwise: [low, middle, one] })}
        />
      </div>
    </fieldset>
  );
}

/** The rule by which amounts are asked for, with what five named people will be asked. */
export function AskForm({
  start,
  editable,
  onDone,
}: {
  start: AskRule;
  editable: boolean;
  onDone: (ask: AskRule) => void;
}) {
  const format = useFormat();
  const [rule, setRule] = useState(start);
  const set = (part: Partial<AskRule>) => setRule({ ...rule, ...part });
  const [low, middle, high] = rule.otherwise;
  const sound =
    rule.least > 0 && rule.least <= rule.most && low > 0 && low < middle && middle < high && rule.most > 0;
  return (
    <form
      className="sheet p-5 flex flex-col gap-4 overflow-y-auto"
      onSubmit={(event) => (event.preventDefault(), sound && onDone(rule))}
    >
      <p className="font-title text-[17px]">{askWords(rule, format.money)}</p>
      <div className="grid grid-cols-3 gap-3">
        <Basis rule={rule} editable={editable} set={set} />
        <Amount
          label={t`At least`}
          value={rule.least}
          disabled={!editable}
          onChange={(least) => set({ least })}
        />
        <Amount
          label={t`At most`}
          value={rule.most}
          disabled={!editable}
          onChange={(most) => set({ most })}
        />
        <label className="flex items-center gap-2 pt-5">
          <input
            type="checkbox"
            disabled={!editable}
            checked={rule.friendly}
            onChange={({ target }) => set({ friendly: target.checked })}
          />
          {t`in friendly steps`}
        </label>
      </div>
      <Otherwise rule={rule} editable={editable} set={set} />
      {sound ? (
        <Asked rule={rule} />
      ) : (
        <p role="alert" className="text-madder">
          {t`Amounts rise from the first to the third, and the least is not above the most.`}
        </p>
      )}
      {editable && (
        <Button type="submit" weight="main" className="self-start" disabled={!sound}>
          {t`Ask for these`}
        </Button>
      )}
    </form>
  );
}
