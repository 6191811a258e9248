import { plural, t } from '@lingui/core/macro';
import { useFormat } from '../app/format';
import type { WhenChosen } from './useWhen';

/** Of a hundred so many can be kept without a message; 0 for nobody. */
const SHARES = [0, 5, 10, 20, 50];

/** Of so many who may get it, about so many are kept without it. */
export const aboutKept = (reached: number, share: number | null) =>
  Math.round((reached * (share ?? 0)) / 100);

/** Some are kept without it, so that it is seen what the message itself did. */
export function KeptWithout({ when, onChange }: { when: WhenChosen; onChange: () => void }) {
  const format = useFormat();
  return (
    <select
      className="input !w-auto"
      aria-label={t`Whether some are kept without it`}
      value={when.keptShare ?? 0}
      onChange={({ target }) => {
        when.setKeptShare(Number(target.value) || null);
        onChange();
      }}
    >
      {SHARES.map((share) => {
        const percent = format.percent(share / 100);
        return (
          <option key={share} value={share}>
            {share === 0 ? t`to everybody` : t`${percent} go without`}
          </option>
        );
      })}
    </select>
  );
}

/** How many that will be, and what for. */
export function WithoutWords({ reached, share }: { reached: number; share: number | null }) {
  if (share === null) return null;
  return (
    <p className="text-ink3 text-[12.5px] text-right">
      {plural(aboutKept(reached, share), {
        one: 'About # person, drawn by lot, gets none of it: so you see afterwards how many would have given anyway.',
        other:
          'About # people, drawn by lot, get none of it: so you see afterwards how many would have given anyway.',
      })}
    </p>
  );
}
