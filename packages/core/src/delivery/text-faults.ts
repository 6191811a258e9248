import type { DeliveryFault } from './faults';

/** That a text was not delivered, as a gateway or a network tells it. */
export interface TextRefusal {
  /** A MAP error of the network (3GPP TS 29.002), in decimal figures, where the gateway passes it on. */
  code: string;
  /** In words; empty where there are none. */
  reason: string;
}

/**
 * MAP user errors of 3GPP TS 29.002 §17.6.6 and §17.6.1 (numbers from memory) that say something of who is
 * written to. Of all others (an absent subscriber, congestion, a time that ran out) nothing follows.
 */
const BY_CODE: ReadonlyMap<string, DeliveryFault> = new Map([
  // Unknown, unidentified and illegal subscriber, illegal equipment, a service that they have not.
  ...['1', '5', '9', '12', '11'].map((code): [string, DeliveryFault] => [code, 'address']),
  // Barred: somebody does not want it there.
  ['13', 'policy'],
]);

/** Words of gateways (common practice, no source). */
const GONE =
  /\b(?:not in service|out of service|no longer (?:in service|active|assigned)|unknown (?:subscriber|number|destination)|(?:invalid|unallocated|unassigned|disconnected) (?:number|destination|subscriber)|land ?line|not a mobile|(?:does|can)(?: ?not|n['’]t) (?:receive|take) (?:sms|texts?))\b/i;
const FULL = /\b(?:memory|inbox|storage)\b.*\b(?:full|exceeded)\b/i;
const POLICY =
  /\b(?:spam|filter(?:ed)?|block(?:ed)?|blacklist(?:ed)?|barred|carrier violation|content|unregistered|not registered|campaign|policy|opted out)\b/i;

/**
 * What it is about that a text was not delivered. A number is held for `address` alone: somebody whose phone
 * is off is there tomorrow.
 */
export function textFault({ code, reason }: TextRefusal): DeliveryFault {
  if (GONE.test(reason)) return 'address';
  if (FULL.test(reason)) return 'full';
  if (POLICY.test(reason)) return 'policy';
  return BY_CODE.get(code.trim()) ?? 'unknown';
}
