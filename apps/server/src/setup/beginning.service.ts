import { createHash, timingSafeEqual } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { countryCodes } from '@goodword/core/fields';
import { audit } from '../platform/audit';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { Conflict, Invalid } from '../platform/errors';
import { programScope } from '../platform/scope';
import { hashPassword, refuseEasy } from '../team/passwords';
import { BeginningRepository, type Beginning } from './beginning.repository';
import { sentence } from '../platform/words';

const NO_WORD =
  'That is not the word that the start printed last. It stands in the output of "npm start", and works once.';

/** An empty house: the first owner comes by the one-time word that the start prints. */
@Injectable()
export class BeginningService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(BeginningRepository) private readonly beginnings: BeginningRepository,
  ) {}

  /** Whether nobody is here yet. */
  isOpen(): Promise<boolean> {
    return this.beginnings.isEmpty(this.database);
  }

  /** Makes the organization, its first chapter and its owner, once. */
  async begin(wanted: Beginning): Promise<{ id: number; organizationId: number; email: string }> {
    if (!(await this.isOpen())) throw new Conflict(sentence('begin.somebody-here'));
    if (!isWord(await this.beginnings.word(this.database), wanted.word))
      throw new Invalid([{ field: 'word', code: 'word', message: NO_WORD }]);
    if (!countryCodes().includes(wanted.organization.country))
      throw new Invalid([
        { field: 'organization.country', code: 'country', message: sentence('organization.country') },
      ]);
    refuseEasy(wanted.password, [wanted.name, wanted.email, wanted.organization.name]);
    const passwordHash = await hashPassword(wanted.password);
    const host = new URL(this.config.PUBLIC_URL).hostname;
    const made = await this.beginnings.make(this.database, {
      ...wanted,
      passwordHash,
      fromEmail: this.config.DKIM_DOMAIN ? `hello@${this.config.DKIM_DOMAIN}` : wanted.email,
      bounceDomain: host.includes('.') && !/^[\d.]+$/.test(host) ? host : '',
    });
    if (!made) throw new Conflict(sentence('begin.quicker'));
    await this.database.writeUnlogged({ ...programScope(made.organizationId), actorId: made.ownerId }, (tx) =>
      audit(
        tx,
        'begin',
        { organization: made.organizationId },
        `${wanted.name} began ${wanted.organization.name}`,
      ),
    );
    return { id: made.ownerId, organizationId: made.organizationId, email: wanted.email };
  }
}

export const wordHash = (word: string) =>
  createHash('sha256').update(word.trim().toLowerCase()).digest('hex');

function isWord(kept: string | null, typed: string): boolean {
  return kept !== null && timingSafeEqual(Buffer.from(kept), Buffer.from(wordHash(typed)));
}
