import type { ParsedMail } from 'mailparser';
/** A mail that arrived. */
export interface Mail {
  id: number;
  to: string;
  returnPath: string;
  at: Date;
  raw: Buffer;
  parsed: ParsedMail;
}
