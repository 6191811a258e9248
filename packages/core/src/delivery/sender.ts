/** Kinds of records that a sender sets. */
export type RecordKind = 'TXT' | 'MX' | 'A';

/** A key that signs mail, or will. */
export interface SigningKey {
  selector: string;
  /** The words of its record, as it is to be set. */
  record: string;
  use: 'now' | 'next';
}

/** What an organization's mail says of itself, from which the records follow. */
export interface SenderFacts {
  /** Domain of the From of mail. */
  from: string;
  /** Domain that bounces and answers come back to. */
  lists: string;
  /** Domain that signatures are for; empty where nothing is signed. */
  signing: string;
  keys: readonly SigningKey[];
  /** Host of the desk, which hears what comes back. */
  desk: string;
  /** Host of links in texts and mails; the desk's own where there is no other. */
  links: string;
}

/** What a record is for. */
export const SENDER_RECORDS = ['dkim', 'dkim-next', 'spf', 'dmarc', 'mx', 'links'] as const;
export type SenderRecord = (typeof SENDER_RECORDS)[number];

/** A record to be set: where, and what is to stand there. */
export interface WantedRecord {
  what: SenderRecord;
  name: string;
  kind: RecordKind;
  /**
   * As it is to be set; for SPF a form of it, since what the provider sends from is the provider's to say.
   */
  value: string;
}

/** Why a record is not right. */
export const RECORD_FAULTS = [
  'missing',
  'other-key',
  'revoked',
  'several',
  'open',
  'no-end',
  'too-many-lookups',
  'no-policy',
  'elsewhere',
] as const;
export type RecordFault = (typeof RECORD_FAULTS)[number];

/** A record as it was found; nobody answered where `found` is null. */
export interface CheckedRecord extends WantedRecord {
  found: string[] | null;
  fault: RecordFault | null;
}

/** The records of a sender. A null domain has none. */
export function wantedRecords(facts: SenderFacts): WantedRecord[] {
  const { from, lists, signing, keys, desk, links } = facts;
  const records: (WantedRecord | false)[] = [
    ...keys.map(
      ({ selector, record, use }): WantedRecord | false =>
        signing !== '' && {
          ...{ what: use === 'now' ? 'dkim' : 'dkim-next', kind: 'TXT', value: record },
          name: `${selector}._domainkey.${signing}`,
        },
    ),
    lists !== '' && { what: 'spf', name: lists, kind: 'TXT', value: 'v=spf1 include:… -all' },
    from !== '' && { what: 'dmarc', name: `_dmarc.${from}`, kind: 'TXT', value: 'v=DMARC1; p=none' },
    lists !== '' && { what: 'mx', name: lists, kind: 'MX', value: desk },
    links !== desk && { what: 'links', name: links, kind: 'A', value: desk },
  ];
  return records.filter((one) => one !== false);
}

/** Tags such as `k=rsa; p=…` (RFC 6376 §3.2), white space taken out of their values. */
function tagsOf(record: string): Map<string, string> {
  const tags = new Map<string, string>();
  for (const part of record.split(';')) {
    const at = part.indexOf('=');
    if (at > 0) tags.set(part.slice(0, at).trim().toLowerCase(), part.slice(at + 1).replace(/\s+/g, ''));
  }
  return tags;
}

/** RFC 6376 §3.6.1: the key is in `p`; an empty one is revoked. */
function keyFault(found: readonly string[], wanted: string): RecordFault | null {
  const keys = found.map(tagsOf).filter((tags) => tags.has('p'));
  if (keys.length === 0) return 'missing';
  if (keys.length > 1) return 'several';
  const key = keys[0]!.get('p');
  if (key === '') return 'revoked';
  return key === tagsOf(wanted).get('p') ? null : 'other-key';
}

/** Terms of SPF that ask the domain name system; ten of them are allowed (RFC 7208 §4.6.4). */
const ASKING = /^[+?~-]?(?:include:|a(?:[:/]|$)|mx(?:[:/]|$)|ptr(?::|$)|exists:)|^redirect=/i;

/** RFC 7208: one record (§4.5), an end (§5.1, §6.1) that does not let everybody in. */
function spfFault(found: readonly string[]): RecordFault | null {
  const records = found.filter((record) => /^v=spf1(?: |$)/i.test(record));
  if (records.length === 0) return 'missing';
  if (records.length > 1) return 'several';
  const terms = records[0]!.split(/\s+/).slice(1);
  if (terms.some((term) => /^\+?all$/i.test(term))) return 'open';
  if (terms.filter((term) => ASKING.test(term)).length > 10) return 'too-many-lookups';
  return terms.some((term) => /^[?~-]all$|^redirect=/i.test(term)) ? null : 'no-end';
}

