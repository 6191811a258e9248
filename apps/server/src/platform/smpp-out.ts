import { textFault } from '@goodword/core/delivery';
import { segmentsOf } from '@goodword/core/text';
import type { Pdu, Session } from 'smpp';
import type { HandOver } from './mail-out';
import { bindSmpp, SmppAway, STATUS, submitSmpp, type SmppPlace } from './smpp-session';
import type { OutgoingText, TextOut } from './text-out';

/** So many submissions are under way at once: the window of SMPP 3.4 §2.9. */
const WINDOW = 10;
/** Type of number and numbering plan (SMPP 3.4 §5.2.5, §5.2.6). */
const INTERNATIONAL = { ton: 1, npi: 1 };
const SHORT = { ton: 3, npi: 0 };
const NAMED = { ton: 5, npi: 0 };
/** The default alphabet of the gateway, and UCS-2 (§5.2.19). */
const CODING = { gsm7: 0x00, ucs2: 0x08 } as const;

/** Keeps by which ids the gateway will tell of the segments of a text. */
export type KeepSegments = (key: string, ids: readonly string[]) => Promise<void>;

/** An address with its kind: a number in E.164, a short code, or a name. */
export function smppAddress(address: string): { ton: number; npi: number; addr: string } {
  if (address.startsWith('+')) return { ...INTERNATIONAL, addr: address.slice(1) };
  return { ...(/^\d+$/.test(address) ? SHORT : NAMED), addr: address };
}

/**
 * The fields of the submissions of one text: one for each segment, joined by a header of 3GPP TS 23.040
 * §9.2.3.24.1 where there are several.
 */
export function submissionsOf({ from, to, body }: OutgoingText, reference: number): object[] {
  const [source, destination] = [smppAddress(from), smppAddress(to)];
  const { alphabet, segments } = segmentsOf(body);
  return segments.map((message, i) => ({
    ...{ source_addr_ton: source.ton, source_addr_npi: source.npi, source_addr: source.addr },
    ...{ dest_addr_ton: destination.ton, dest_addr_npi: destination.npi, destination_addr: destination.addr },
    // A receipt of what became of it (§5.2.17).
    ...{ data_coding: CODING[alphabet], registered_delivery: 1 },
    short_message:
      segments.length === 1
        ? { message }
        : { udh: Buffer.from([5, 0, 3, reference & 0xff, segments.length, i + 1]), message },
  }));
}

/**
 * A gateway over SMPP 3.4, as text carriers speak it. It knows no keys: what was under way when the
 * connection went is unsure, and is not sent again.
 */
export class SmppTextOut implements TextOut {
  readonly knowsKeys = false;
  private session: Promise<Session> | null = null;
  private under = 0;
  private readonly waiting: (() => void)[] = [];
  private reference = Math.floor(Math.random() * 256);

  constructor(
    private readonly place: SmppPlace,
    private readonly keep: KeepSegments,
  ) {}

  async send(text: OutgoingText): Promise<HandOver> {
    await this.turn();
    try {
      return await this.submit(await this.bound(), text);
    } catch (error) {
      if (error instanceof SmppAway) return { kind: 'unreachable', detail: error.message.slice(0, 300) };
      throw error;
    } finally {
      // Whoever waits takes the place over, so that nobody comes between.
      const next = this.waiting.shift();
      if (next) next();
      else this.under -= 1;
    }
  }

  close(): void {
    void this.session?.then((session) => session.unbind({}, () => session.close())).catch(() => undefined);
  }

  private async submit(session: Session, text: OutgoingText): Promise<HandOver> {
    const ids: string[] = [];
    const submissions = submissionsOf(text, ++this.reference);
    for (const fields of submissions) {
      const answer = await submitSmpp(session, fields);
      const outcome = outcomeOf(answer);
      if (outcome === null) {
        ids.push((answer as Pdu).message_id);
        continue;
      }
      // They have a part of it, perhaps: the whole is not sent a second time.
      if (ids.length > 0)
        return {
          kind: 'unsure',
          detail: `${ids.length} of ${submissions.length} segments were taken: ${outcome.detail}`,
        };
      return outcome;
    }
    // It has gone: that nothing will be heard of it does not take it back.
    await this.keep(text.key, ids).catch(() => undefined);
    return { kind: 'accepted', detail: ids[0] ?? '' };
  }

  /** The session that is bound; a new one where the last has ended. */
  private bound(): Promise<Session> {
    if (this.session) return this.session;
    const session = bindSmpp(this.place, 'transmitter');
    this.session = session;
    const forget = () => {
      if (this.session === session) this.session = null;
    };
    session.then((one) => one.once('close', forget), forget);
    return session;
  }

  private async turn(): Promise<void> {
    if (this.under >= WINDOW) return new Promise((done) => this.waiting.push(done));
    this.under += 1;
  }
}

const LATER: ReadonlySet<number> = new Set([
  STATUS.SYSTEM,
  STATUS.QUEUE_FULL,
  STATUS.THROTTLED,
  STATUS.LATER,
]);

/** What an answer says of a text; null where it was taken. */
function outcomeOf(answer: Pdu | null | false): HandOver | null {
  if (answer === false)
    return { kind: 'unreachable', detail: 'The connection to the text gateway has ended' };
  if (answer === null) return { kind: 'unsure', detail: 'The text gateway did not answer' };
  const { command_status: status } = answer;
  if (status === STATUS.OK) return null;
  const detail = `The text gateway answered 0x${status.toString(16).padStart(8, '0')}`;
  if (LATER.has(status)) return { kind: 'unreachable', detail };
  const fault = status === STATUS.BAD_ADDRESS ? 'address' : textFault({ code: '', reason: detail });
  return { kind: 'refused', permanent: true, fault, detail };
}
