import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { setTimeout as pause } from 'node:timers/promises';
import { Inject, Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import { otherSmppIds, readSmppReceipt, smppId } from '@goodword/core/delivery';
import type { Pdu, Session } from 'smpp';
import { Database } from '../platform/database';
import { sentence } from '../platform/words';
import { bindSmpp, STATUS, type SmppPlace } from '../platform/smpp-session';
import { TextSegments } from '../platform/text-segments';
import { TextsService } from './texts.service';

/** `esm_class` of a delivery receipt (SMPP 3.4 §5.2.12). */
const [KIND, RECEIPT] = [0x3c, 0x04];
/** A receipt may overtake the answer that names the message: it is waited for so long. */
const [LOOKS, LOOK_MS] = [20, 250];
/** Of a text in several segments the rest is waited for so long. */
const REST_MS = 30_000;
/** The same words from the same number within this are the same text, told twice. */
const AGAIN_MS = 120_000;
const LONGEST_WAIT_MS = 60_000;

/** A text of several segments, of which some have come. */
interface Pieces {
  total: number;
  words: Map<number, string>;
  pdus: Pdu[];
  timer: NodeJS.Timeout;
}

/** Hears what a gateway over SMPP tells: receipts, and what people text back. */
@Injectable()
export class SmppInService implements OnApplicationShutdown {
  private readonly log = new Logger('texts');
  private readonly segments: TextSegments;
  private readonly pieces = new Map<string, Pieces>();
  private readonly last = new Map<string, { words: string; id: string; at: number }>();
  /** This gateway writes ids in other figures in its receipts than in its answers. */
  private writesOtherwise = false;
  private session: Session | null = null;
  private readonly ended = new AbortController();

  constructor(
    @Inject(Database) database: Database,
    @Inject(TextsService) private readonly texts: TextsService,
  ) {
    this.segments = new TextSegments(database);
  }

  /** Keeps a session for hearing until the program ends; binds anew whenever it is lost. */
  async listen(place: SmppPlace): Promise<void> {
    for (let wait = 1000; !this.ended.signal.aborted; wait = Math.min(wait * 2, LONGEST_WAIT_MS)) {
      try {
        this.session = await bindSmpp(place, 'receiver', (session) =>
          session.on('deliver_sm', (pdu: Pdu) => void this.take(session, pdu)),
        );
        await this.segments.forgetOld();
        wait = 500;
        await once(this.session, 'close');
      } catch (error) {
        this.log.warn((error as Error).message);
      }
      await pause(wait, undefined, { signal: this.ended.signal }).catch(() => undefined);
    }
  }

  onApplicationShutdown(): void {
    this.ended.abort();
    this.session?.destroy();
  }

  /** Acts on it, and says that it has: before that the gateway keeps it, and tells it again. */
  private async take(session: Session, pdu: Pdu): Promise<void> {
    try {
      if ((pdu.esm_class & KIND) === RECEIPT) {
        await this.receipt(pdu);
        session.send(pdu.response());
      } else await this.text(session, pdu);
    } catch (error) {
      this.log.error(error);
      session.send(pdu.response({ command_status: STATUS.LATER }));
    }
  }

  private async receipt(pdu: Pdu): Promise<void> {
    const code = pdu.network_error_code;
    const said = readSmppReceipt({
      ...{ id: pdu.receipted_message_id ?? null, state: pdu.message_state ?? null, words: wordsOf(pdu) },
      code: code === undefined ? null : Buffer.from(code as string, 'latin1'),
    });
    if (!said?.status) return;
    const found = await this.segmentOf(said.id);
    if (!found) return this.log.warn({ id: said.id }, 'a receipt of a text that is not known');
    if (said.status === 'delivered' && !(await this.segments.delivered(found))) return;
    const { status, why } = said;
    const reason = why === null ? '' : sentence(`smpp.${why}`);
    await this.texts.receipt({
      ...{ type: 'receipt', id: randomUUID(), key: found.key, status, reason, code: said.code },
    });
  }

  private async segmentOf(id: string): Promise<{ id: string; key: string } | undefined> {
    const others = otherSmppIds(id);
    for (let look = 0; look < LOOKS; look++) {
      const found = await this.segments.find([smppId(id), ...(this.writesOtherwise ? others : [])]);
      if (found) return found;
      await new Promise((done) => setTimeout(done, LOOK_MS));
    }
    const found = await this.segments.find(others);
    this.writesOtherwise ||= found !== undefined;
    return found;
  }

  private async text(session: Session, pdu: Pdu): Promise<void> {
    const part = partOf(pdu);
    if (part === null) {
      await this.received(pdu, wordsOf(pdu));
      session.send(pdu.response());
      return;
    }
    const name = `${pdu.source_addr} ${part.reference}`;
    const known = this.pieces.get(name) ?? {
      ...{ total: part.total, words: new Map<number, string>(), pdus: [] },
      timer: setTimeout(() => void this.whole(session, name), REST_MS).unref(),
    };
    this.pieces.set(name, known);
    known.words.set(part.number, wordsOf(pdu));
    known.pdus.push(pdu);
    if (known.words.size === known.total) await this.whole(session, name);
  }

  /** Acts on a text of several segments; of one of which some never came, on those that did. */
  private async whole(session: Session, name: string): Promise<void> {
    const known = this.pieces.get(name);
    if (!known) return;
    this.pieces.delete(name);
    clearTimeout(known.timer);
    const words = [...known.words].sort(([a], [b]) => a - b).map(([, one]) => one);
    const done = await this.received(known.pdus[0]!, words.join('')).then(
      () => true,
      (error) => (this.log.error(error), false),
    );
    for (const pdu of known.pdus) session.send(pdu.response(done ? {} : { command_status: STATUS.LATER }));
  }

  private async received(pdu: Pdu, words: string): Promise<void> {
    const from = numberOf(pdu.source_addr);
    const before = this.last.get(from);
    const isSame = before?.words === words && Date.now() - before.at < AGAIN_MS;
    const id = isSame ? before.id : randomUUID();
    this.last.set(from, { words, id, at: Date.now() });
    if (this.last.size > 10_000) this.last.delete(this.last.keys().next().value!);
    await this.texts.receive({
      ...{ type: 'inbound', id, from, to: numberOf(pdu.destination_addr), text: words },
      at: new Date().toISOString(),
    });
  }
}

/** E.164; a short code and a name stay as they are. */
const numberOf = (address: string) => (/^\d{7,15}$/.test(address) ? `+${address}` : address);

/** The words of a message, in the field for short ones or in that for any length. */
function wordsOf({ short_message: short, message_payload: payload }: Pdu): string {
  const long = typeof payload === 'string' ? payload : payload?.message;
  const words = long ?? short?.message ?? '';
  return typeof words === 'string' ? words : words.toString('latin1');
}

/** Which segment of a longer text it is (3GPP TS 23.040 §9.2.3.24.1 and .8); null of a whole one. */
function partOf({ short_message: short }: Pdu): { reference: number; total: number; number: number } | null {
  for (const element of short?.udh ?? []) {
    const [kind, length, a = 0, b = 0, c = 0, d = 0] = element;
    if (kind === 0x00 && length === 3) return { reference: a, total: b, number: c };
    if (kind === 0x08 && length === 4) return { reference: a * 256 + b, total: c, number: d };
  }
  return null;
}
