import { said } from '../common';
import { isRoleAddress } from './health';
import { reasonsOf } from './row';
import { type CleanRow } from './clean-row';

/** What was found out about the domains of a file's addresses. */
export interface DomainFacts {
  /** Takes no mail at all. */
  dead(domain: string): boolean;
  /** Gives out addresses that are thrown away after use. */
  disposable(domain: string): boolean;
}

const domainOf = (normal: string) => normal.slice(normal.lastIndexOf('@') + 1);

/** Domains of a row's addresses. */
export function domainsOfRow(row: CleanRow): string[] {
  return [row.email, ...row.moreEmails].flatMap((email) => (email ? [domainOf(email.normal)] : []));
}

/**
 * The row without addresses at domains that take no mail, which are told as faults; disposable ones are kept
 * and told. A row that has nothing left to reach the person by can't come in.
 */
export function withDomains(row: CleanRow, facts: DomainFacts, emailColumn: number): CleanRow {
  const emails = [row.email, ...row.moreEmails].filter((email) => email !== null);
  const dead = emails.filter(({ normal }) => facts.dead(domainOf(normal)));
  const thrownAway = emails.filter(
    ({ normal }) => facts.disposable(domainOf(normal)) && !isRoleAddress(normal),
  );
  if (dead.length + thrownAway.length === 0) return row;
  const [email = null, ...moreEmails] = emails.filter((one) => !dead.includes(one));
  const faults = dead.map(({ shown, normal }) => ({
    column: emailColumn,
    reason: said('email.dead', { shown, domain: domainOf(normal) }),
  }));
  const hints = thrownAway.map(({ normal }) => ({
    column: emailColumn,
    reason: said('email.throwaway', { domain: domainOf(normal) }),
  }));
  const out = {
    ...row,
    email,
    moreEmails,
    faults: [...row.faults, ...faults],
    hints: [...row.hints, ...hints],
  };
  if (row.fatal === null && !email && !row.mobile && !row.externalId) out.fatal = reasonsOf(out.faults);
  return out;
}
