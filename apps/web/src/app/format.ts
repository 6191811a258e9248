import { useSession } from './session';

/** Dates, numbers and money in the organization's manner; times say whose time only where it is not ours. */
export function useFormat() {
  const { organization } = useSession();
  const { locale, currency, timeZone } = organization;
  return {
    number: (value: number) => new Intl.NumberFormat(locale).format(value),
    percent: (value: number) =>
      new Intl.NumberFormat(locale, { style: 'percent', maximumFractionDigits: 1 }).format(value),
    money: (minor: number) =>
      new Intl.NumberFormat(locale, {
        style: 'currency',
        currency,
        minimumFractionDigits: minor % 100 === 0 ? 0 : 2,
      }).format(minor / 100),
    day: (iso: string) =>
      new Intl.DateTimeFormat(locale, {
        dateStyle: 'medium',
        timeZone: iso.length === 10 ? 'UTC' : timeZone,
      }).format(new Date(iso)),
    weekday: (iso: string) =>
      new Intl.DateTimeFormat(locale, {
        ...{ weekday: 'long', day: 'numeric', month: 'long' },
        timeZone: iso.length === 10 ? 'UTC' : timeZone,
      }).format(new Date(iso)),
    month: (iso: string) =>
      new Intl.DateTimeFormat(locale, { month: 'short', year: 'numeric', timeZone: 'UTC' }).format(
        new Date(iso),
      ),
    moment: (iso: string) =>
      new Intl.DateTimeFormat(locale, { dateStyle: 'medium', timeStyle: 'short', timeZone }).format(
        new Date(iso),
      ),
  };
}
