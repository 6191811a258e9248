import type { Instant } from '../common';

/** Minutes that a domain is left alone, longer each time that it goes on. */
export const REST_MINUTES: readonly number[] = [1, 2, 4, 8, 15, 30];

/**
 * So many put off one after the other, and it is the domain that asks for a while: one alone may be one
 * mailbox, or a server that puts everybody off the first time (greylisting, RFC 6647).
 */
export const PUT_OFF_IN_A_ROW = 10;

interface PuttingOff {
  inARow: number;
  /** How often it was left alone since it took a mail. */
  times: number;
  until: Instant;
}

const domainOf = (address: string): string => address.slice(address.lastIndexOf('@') + 1).toLowerCase();

/**
 * Domains that put us off (450, 451: RFC 5321 §4.2.3), each with a rest of its own that doubles while it
 * goes on doing so, up to half an hour, and is over with the first mail that is taken. What is said within a
 * rest does not count: those that were under way side by side meet the same answer.
 */
export class DomainRests {
  private readonly resting = new Map<string, PuttingOff>();

  /** From when on mail may go to an address's domain; `now` where it may. */
  from(address: string, now: Instant): Instant {
    return Math.max(now, this.resting.get(domainOf(address))?.until ?? now);
  }

  /** A mail to it was put off at `now`. */
  putOff(address: string, now: Instant): void {
    const domain = domainOf(address);
    const before = this.resting.get(domain) ?? { inARow: 0, times: 0, until: -Infinity };
    if (now < before.until) return;
    const inARow = before.inARow + 1;
    if (inARow < PUT_OFF_IN_A_ROW) return void this.resting.set(domain, { ...before, inARow });
    const minutes = REST_MINUTES[Math.min(before.times, REST_MINUTES.length - 1)]!;
    this.resting.set(domain, { inARow: 0, times: before.times + 1, until: now + minutes * 60_000 });
  }

  /** A mail to it was taken: it is asked as before. */
  taken(address: string): void {
    this.resting.delete(domainOf(address));
  }
}
