import { editDistance, said, type Said } from '../common';

/**
 * Domains that many people have their mail at (common practice, no source). Only for telling a likely slip of
 * the finger:
 * nothing is ever corrected by itself.
 */
const COMMON_DOMAINS = [
  'gmail.com',
  'googlemail.com',
  'yahoo.com',
  'yahoo.co.uk',
  'yahoo.fr',
  'yahoo.de',
  'yahoo.es',
  'hotmail.com',
  'hotmail.co.uk',
  'hotmail.fr',
  'outlook.com',
  'live.com',
  'msn.com',
  'icloud.com',
  'me.com',
  'aol.com',
  'comcast.net',
  'verizon.net',
  'protonmail.com',
  'gmx.de',
  'gmx.net',
  'web.de',
  't-online.de',
  'orange.fr',
  'wanadoo.fr',
  'free.fr',
  'laposte.net',
  'btinternet.com',
];

/**
 * The domain that was probably meant, where one letter is wrong, missing, doubled or out of place; null
 * otherwise.
 */
export function meantDomain(domain: string): string | null {
  const known = MEANT.get(domain);
  if (known !== undefined) return known;
  const meant = nearCommon(domain);
  // A file of half a million addresses has some thousand domains; an attacker's has as many as it has rows.
  if (MEANT.size > 20_000) MEANT.clear();
  MEANT.set(domain, meant);
  return meant;
}
const MEANT = new Map<string, string | null>();

function nearCommon(domain: string): string | null {
  if (COMMON_DOMAINS.includes(domain)) return null;
  const near = COMMON_DOMAINS.filter(
    (known) => Math.abs(known.length - domain.length) <= 1 && isOneSlip(known, domain),
  );
  return near[0] ?? null;
}

function isOneSlip(known: string, typed: string): boolean {
  // Short names lie one letter apart from each other by chance (me.com, mo.com).
  if (known.length < 7) return false;
  return editDistance(known, typed) === 1 || isTransposed(known, typed);
}

function isTransposed(a: string, b: string): boolean {
  if (a.length !== b.length) return false;
  const at = [...a].findIndex((letter, i) => letter !== b[i]);
  return at >= 0 && a[at] === b[at + 1] && a[at + 1] === b[at] && a.slice(at + 2) === b.slice(at + 2);
}

/** Mailboxes of a function rather than a person: RFC 2142 §2 to §5 and those in common use beside them. */
const ROLES = new Set([
  ...[
    'info',
    'marketing',
    'sales',
    'support',
    'abuse',
    'noc',
    'security',
    'postmaster',
    'hostmaster',
    'usenet',
    'news',
    'webmaster',
    'www',
    'uucp',
    'ftp',
  ],
  ...[
    'admin',
    'administrator',
    'contact',
    'office',
    'hello',
    'help',
    'billing',
    'accounts',
    'noreply',
    'no-reply',
    'team',
    'mail',
    'jobs',
    'press',
  ],
]);

/**
 * Whether an address is that of a function (RFC 2142 and common practice): it reaches an office, not a
 * person.
 */
export function isRoleAddress(normal: string): boolean {
  return ROLES.has(normal.slice(0, normal.indexOf('@')));
}

/** What is worth telling about an address that is otherwise sound; null where nothing is. */
export function addressHint(normal: string): Said | null {
  const domain = normal.slice(normal.lastIndexOf('@') + 1);
  const meant = meantDomain(domain);
  if (meant) return said('email.meant', { domain, meant });
  return isRoleAddress(normal)
    ? said('email.function', { local: normal.slice(0, normal.indexOf('@')) })
    : null;
}
