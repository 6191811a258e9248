import { fault, NUMBER_ASKS, type FieldKind } from '../field-kind';
import { formatMoney } from '../format';
import { readMoney } from '../money';

/** An amount in the house's currency. */
export const moneyKind: FieldKind = {
  kept: 'number',
  asks: NUMBER_ASKS,
  read: (text, { currency }) => {
    const money = readMoney(text);
    if (money === null) return fault('value.amount', text);
    if (currency && money.currency && money.currency !== currency)
      return fault('value.currency', text, { currency });
    return { ok: true, value: { number: money.minor } };
  },
  write: ({ number }, manner) => (number === undefined ? '' : formatMoney(number, manner)),
  iso: ({ number }) => (number === undefined ? '' : (number / 100).toFixed(2)),
};
