import { t } from '@lingui/core/macro';
import type { MessageResults } from '@goodword/core/contract';
import { useFormat } from '../app/format';

/** What the message itself did: who gave of those who got it, and of those kept without it by lot. */
export function WithoutIt({ without }: { without: NonNullable<MessageResults['without']> }) {
  const format = useFormat();
  const signed = (share: number) => `${share > 0 ? '+' : ''}${format.percent(share)}`;
  const [more, low, high] = [signed(without.more), signed(without.low), signed(without.high)];
  const rows = [
    [t`With it`, without.meant],
    [t`Kept without it`, without.kept],
  ] as const;
  return (
    <section className="sheet p-5 mb-4" aria-label={t`What the message itself did`}>
      <h2 className="subtitle pb-1">{t`What the message itself did`}</h2>
      <p role="status">
        {without.differs
          ? t`A difference is seen: of those with it ${more} gave (${low} to ${high}).`
          : t`No difference is seen: of those with it ${more} gave (${low} to ${high}), which chance alone can make.`}
      </p>
      <table className="w-full mt-2">
        <thead>
          <tr className="text-left text-ink2 text-[12.5px]">
            <th />
            <th className="font-semibold text-right py-1">{t`People`}</th>
            <th className="font-semibold text-right">{t`Gave since`}</th>
            <th className="font-semibold text-right">{t`In all`}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([words, { people, gave, given }]) => (
            <tr key={words} className="border-t border-hair">
              <th scope="row" className="text-left py-[7px] font-semibold">
                {words}
              </th>
              <td className="text-right">{format.number(people)}</td>
              <td className="text-right">
                {format.number(gave)} <span className="text-ink2">{format.percent(gave / people)}</span>
              </td>
              <td className="text-right">{format.money(given)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-ink2 text-[12px] pt-2">
        {t`Drawn by lot when it was made ready. Counted is whoever gave since, for whatever reason; in brackets, where the true difference lies 95 times in 100.`}
      </p>
    </section>
  );
}
