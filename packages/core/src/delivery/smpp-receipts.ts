/** A delivery receipt as SMPP 3.4 brings it: in fields of its own, and as words. */
export interface SmppReceipt {
  /** `receipted_message_id` (§5.3.2.12); null where there is none. */
  id: string | null;
  /** `message_state` (§5.3.2.35); null where there is none. */
  state: number | null;
  /** `network_error_code` (§5.3.2.31), three octets: which network, and its code; null for none. */
  code: Uint8Array | null;
  /** The words of appendix B: `id:… sub:… dlvrd:… submit date:… done date:… stat:… err:… text:…`. */
  words: string;
}

/** What a receipt says: of which message, what became of it, and why. `null` as status: it is on its way. */
export interface ReceiptSaid {
  id: string;
  status: 'delivered' | 'failed' | null;
  why: 'expired' | 'deleted' | 'undeliverable' | 'rejected' | null;
  /** A MAP error of a GSM network, in decimal figures; empty where none is told. */
  code: string;
}

/** States by their number (§5.2.28), with what appendix B calls them. */
const STATES: readonly (readonly [number, string, ReceiptSaid['status'], ReceiptSaid['why']])[] = [
  [1, 'ENROUTE', null, null],
  [2, 'DELIVRD', 'delivered', null],
  [3, 'EXPIRED', 'failed', 'expired'],
  [4, 'DELETED', 'failed', 'deleted'],
  [5, 'UNDELIV', 'failed', 'undeliverable'],
  [6, 'ACCEPTD', null, null],
  // Nobody knows: it is not counted as come, and nothing follows for the number.
  [7, 'UNKNOWN', null, null],
  [8, 'REJECTD', 'failed', 'rejected'],
];
/** `network_error_code` begins with this for GSM. */
const GSM = 3;

/** Reads a receipt; null where it names no message or no state, so that it is none. */
export function readSmppReceipt({ id, state, code, words }: SmppReceipt): ReceiptSaid | null {
  const named = id ?? /\bid:(\S+)/i.exec(words)?.[1];
  const told = /\bstat:([A-Z]+)/i.exec(words)?.[1]?.toUpperCase();
  const found = STATES.find(([number, name]) => (state === null ? name === told : number === state));
  if (!named || !found) return null;
  const isMap = code?.length === 3 && code[0] === GSM;
  return {
    ...{ id: named, status: found[2], why: found[3] },
    code: isMap ? String(code[1]! * 256 + code[2]!) : '',
  };
}

/** The id of a message as it is compared: the same in capitals, and with zeros before it. */
export const smppId = (id: string): string =>
  id
    .trim()
    .toLowerCase()
    .replace(/^0+(?=.)/, '');

/** Figures from which on an id is so long that another one's is not met by chance. */
const LONG_ID = 8;

/**
 * How else a gateway may have written an id that is not known: hexadecimal figures in one place and decimal
 * ones in the other (common practice, no source). None of short ids, which count up and would be another's.
 */
export function otherSmppIds(id: string): string[] {
  const plain = smppId(id);
  const ways = [
    ...(/^\d{1,18}$/.test(plain) ? [BigInt(plain).toString(16)] : []),
    ...(/^[0-9a-f]{1,16}$/.test(plain) ? [BigInt(`0x${plain}`).toString(10)] : []),
  ];
  return plain.length < LONG_ID ? [] : ways.filter((way) => way.length >= LONG_ID);
}
