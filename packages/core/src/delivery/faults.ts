/** What a refusal says something of, and so what follows from it. */
export const DELIVERY_FAULTS = ['address', 'full', 'policy', 'provider', 'message', 'unknown'] as const;
export type DeliveryFault = (typeof DELIVERY_FAULTS)[number];

/** An answer of a mail server, or the status of a mail that came back. */
export interface MailRefusal {
  /** The reply code of SMTP (RFC 5321 §4.2), where it was an answer. */
  reply: number | null;
  /** The words beside it; an enhanced status code at their beginning is read. */
  text: string;
  /** The command that was refused, where it was an answer. */
  command?: string;
}

/** An enhanced status code (RFC 3463 §2): class, subject and detail. */
export interface EnhancedStatus {
  class: 2 | 4 | 5;
  subject: number;
  detail: number;
}

const ENHANCED = /(?:^|[\s(#])([245])\.(\d{1,3})\.(\d{1,3})(?=$|[\s),;:-]|\.(?!\d))/;

/** The enhanced status code in an answer or a status field; null where there is none. */
export function enhancedStatus(text: string): EnhancedStatus | null {
  const found = ENHANCED.exec(text.slice(0, 400));
  if (!found) return null;
  return {
    class: Number(found[1]) as EnhancedStatus['class'],
    subject: Number(found[2]),
    detail: Number(found[3]),
  };
}

/** Words of servers that say a mail is not wanted, whatever their code (common practice, no source). */
const POLICY_WORDS =
  /\b(?:spam|spamhaus|blacklist\w*|blocklist\w*|block(?:ed)? list|blocked|reputation|policy|dmarc|dkim|spf|bulk|unsolicited|rate limit\w*|too many (?:messages|connections))\b/i;
const FULL_WORDS = /\b(?:mailbox (?:is )?full|over ?quota|quota exceeded|exceeded storage|out of storage)\b/i;
const GONE_WORDS =
  /\b(?:no such (?:user|mailbox|person|recipient)|user unknown|unknown user|unknown recipient|does not exist|mailbox unavailable|invalid recipient|recipient rejected|account (?:is )?(?:disabled|closed)|no mailbox)\b/i;

/** By subject and detail of RFC 3463 §3; 5.1.10 is RFC 7505, 5.7.8 to 5.7.14 are RFC 4954 and RFC 6710. */
function faultOfStatus({ subject, detail }: EnhancedStatus, text: string): DeliveryFault {
  switch (subject) {
    case 1:
      // The sender's own address is ours to mend.
      return detail === 7 || detail === 8 ? 'provider' : 'address';
    case 2:
      return detail === 2 ? 'full' : detail === 3 ? 'message' : detail === 4 ? 'unknown' : 'address';
    case 3:
      return detail === 4 ? 'message' : 'unknown';
    case 6:
      return 'message';
    case 7:
      if (detail >= 8 && detail <= 14) return 'provider';
      // Some say "no such user" with a code of policy: the words are plainer.
      return GONE_WORDS.test(text) && !POLICY_WORDS.test(text) ? 'address' : 'policy';
    default:
      // No route, no answer, a fault of protocol: it says nothing of the address.
      return 'unknown';
  }
}

/** Without an enhanced code: by the reply and its words (RFC 5321 §4.2.3, and common practice). */
function faultOfReply(reply: number, text: string): DeliveryFault {
  if (FULL_WORDS.test(text) || reply === 552 || reply === 452) return 'full';
  if (POLICY_WORDS.test(text)) return 'policy';
  if (reply === 550 || reply === 551 || reply === 553) return 'address';
  return GONE_WORDS.test(text) ? 'address' : 'unknown';
}

/** Codes of a server that lets nobody in as it stands: who we are, not whom we write to (RFC 4954 §6). */
const OURS = new Set([530, 534, 535, 538]);

/**
 * What a refusal means. An address is held for `address` alone; a full mailbox may have room tomorrow;
 * `policy` is about who sends or what; `provider` is between us and our server, and concerns everybody.
 */
export function deliveryFault({ reply, text, command }: MailRefusal): DeliveryFault {
  if (reply !== null && OURS.has(reply)) return 'provider';
  if (command === 'MAIL FROM' || command === 'AUTH' || command === 'EHLO' || command === 'STARTTLS')
    return 'provider';
  const status = enhancedStatus(text);
  const fault = status ? faultOfStatus(status, text) : faultOfReply(reply ?? 0, text);
  // What is refused after the words were given is about them, not about who they are for.
  return command === 'DATA' && fault === 'address' && !status ? 'policy' : fault;
}

/**
 * Minutes to wait after each refusal that may pass (4yz), shorter first; together three days, after which it
 * is given up. RFC 5321 §4.5.4.1 asks for at least half an hour between tries and four to five days in all
 * of a server; the first, shorter ones are for greylisting (RFC 6647 §4), and ours hands over to one that
 * has its own queue.
 */
export const RETRY_MINUTES: readonly number[] = [
  ...[1, 5, 15, 30, 60, 120, 240],
  ...Array.from({ length: 16 }, () => 240),
];

/** Minutes until the next try after so many (from 0); null where it is given up. */
export const retryAfter = (attempts: number): number | null => RETRY_MINUTES[attempts] ?? null;

/** Mails that came back because of it: so many of a kind within a message pause its sending. */
export const PAUSE_AT_POLICY = 3;

/** So often full within so many days, and a mailbox is held (common practice, no source). */
export const FULL_MAILBOX = { times: 3, days: 30 } as const;
