import { said, type Said } from '../common';
import { cleanEmail, cleanMobile } from './clean';

/**
 * What is never to be written to: one address, all of a domain, one number, or a range of numbers (E.164,
 * both ends in it).
 */
export type Refusal =
  | { kind: 'email'; normal: string }
  | { kind: 'mobile'; normal: string }
  | { kind: 'domain'; normal: string }
  | { kind: 'range'; from: string; to: string };

const LONGEST = 1000;
const DOMAIN = /^@?((?:[\p{L}\p{N}](?:[\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?\.)+\p{L}{2,63})$/u;

/**
 * Reads one line of a do-not-contact list. A domain has no local part ("@example.org" or "example.org"); a
 * range is two numbers of equal length with a dash between that is set off by spaces or by a second plus
 * sign.
 */
export function readRefusal(
  line: string,
  country: string,
): { ok: true; refusal: Refusal } | { ok: false; reason: Said } {
  if (line.length > LONGEST) return { ok: false, reason: said('refusal.long', { length: line.length }) };
  const text = line.trim().replace(/\s+/g, ' ').replace(/^"|"$/g, '');
  const range = /^(\+?[\d ().-]{1,40}?) ?(?: [-–] |[-–](?=\+)|\.\.) ?(\+?[\d ().-]{1,40})$/.exec(text);
  if (range) return readRange(range[1]!, range[2]!, country);
  const domain = DOMAIN.exec(text);
  if (domain) return { ok: true, refusal: { kind: 'domain', normal: domain[1]!.toLowerCase() } };
  if (text.includes('@')) {
    const email = cleanEmail(text);
    return email.ok ? { ok: true, refusal: { kind: 'email', normal: email.normal } } : email;
  }
  const mobile = cleanMobile(text, country);
  if (mobile.ok) return { ok: true, refusal: { kind: 'mobile', normal: mobile.normal } };
  return { ok: false, reason: said('refusal.wrong') };
}

function readRange(from: string, to: string, country: string): ReturnType<typeof readRefusal> {
  const [a, b] = [cleanMobile(from, country), cleanMobile(to, country)];
  if (!a.ok) return a;
  if (!b.ok) return b;
  if (a.normal.length !== b.normal.length || a.normal > b.normal)
    return { ok: false, reason: said('refusal.range') };
  return { ok: true, refusal: { kind: 'range', from: a.normal, to: b.normal } };
}

/**
 * The domains that an address lies under, its own first: what closes a domain closes whatever is below it.
 */
export function refusalDomains(email: string): string[] {
  const labels = email.slice(email.lastIndexOf('@') + 1).split('.');
  return labels.slice(0, -1).map((_label, i) => labels.slice(i).join('.'));
}
