export { fillMail, MAIL_TYPE, mailBody, mailSkeleton, type MailSkeleton } from './skeleton';
export {
  encodedWords,
  foldHeader,
  givenHeader,
  mailboxHeader,
  mailDate,
  wordsHeader,
  type Mailbox,
} from './headers';
export { encodePiece, QuotedPrintable, type EncodedPiece } from './quoted-printable';
export {
  relaxedHeader,
  SEALED_HEADERS,
  signatureHead,
  signedNames,
  signedWords,
  type SignatureTags,
} from './signature';
