import { textFault } from '@goodword/core/delivery';
import type { ShiftLanguage } from '@goodword/core/text';
import type { HandOver } from './mail-out';

export interface OutgoingText {
  from: string;
  /** E.164. */
  to: string;
  body: string;
  /** The gateway delivers a key once, however often it is sent. */
  key: string;
  /** Whose national tables the letters need; the default alphabet or UCS-2 where there are none. */
  language?: ShiftLanguage | null;
}

/**
 * Port: gives one text to a gateway. Never throws. What is "unreachable" is safe to repeat with the same key.
 */
export interface TextOut {
  send(text: OutgoingText): Promise<HandOver>;
  /** A text that may have gone can be given again: it is delivered once for its key. */
  readonly knowsKeys: boolean;
  close(): void;
}

export const TEXT_OUT = Symbol('TEXT_OUT');

/** Not let in, nothing left to spend, no such place, too slow, too fast (RFC 9110 §15.5, RFC 6585 §4). */
const OURS = new Set([401, 402, 403, 404, 408, 429]);

/** A gateway over HTTP: one POST a text, the key as the Idempotency-Key header, JSON back. */
export class HttpTextOut implements TextOut {
  readonly knowsKeys = true;

  constructor(private readonly options: { url: string; key: string; callback: string }) {}

  close(): void {
    // Each request is its own.
  }

  async send(text: OutgoingText): Promise<HandOver> {
    try {
      const response = await fetch(`${this.options.url}/v1/messages`, {
        method: 'POST',
        headers: {
          'content-type': 'application/json',
          authorization: `Bearer ${this.options.key}`,
          'idempotency-key': text.key,
        },
        body: JSON.stringify({
          from: text.from,
          to: text.to,
          text: text.body,
          callback: this.options.callback,
          ...(text.language ? { language: text.language } : {}),
        }),
        signal: AbortSignal.timeout(15_000),
      });
      const answer = (await response.json().catch(() => ({}))) as {
        id?: string;
        error?: string;
        address?: boolean;
        code?: string;
      };
      if (response.ok) return { kind: 'accepted', detail: answer.id ?? '' };
      const detail = answer.error ?? `gateway answered ${response.status}`;
      // Who we are, what we owe and how fast we are concerns everybody: nobody is refused for it.
      if (OURS.has(response.status) || response.status >= 500) return { kind: 'unreachable', detail };
      return {
        kind: 'refused',
        permanent: true,
        fault: answer.address ? 'address' : textFault({ code: answer.code ?? '', reason: detail }),
        detail,
      };
    } catch (error) {
      // A lost answer is no loss: the same key is sent again.
      return { kind: 'unreachable', detail: (error as Error).message.slice(0, 300) };
    }
  }
}

/** Where no gateway is set up: nothing leaves, and it says so. */
export const NO_TEXTS: TextOut = {
  knowsKeys: true,
  close: () => undefined,
  send: () =>
    Promise.resolve({
      kind: 'refused',
      permanent: true,
      fault: 'unknown',
      detail: 'No text gateway is set up (TEXT_URL)',
    }),
};
