import type { MailReader } from './mail-reader';

/** What a provider reports about one mail (RFC 5965, "abuse reporting format"). */
export interface FeedbackReport {
  /**
   * The type as it is written, in lower case: "abuse", "fraud", "not-spam" (RFC 6430), "auth-failure" (RFC
   * 6591).
   */
  type: string;
  /** The mail that it is about, or its headers, as far as the report has them; decoded. */
  original: string;
}

/** Types by which somebody says that they do not want it. */
const COMPLAINTS = ['abuse', 'fraud', 'opt-out', 'opt-out-list'];

export function isComplaint(report: FeedbackReport): boolean {
  return COMPLAINTS.includes(report.type);
}

/** Reads a report in whatever encoding its parts come; null where it is none. */
export async function readFeedbackReport(reader: MailReader, raw: Buffer): Promise<FeedbackReport | null> {
  const mail = await reader.read(raw);
  const part = (type: string) =>
    mail.attachments.find(({ contentType }) => contentType.toLowerCase() === type)?.content.toString('utf8');
  const fields =
    part('message/feedback-report') ?? (/^feedback-type:/im.test(mail.text) ? mail.text : undefined);
  const type = /^feedback-type:\s*([\w-]+)/im.exec(fields ?? '')?.[1]?.toLowerCase();
  if (!fields || !type) return null;
  const original =
    part('message/rfc822') ?? part('text/rfc822-headers') ?? part('message/rfc822-headers') ?? '';
  return { type, original: `${unfolded(original)}\n${await decoded(reader, original)}` };
}

/** Headers on one line each, and what quoted-printable broke, together again. */
function unfolded(text: string): string {
  return text.replace(/\r?\n[ \t]+/g, ' ').replace(/=\r?\n/g, '');
}

/** The words of the original, whatever encoding they were sent in. */
async function decoded(reader: MailReader, original: string): Promise<string> {
  if (original.trim() === '') return '';
  // The report itself was read; without the words of the original what stands in its headers has to do.
  const mail = await reader.read(Buffer.from(original)).catch(() => null);
  return mail ? `${mail.text}\n${mail.html}` : '';
}