/** RFC 7489 §6.3, §6.6.3: one record that begins with its version and names a policy. */
function dmarcFault(found: readonly string[]): RecordFault | null {
  const records = found.filter((record) => /^v\s*=\s*DMARC1\s*(?:;|$)/.test(record));
  if (records.length === 0) return 'missing';
  if (records.length > 1) return 'several';
  return /^(?:none|quarantine|reject)$/i.test(tagsOf(records[0]!).get('p') ?? '') ? null : 'no-policy';
}

const host = (name: string): string => name.replace(/\.$/, '').toLowerCase();

/**
 * Holds a record against what was found: of TXT the words, of MX the exchangers, of A the addresses. Where
 * links are to lead is told by the desk's own addresses, in `deskAddresses`.
 */
export function checkRecord(
  wanted: WantedRecord,
  found: string[] | null,
  deskAddresses: readonly string[] = [],
): CheckedRecord {
  if (found === null) return { ...wanted, found, fault: null };
  const fault = (): RecordFault | null => {
    switch (wanted.what) {
      case 'dkim':
      case 'dkim-next':
        return keyFault(found, wanted.value);
      case 'spf':
        return spfFault(found);
      case 'dmarc':
        return dmarcFault(found);
      case 'mx':
        if (found.length === 0) return 'missing';
        return found.some((one) => host(one) === host(wanted.value)) ? null : 'elsewhere';
      case 'links':
        if (found.length === 0) return 'missing';
        return found.some((one) => deskAddresses.includes(one)) ? null : 'elsewhere';
    }
  };
  return { ...wanted, found, fault: fault() };
}

/**
 * Whether a domain counts as that of the From (RFC 7489 §3.1): the same where `strict`, else one with the
 * same organizational domain, which `organizational` gives (§3.2).
 */
export function isAligned(
  from: string,
  other: string,
  strict: boolean,
  organizational: (domain: string) => string,
): boolean {
  if (from === '' || other === '') return false;
  return (
    host(from) === host(other) || (!strict && organizational(host(from)) === organizational(host(other)))
  );
}

/** How DMARC wants the signature and the return path aligned, by the record that was found. */
export function alignmentOf(records: readonly CheckedRecord[]): {
  dkim: 'strict' | 'relaxed';
  spf: 'strict' | 'relaxed';
} {
  const found = records.find(({ what }) => what === 'dmarc')?.found ?? [];
  const tags = tagsOf(found.find((record) => /^v\s*=\s*DMARC1/.test(record)) ?? '');
  const manner = (tag: string) => (tags.get(tag)?.toLowerCase() === 's' ? 'strict' : 'relaxed');
  return { dkim: manner('adkim'), spf: manner('aspf') };
}

/** What large mailbox providers publish that they ask of whoever writes to many, in the order they say it. */
export const DEMANDS = [
  'signed',
  'spf',
  'dmarc',
  'aligned',
  'one-click',
  'way-out',
  'complaints',
  'form',
  'tls',
  'reverse',
] as const;
export type Demand = (typeof DEMANDS)[number];

/** Complaints of a hundred that reached somebody, above which they stop to take mail (as they publish it). */
export const MOST_COMPLAINTS = 0.3;

/** Which demands are met; null where only the mail's provider can say. */
export function metDemands(of: {
  records: readonly CheckedRecord[];
  aligned: boolean;
  /** Mail of ours goes out encrypted; null where nobody knows. */
  tls: boolean | null;
  /** Of the last 30 days. */
  complaints: { reached: number; complained: number };
}): { demand: Demand; met: boolean | null }[] {
  const state = (what: SenderRecord): boolean | null => {
    const ours = of.records.filter((record) => record.what === what);
    if (ours.length > 0 && ours.every(({ found }) => found === null)) return null;
    return ours.some(({ found, fault }) => found !== null && fault === null);
  };
  const { reached, complained } = of.complaints;
  const met: Record<Demand, boolean | null> = {
    signed: state('dkim'),
    spf: state('spf'),
    dmarc: state('dmarc'),
    aligned: of.aligned,
    // Every mail to a list has both ways out, whatever is set (RFC 8058, and at the foot of the words).
    'one-click': true,
    'way-out': true,
    complaints: reached === 0 ? null : (complained * 100) / reached < MOST_COMPLAINTS,
    form: true,
    tls: of.tls,
    reverse: null,
  };
  return DEMANDS.map((demand) => ({ demand, met: met[demand] }));
}
