import { promises as dns } from 'node:dns';
import { parsePhoneNumberFromString } from 'libphonenumber-js/max';
import type { RecordKind } from '@goodword/core/delivery';
import { plainAmerican } from '@goodword/core/intake';

/** Port: says of domains whether they take mail. Never throws; what nobody knows is left out. */
export interface Domains {
  takeMail(domains: readonly string[]): Promise<Map<string, boolean>>;
}
export const DOMAINS = Symbol('DOMAINS');

export type LineType = 'mobile' | 'landline' | 'voip' | 'other';

/**
 * Port: says of telephone numbers (E.164) what line they are. Never throws; what nobody knows is left out.
 */
export interface Lines {
  typesOf(numbers: readonly string[]): Promise<Map<string, LineType>>;
}
export const LINES = Symbol('LINES');

/**
 * Port: what stands at a name in the domain name system, of A also the addresses of version 6. Never throws;
 * null where nobody answered.
 */
export interface NameRecords {
  find(name: string, kind: RecordKind): Promise<string[] | null>;
}
export const NAMES = Symbol('NAMES');

const AT_ONCE = 500;

async function eachOf<T>(
  some: readonly T[],
  size: number,
  ask: (slice: readonly T[]) => Promise<void>,
): Promise<void> {
  for (let at = 0; at < some.length; at += size) await ask(some.slice(at, at + size));
}

/**
 * The domain name system: a mail exchanger, else an address (RFC 5321 §5.1); a null exchanger takes none (RFC
 * 7505).
 */
export class DnsDomains implements Domains {
  constructor(private readonly resolver: Pick<typeof dns, 'resolveMx' | 'resolve4' | 'resolve6'> = dns) {}

  async takeMail(domains: readonly string[]): Promise<Map<string, boolean>> {
    const out = new Map<string, boolean>();
    await eachOf(domains, 20, async (slice) => {
      await Promise.all(
        slice.map(async (domain) => {
          const takes = await this.one(domain);
          if (takes !== null) out.set(domain, takes);
        }),
      );
    });
    return out;
  }

  private async one(domain: string): Promise<boolean | null> {
    const exchangers = await found(this.resolver.resolveMx(domain));
    if (exchangers === null) return null;
    if (exchangers.length > 0) return exchangers.some((one) => one.exchange !== '' && one.exchange !== '.');
    const [four, six] = await Promise.all([
      found<unknown>(this.resolver.resolve4(domain)),
      found<unknown>(this.resolver.resolve6(domain)),
    ]);
    if (four === null && six === null) return null;
    return (four?.length ?? 0) + (six?.length ?? 0) > 0;
  }
}

/** The records; none where the name or the kind does not exist, null where nobody answered. */
async function found<T>(answer: Promise<T[]>): Promise<T[] | null> {
  try {
    return await answer;
  } catch (error) {
    return ['ENOTFOUND', 'ENODATA', 'NXDOMAIN'].includes((error as { code?: string }).code ?? '') ? [] : null;
  }
}

async function postJson<T>(url: string, body: object): Promise<T | null> {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(10_000),
    });
    return response.ok ? ((await response.json()) as T) : null;
  } catch {
    return null;
  }
}

type Records = Pick<typeof dns, 'resolveTxt' | 'resolveMx' | 'resolve4' | 'resolve6'>;

/** The domain name system itself; what a record has in several strings is one (RFC 7208 §3.3). */
export class DnsNames implements NameRecords {
  constructor(private readonly resolver: Records = dns) {}

  async find(name: string, kind: RecordKind): Promise<string[] | null> {
    switch (kind) {
      case 'TXT':
        return (await found(this.resolver.resolveTxt(name)))?.map((strings) => strings.join('')) ?? null;
      case 'MX':
        return (await found(this.resolver.resolveMx(name)))?.map(({ exchange }) => exchange) ?? null;
      case 'A': {
        const [four, six] = await Promise.all([
          found(this.resolver.resolve4(name)),
          found(this.resolver.resolve6(name)),
        ]);
        return four === null && six === null ? null : [...(four ?? []), ...(six ?? [])];
      }
    }
  }
}

/** A service over HTTP: a name and a kind in, records out. */
export class HttpNames implements NameRecords {
  constructor(private readonly url: string) {}

  async find(name: string, kind: RecordKind): Promise<string[] | null> {
    const answer = await postJson<{ records?: unknown }>(this.url, { name, kind });
    const records = answer?.records;
    return Array.isArray(records) ? records.filter((one): one is string => typeof one === 'string') : null;
  }
}

export function namesFrom(setting: string): NameRecords {
  if (setting === '') return { find: () => Promise.resolve(null) };
  return setting === 'dns' ? new DnsNames() : new HttpNames(setting);
}

/** A service over HTTP: domains in, a word for each out. */
export class HttpDomains implements Domains {
  constructor(private readonly url: string) {}

  async takeMail(domains: readonly string[]): Promise<Map<string, boolean>> {
    const out = new Map<string, boolean>();
    await eachOf(domains, AT_ONCE, async (slice) => {
      const answer = await postJson<Record<string, boolean>>(this.url, { domains: slice });
      for (const domain of slice) if (typeof answer?.[domain] === 'boolean') out.set(domain, answer[domain]);
    });
    return out;
  }
}

const NOBODY: Domains = { takeMail: async () => new Map() };

export function domainsFrom(setting: string): Domains {
  if (setting === '') return NOBODY;
  return setting === 'dns' ? new DnsDomains() : new HttpDomains(setting);
}

/** What the number itself says, by libphonenumber's tables; numbers of the United States say nothing. */
export class NumberLines implements Lines {
  async typesOf(numbers: readonly string[]): Promise<Map<string, LineType>> {
    const out = new Map<string, LineType>();
    for (const number of numbers) {
      if (plainAmerican(number, 'US')) continue;
      const type = parsePhoneNumberFromString(number)?.getType();
      if (type === 'MOBILE') out.set(number, 'mobile');
      else if (type === 'FIXED_LINE') out.set(number, 'landline');
      else if (type === 'VOIP') out.set(number, 'voip');
    }
    return out;
  }
}

const LINE_TYPES: ReadonlySet<string> = new Set(['mobile', 'landline', 'voip', 'other']);

/** A service over HTTP; what it does not know is asked of the number itself. */
export class HttpLines implements Lines {
  private readonly own = new NumberLines();
  constructor(private readonly url: string) {}

  async typesOf(numbers: readonly string[]): Promise<Map<string, LineType>> {
    const out = await this.own.typesOf(numbers);
    await eachOf(numbers, AT_ONCE, async (slice) => {
      const answer = await postJson<Record<string, string>>(this.url, { numbers: slice });
      for (const number of slice)
        if (LINE_TYPES.has(answer?.[number] ?? '')) out.set(number, answer![number] as LineType);
    });
    return out;
  }
}

export function linesFrom(setting: string): Lines {
  return setting === '' ? new NumberLines() : new HttpLines(setting);
}
