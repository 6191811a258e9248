import { Inject, Injectable } from '@nestjs/common';
import { dkimVerify } from 'mailauth/lib/dkim/verify';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { NAMES, type NameRecords } from '../platform/lookups';
import { programScope } from '../platform/scope';
import { Tokens } from '../platform/tokens';
import { SenderRepository, type SeenSignature } from './sender.repository';

/** What the verifier says, as far as it is looked at. */
interface Verified {
  results: { selector: string; status: { result: string } }[];
}

/** A mail that was sent through comes back: what its way has made of it. */
@Injectable()
export class CameThroughService {
  private readonly tokens: Tokens;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SenderRepository) private readonly checks: SenderRepository,
    @Inject(NAMES) private readonly names: NameRecords,
    @Inject(CONFIG) config: Config,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  /** The organization behind an address such as `check-TOKEN@…`; null for any other. */
  organizationOf(address: string): number | null {
    const token = /^check-([a-z2-7]+)@/i.exec(address)?.[1]?.toLowerCase();
    return token ? (this.tokens.read('check', token)?.id ?? null) : null;
  }

  async receive(address: string, raw: Buffer): Promise<void> {
    const organizationId = this.organizationOf(address);
    const head = raw
      .toString('latin1')
      .split('\r\n\r\n', 1)[0]!
      .replace(/\r\n[ \t]+/g, ' ');
    const key = /^Message-ID: <([0-9a-f-]{36})@/im.exec(head)?.[1];
    if (organizationId === null || !key) return;
    const signatures = await this.signaturesIn(raw);
    await this.database.writeUnlogged(programScope(organizationId), (tx) =>
      this.checks.keepBack(tx, key, signatures, firstHopIsEncrypted(head)),
    );
  }

  /** Verified with the records that stand in the domain name system, by a verifier that is not ours. */
  private async signaturesIn(raw: Buffer): Promise<SeenSignature[]> {
    const resolver = async (name: string, kind: string) => {
      const found = kind === 'TXT' ? await this.names.find(name, 'TXT') : [];
      if (!found?.length) throw Object.assign(new Error(`no ${kind} at ${name}`), { code: 'ENODATA' });
      return found.map((record) => [record]);
    };
    const { results } = (await dkimVerify(raw, { resolver } as never)) as unknown as Verified;
    return results
      .filter(({ selector }) => Boolean(selector))
      .map(({ selector, status }) => ({ selector, holds: status.result === 'pass' }));
  }
}

/** Whether the first server said that we came encrypted (RFC 3848); null where it did not say. */
function firstHopIsEncrypted(head: string): boolean | null {
  const first = head
    .split('\r\n')
    .filter((line) => /^Received:/i.test(line))
    .at(-1);
  const how = / with (?:UTF8)?(?:E?SMTP|LMTP)(SA?|A)?\b/i.exec(first ?? '');
  return how ? /^S/i.test(how[1] ?? '') : null;
}
