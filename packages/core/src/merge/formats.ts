/** What a merge field holds, as far as it can be written in several ways. */
export type FormattedKind = 'date' | 'money' | 'number' | 'name';

/** How values are written: the message's language with a country (BCP 47), and the currency (ISO 4217). */
export interface ValueManner {
  locale: string;
  currency: string;
}

type Format = (raw: string, manner: ValueManner) => string;

const onDay =
  (options: Intl.DateTimeFormatOptions): Format =>
  (raw, { locale }) =>
    new Intl.DateTimeFormat(locale, { ...options, timeZone: 'UTC' }).format(Date.parse(`${raw}T00:00:00Z`));

const inMoney =
  (options: Intl.NumberFormatOptions): Format =>
  (raw, { locale, currency }) =>
    new Intl.NumberFormat(locale, { style: 'currency', currency, ...options }).format(Number(raw) / 100);

const inNumber =
  (digits: number): Format =>
  (raw, { locale }) =>
    new Intl.NumberFormat(locale, { minimumFractionDigits: digits, maximumFractionDigits: digits }).format(
      Number(raw),
    );

/**
 * The formats of each kind, by the words that they are asked for in: `{Last gift: date, as month and year}`.
 * A day comes as YYYY-MM-DD, money in hundredths, a number with a point. Languages are those of CLDR, through
 * Intl.
 */
const FORMATS: Record<FormattedKind, Record<string, Format>> = {
  date: {
    short: onDay({ dateStyle: 'short' }),
    long: onDay({ dateStyle: 'long' }),
    full: onDay({ dateStyle: 'full' }),
    'day and month': onDay({ day: 'numeric', month: 'long' }),
    'month and year': onDay({ month: 'long', year: 'numeric' }),
    month: onDay({ month: 'long' }),
    year: onDay({ year: 'numeric' }),
    weekday: onDay({ weekday: 'long' }),
  },
  money: {
    whole: inMoney({ minimumFractionDigits: 0, maximumFractionDigits: 0 }),
    'with cents': inMoney({ minimumFractionDigits: 2, maximumFractionDigits: 2 }),
    'with code': inMoney({ currencyDisplay: 'code' }),
    // As pages that take gifts read amounts in their address.
    number: (raw) => String(Number(raw) / 100),
  },
  number: { whole: inNumber(0), 'one decimal': inNumber(1), 'two decimals': inNumber(2) },
  name: {
    capitals: (raw, { locale }) => raw.toLocaleUpperCase(locale),
    initial: (raw, { locale }) => {
      const [first] = new Intl.Segmenter(locale, { granularity: 'grapheme' }).segment(raw.trim());
      return first ? `${first.segment.toLocaleUpperCase(locale)}.` : '';
    },
  },
};

/** The words that ask for the formats of a kind, in the order in which they are offered. */
export const formatNames = (kind: FormattedKind): string[] => Object.keys(FORMATS[kind]);

/** A value as a format writes it; as it came where it can't be read. */
export function formatted(kind: FormattedKind, as: string, raw: string, manner: ValueManner): string {
  try {
    return FORMATS[kind][as]?.(raw, manner) ?? raw;
  } catch {
    return raw;
  }
}

/** The key under which a value stands before it is written in any way. */
export const rawKey = (key: string): string => `raw:${key}`;
