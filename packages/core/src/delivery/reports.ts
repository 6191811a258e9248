import { enhancedStatus } from './faults';

/** One recipient's fields of a delivery status notification. */
export interface ReportedRecipient {
  /** As we wrote it, and as it came to be on the way; in lower case, empty where it is not said. */
  original: string;
  final: string;
  /** "failed", "delayed", "delivered", "relayed" or "expanded" (RFC 3464 §2.3.3). */
  action: string;
  status: string;
  diagnostic: string;
}

/** That a mail came back, and what is said of it. */
export interface ReturnedMail {
  /** Enhanced status code (RFC 3463), empty where nothing like it is said. */
  status: string;
  /** What the server answered, in its words. */
  diagnostic: string;
}

/** A mail to a return path, as far as it tells whether something came back. */
export interface ReturnPathMail {
  /**
   * Decoded fields of message/delivery-status or message/global-delivery-status; null where there are none.
   */
  report: string | null;
  subject: string;
  text: string;
  /** By name in lower case. */
  header(name: string): string;
  /** The envelope's sender; empty for reports (RFC 5321 §4.5.5). */
  envelopeFrom: string;
}

/**
 * Takes out comments in parentheses, nested ones too (RFC 3464 §2.1.1 by RFC 822), but not from quoted
 * words.
 */
function withoutComments(value: string): string {
  let [out, depth, quoted] = ['', 0, false];
  for (let at = 0; at < value.length; at++) {
    const char = value[at]!;
    if (char === '\\' && at + 1 < value.length) {
      if (depth === 0) out += char + value[at + 1]!;
      at += 1;
    } else if (char === '"' && depth === 0) {
      quoted = !quoted;
      out += char;
    } else if (char === '(' && !quoted) depth += 1;
    else if (char === ')' && !quoted && depth > 0) depth -= 1;
    else if (depth === 0) out += char;
  }
  return out.replace(/\s+/g, ' ').trim();
}

/** An address behind its type; `\x{e9}` in one of type utf-8 stands for its letter (RFC 6533 §3). */
function addressOf(value: string): string {
  const [, kind = '', address = ''] = /^([\w-]+) ?;(.*)$/.exec(withoutComments(value)) ?? ['', '', value];
  const plain =
    kind.toLowerCase() === 'utf-8'
      ? address.replace(/\\x\{([0-9a-f]{2,6})\}/gi, (whole, hex: string) => {
          const code = parseInt(hex, 16);
          return code <= 0x10ffff ? String.fromCodePoint(code) : whole;
        })
      : address;
  return plain.replace(/^<|>$/g, '').trim().toLowerCase();
}

/** The recipients of a report (RFC 3464 §2.3, RFC 6533 §3): groups of fields between empty lines. */
export function reportedRecipients(report: string): ReportedRecipient[] {
  const groups = report
    .replace(/\r\n?/g, '\n')
    .replace(/\n[ \t]+(?=\S)/g, ' ')
    .split(/\n[ \t]*\n+/);
  return groups.flatMap((group) => {
    const field = (name: string) =>
      new RegExp(`^${name}[ \\t]*:[ \\t]*(.*)$`, 'im').exec(group)?.[1]?.trim() ?? '';
    const action = withoutComments(field('Action')).toLowerCase();
    if (action === '') return [];
    return {
      original: addressOf(field('Original-Recipient')),
      final: addressOf(field('Final-Recipient')),
      action,
      status: withoutComments(field('Status')),
      // What a server answered may have parentheses of its own: they are its words.
      diagnostic: field('Diagnostic-Code').replace(/^\s*[\w-]+\s*;\s*/, ''),
    };
  });
}

/**
 * What a report says of one address: the group that names it; else, since it may have been passed on under
 * another name, a failure only where each of the others failed.
 */
function failureFor(recipients: readonly ReportedRecipient[], address: string): ReportedRecipient | null {
  const own = address.toLowerCase();
  const ours = recipients.filter((one) => one.original === own || one.final === own);
  const asked = ours.length > 0 ? ours : recipients;
  const failed = asked.filter(({ action }) => action === 'failed');
  return failed.length === asked.length ? (failed[0] ?? null) : null;
}

/** Words of mail servers that have no report of fields (common practice, no source). */
const RETURNED =
  /\b(?:undeliver(?:ed|able)|returned (?:mail|to sender)|delivery (?:status notification|failure|has failed|failed)|(?:mail|message) delivery (?:failed|failure)|failure notice|could not be delivered|non[- ]?delivery)\b/i;
const LATE = /\b(?:delayed?|warning|will (?:be )?(?:keep )?(?:re)?tr(?:y|ied)|not yet been delivered)\b/i;

/**
 * Whether a mail to a return path says that ours came back; null where it does not: a delay, an answer of a
 * machine (RFC 3834), a word of thanks. Older servers send words alone, which are read where their subject
 * says what they are, or a header names who failed.
 */
export function returnedMail(mail: ReturnPathMail, address: string): ReturnedMail | null {
  if (mail.report !== null) {
    const recipients = reportedRecipients(mail.report);
    if (recipients.length > 0) {
      const failed = failureFor(recipients, address);
      return failed && { status: failed.status, diagnostic: failed.diagnostic };
    }
  }
  if (LATE.test(mail.subject)) return null;
  const named = mail.header('x-failed-recipients').toLowerCase();
  if (named === '') {
    const isAnswer = /^auto-replied/i.test(mail.header('auto-submitted'));
    if (mail.envelopeFrom !== '' || isAnswer || !RETURNED.test(mail.subject)) return null;
  }
  // The line that has a code in it says most; the words of ours below it say nothing.
  const lines = mail.text.slice(0, 20_000).split('\n');
  const telling = lines.find((line) => /(?:^|\D)[45]\d\d[ -]/.test(line) && enhancedStatus(line) !== null);
  const coded =
    telling ?? lines.find((line) => enhancedStatus(line) !== null || /(?:^|[^\d.])5\d\d[ -]\D/.test(line));
  const code = enhancedStatus(coded ?? '');
  return {
    status: code ? `${code.class}.${code.subject}.${code.detail}` : '',
    diagnostic: (/[45]\d\d[ -].*/.exec(coded ?? '')?.[0] ?? coded ?? '').trim().slice(0, 300),
  };
}
