import { Metadata } from 'libphonenumber-js/min';

/*
 * libphonenumber puts each of its patterns together anew for every number, 21 µs in all. Most numbers in an
 * American list are ten plain digits; for these its own pattern of the United States, put together once, says
 * the same in 2 µs.
 */

const SHAPE = /^(\+1[ .-]?|1[ .-]?)?\(?(\d{3})\)?[ .-]{0,2}(\d{3})[ .-]?(\d{4})$/;

let american: RegExp | undefined;

function americanPattern(): RegExp {
  const metadata = new Metadata();
  metadata.selectNumberingPlan('US');
  // Of the United States fixed lines and mobiles share one pattern; the declared types leave it out.
  const plan = metadata.numberingPlan as unknown as { type(kind: 'FIXED_LINE'): { pattern(): string } };
  return new RegExp(`^(?:${plan.type('FIXED_LINE').pattern()})$`);
}

/**
 * The number in E.164 and as it is shown, where it is plainly one of the United States: with +1, or read
 * there in the default country. Null for every other, sound or not.
 */
export function plainAmerican(text: string, country: string): { normal: string; shown: string } | null {
  const found = SHAPE.exec(text);
  if (!found) return null;
  const [, code, area, exchange, line] = found;
  if (country !== 'US' && !code?.startsWith('+')) return null;
  american ??= americanPattern();
  if (!american.test(`${area}${exchange}${line}`)) return null;
  return { normal: `+1${area}${exchange}${line}`, shown: `+1 ${area} ${exchange} ${line}` };
}
