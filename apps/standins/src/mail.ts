import type { ParsedMail } from 'mailparser';

/** A mail that arrived. */
export interface CaughtMail {
  id: number;
  to: string;
  returnPath: string;
  at: Date;
  raw: Buffer;
  parsed: ParsedMail;
}
