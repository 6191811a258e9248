import type { ReadMail } from './mail-reader';

/**
 * Whether a mail was written by a machine and so is nobody's word: out-of-office answers, receipts, lists,
 * reports that something could not be delivered. RFC 3834 §5 (Auto-Submitted) and §2 (the null sender); the
 * others are common practice.
 */
export function isFromMachine(mail: Pick<ReadMail, 'headers'>, envelopeFrom: string): boolean {
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
