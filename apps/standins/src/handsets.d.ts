import type { Text } from './text';
export interface HandsetsOptions {
  port: number;
  key: string;
  hookUrl: string;
  hookSecret: string;
  /** Our number, to which phones answer. */
  ourNumber: string;
  /** Milliseconds before a text is reported as delivered. */
  receiptDelay?: number;
  /** Report each receipt twice, as networks do. */
  repeatReceipts?: boolean;
}
/**
 * Simulates a text gateway and the phones behind it. The same idempotency key is delivered once. Numbers ending in 0198
 * can't be reached; a number ending in 0197 is refused at once.
 */
export declare class Handsets {
  private readonly options;
  readonly texts: Text[];
  private readonly byKey;
  private readonly http;
  constructor(options: HandsetsOptions);
  close(): Promise<void>;
  /** A phone answers: the gateway reports it to us, and tries again while we do not answer. */
  answer(number: string, body: string): Promise<void>;
  private report;
  private accept;
  private app;
}
