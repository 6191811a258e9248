import type { Mail } from './mail';
type Read = Pick<Mail, 'to' | 'raw' | 'parsed'>;
/** A plain answer, as a mail program writes it: to Reply-To, with what it answers quoted below. */
export declare function answerMail(
  mail: Read,
  words: string,
): {
  to: string;
  raw: string;
} | null;
/** The mail that a mail program sends for the mailto way out of List-Unsubscribe (RFC 2369 §3.2). */
export declare function leavingMail(mail: Read): {
  to: string;
  raw: string;
} | null;
/** A provider's report that its user called a mail spam (RFC 5965), to the domain that the mail's lists live at. */
export declare function complaintMail(mail: Read): {
  to: string;
  raw: string;
} | null;
export {};
