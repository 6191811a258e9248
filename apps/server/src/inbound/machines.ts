import type { ReplyIntent } from '@goodword/core/text';
import type { ReadMail } from './mail-reader';

/**
 * What answering machines write into subjects, where they say it nowhere else. Common practice; no source.
 */
const MACHINE_SUBJECT =
  /^\s*(?:auto(?:matic)?[- ]?reply|out of (?:the )?office|automatische antwort|abwesenheitsnotiz|r[ée]ponse automatique|absence du bureau|respuesta autom[áa]tica|fuera de (?:la )?oficina)\b/iu;

/**
 * Whether a mail was written by a machine and so is nobody's word: out-of-office answers, receipts, lists,
 * reports that something could not be delivered. RFC 3834 §5 (Auto-Submitted) and §2 (the null sender); the
 * others are common practice. A subject alone is no proof: whoever asks to stop under one is heard.
 */
export function isFromMachine(
  mail: Pick<ReadMail, 'headers' | 'subject'>,
  envelopeFrom: string,
  asks: ReplyIntent = 'none',
): boolean {
  if (MACHINE_SUBJECT.test(mail.subject) && asks !== 'stop' && asks !== 'hold') return true;
  const header = (name: string) => headerWords(mail, name);
  const submitted = header('auto-submitted').toLowerCase();
  if (submitted !== '' && !submitted.startsWith('no')) return true;
  if (/^(bulk|junk|list|auto_reply)$/i.test(header('precedence'))) return true;
  if (
    ['x-autoreply', 'x-autorespond', 'x-auto-response-suppress', 'x-autoreply-from'].some(
      (name) => header(name) !== '',
    )
  )
    return true;
  return envelopeFrom === '' || /^multipart\/report\b/i.test(header('content-type'));
}

/** A header's words; of one that stands twice, both. */
export function headerWords(mail: Pick<ReadMail, 'headers'>, name: string): string {
  const value = valueOf(mail.headers.get(name));
  return typeof value === 'string' ? value.trim() : Array.isArray(value) ? value.join(' ').trim() : '';
}

/** Headers with parameters come as an object. */
function valueOf(header: unknown): unknown {
  return typeof header === 'object' && header !== null && 'value' in header ? header.value : header;
}
