import { type MergePart, type MergeSlot, type MergeValues, isChoice, passageFor, valueIn } from '../merge';
import { encodePiece, QuotedPrintable, type EncodedPiece } from './quoted-printable';

/** A part of which everything is encoded that is the same for everybody. */
type SkeletonPart = EncodedPiece | { slot: MergeSlot } | SkeletonChoice;

interface SkeletonChoice {
  choice: Extract<MergePart, { when: unknown }>;
  then: SkeletonPart[];
  otherwise: SkeletonPart[];
}

/** The words of a mail, ready to be filled for any number of people: what is fixed is encoded already. */
export interface MailSkeleton {
  plain: SkeletonPart[];
  html: SkeletonPart[];
}

function skeletonParts(parts: readonly MergePart[]): SkeletonPart[] {
  return parts.map((part): SkeletonPart => {
    if (typeof part === 'string') return encodePiece(part);
    if (!isChoice(part)) return { slot: part };
    return {
      choice: part,
      then: skeletonParts(part.then),
      otherwise: skeletonParts(part.otherwise),
    };
  });
}

/** Encodes what is the same for everybody; the words of `html` are escaped already. */
export const mailSkeleton = (words: {
  text: readonly MergePart[];
  html: readonly MergePart[];
}): MailSkeleton => ({ plain: skeletonParts(words.text), html: skeletonParts(words.html) });

function fill(
  into: QuotedPrintable,
  parts: readonly SkeletonPart[],
  values: MergeValues,
  escape: ((value: string) => string) | null,
): void {
  for (const part of parts) {
    if ('text' in part) into.piece(part);
    else if ('choice' in part) {
      const chosen = passageFor(part.choice, values) === part.choice.then ? part.then : part.otherwise;
      fill(into, chosen, values, escape);
    } else {
      const value = valueIn(part.slot, values);
      into.value(escape ? escape(value) : value);
    }
  }
}

/**
 * Never in what is quoted-printable, where `=` stands before two figures or an end of line (RFC 2045 §6.7).
 */
const BOUNDARY = '=_words';
const headOf = (kind: string): string =>
  `Content-Type: text/${kind}; charset=utf-8\r\nContent-Transfer-Encoding: quoted-printable\r\n\r\n`;
const TOP = `--${BOUNDARY}\r\n${headOf('plain')}`;
const MIDDLE = `\r\n--${BOUNDARY}\r\n${headOf('html')}`;
const END = `\r\n--${BOUNDARY}--\r\n`;

/** The type of every body here: the same words twice, the richer last (RFC 2046 §5.1.4). */
export const MAIL_TYPE = `multipart/alternative; boundary="${BOUNDARY}"`;

/**
 * The body of one person's mail: lines of at most 76 characters of ASCII, each ended by CRLF, of the type
 * MAIL_TYPE. `escape` is for values in HTML.
 */
export function fillMail(
  { plain, html }: MailSkeleton,
  values: MergeValues,
  escape: (value: string) => string,
): string {
  const [words, page] = [new QuotedPrintable(), new QuotedPrintable()];
  fill(words, plain, values, null);
  fill(page, html, values, escape);
  return TOP + words.toString() + MIDDLE + page.toString() + END;
}

/** The body of a mail that is one person's alone. */
export const mailBody = ({ text, html }: { text: string; html: string }): string =>
  fillMail(mailSkeleton({ text: [text], html: [html] }), {}, (value) => value);
