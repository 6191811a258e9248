import disposable from 'disposable-email-domains';
import { domainsOfRow, type DomainFacts } from '@goodword/core/intake';
import type { Database } from '../../platform/database';
import type { Domains, Lines, LineType } from '../../platform/lookups';
import type { AccessScope } from '../../platform/scope';
import type { FileRow } from './stager';
import type { StagingRepository } from './staging.repository';

const DISPOSABLE = new Set(disposable);

/** What the world knows of the addresses of one batch, asked once for each domain and number. */
export class AddressFacts implements DomainFacts {
  private readonly takes = new Map<string, boolean>();
  private readonly asked = new Set<string>();
  private learning: Promise<void> = Promise.resolve();

  constructor(
    private readonly parts: {
      database: Database;
      staging: StagingRepository;
      domains: Domains;
      lines: Lines;
    },
    private readonly scope: AccessScope,
  ) {}

  dead(domain: string): boolean {
    return this.takes.get(domain) === false;
  }

  disposable(domain: string): boolean {
    return DISPOSABLE.has(domain);
  }

  /** Asks about the domains of these rows that were not asked about before; nobody answering is no answer. */
  learn(rows: readonly FileRow[]): Promise<void> {
    // Rows that are looked up while others still are must not go on without the answers that those wait for.
    this.learning = this.learning.then(() => this.learnMore(rows));
    return this.learning;
  }

  private async learnMore(rows: readonly FileRow[]): Promise<void> {
    const fresh = [...new Set(rows.flatMap(({ clean }) => (clean ? domainsOfRow(clean) : [])))].filter(
      (domain) => !this.asked.has(domain),
    );
    if (fresh.length === 0) return;
    for (const domain of fresh) this.asked.add(domain);
    const known = await this.parts.staging.knownDomains(this.parts.database.read(this.scope), fresh);
    for (const [domain, takes] of known) this.takes.set(domain, takes);
    const answers = await this.parts.domains.takeMail(fresh.filter((domain) => !known.has(domain)));
    for (const [domain, takes] of answers) this.takes.set(domain, takes);
    await this.parts.database.writeUnlogged(this.scope, (tx) => this.parts.staging.keepDomains(tx, answers));
  }

  /** What lines the numbers of these rows are. */
  async lines(rows: readonly FileRow[]): Promise<Map<string, LineType>> {
    const numbers = [...new Set(rows.flatMap(({ clean }) => (clean?.mobile ? [clean.mobile.normal] : [])))];
    return numbers.length === 0 ? new Map() : this.parts.lines.typesOf(numbers);
  }
}
