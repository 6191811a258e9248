import { Inject, Injectable } from '@nestjs/common';
import type {
  FeedSourceView,
  MakeFeedSourceBody,
  SaveFeedSourceBody,
  SourceKind,
} from '@goodword/core/contract';
import { audit } from '../../platform/audit';
import { CONFIG, type Config } from '../../platform/config';
import { Database } from '../../platform/database';
import { isDuplicate } from '../../platform/database-errors';
import { Conflict, Invalid, NotFound } from '../../platform/errors';
import { FetchFault } from '../../platform/fetch-out';
import type { AccessScope } from '../../platform/scope';
import type { Scoped } from '../../platform/scoped';
import { nextVersion } from '../../platform/versions';
import { sentence } from '../../platform/words';
import { unwrapByEither, wrap } from '../../platform/wrapping';
import { AddressSource } from './address.source';
import { DeskSource } from './desk.source';
import { FeedSourcesRepository, type FeedSourceRow } from './feed-sources.repository';
import type { Connection, FeedSource } from './source';

const USE = 'feed tokens';

/** Systems that feeds take from: set up by an owner, their tokens kept wrapped and told to nobody. */
@Injectable()
export class FeedSourcesService {
  private readonly kinds: Record<SourceKind, FeedSource>;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(FeedSourcesRepository) private readonly sources: FeedSourcesRepository,
    @Inject(DeskSource) desk: DeskSource,
    @Inject(AddressSource) address: AddressSource,
  ) {
    this.kinds = { desk, address };
  }

  async all(scope: AccessScope): Promise<FeedSourceView[]> {
    return (await this.sources.all(this.database.read(scope))).map(viewOf);
  }

  async make(scope: AccessScope, body: MakeFeedSourceBody): Promise<{ id: number }> {
    checkUrl(body.url);
    const { name, kind, url, token } = body;
    await this.reach(kind, { url, token });
    return this.named(name, () =>
      this.database.writeUnlogged(scope, async (tx) => {
        const id = await this.sources.make(tx, { name, kind, url, token: this.wrapped(token) });
        await audit(tx, 'make', { feedSource: id }, `Source ${name} at ${new URL(url).host} added`);
        return { id };
      }),
    );
  }

  async save(scope: AccessScope, id: number, body: SaveFeedSourceBody): Promise<{ version: number }> {
    checkUrl(body.url);
    const { name, url, token, basedOn } = body;
    const before = await this.need(this.database.read(scope), id);
    // A token goes to nobody but whom it was given for.
    const isElsewhere = new URL(before.url).origin !== new URL(url).origin;
    if (isElsewhere && token === undefined && before.token !== null)
      throw new Invalid([{ field: 'token', code: 'missing', message: sentence('feed.token-again') }]);
    await this.reach(before.kind, { url, token: token ?? this.tokenOf(before) });
    return this.named(name, () =>
      this.database.writeUnlogged(scope, async (tx) => {
        const version = await nextVersion(tx, 'feed_source', id, basedOn, 'source');
        await this.sources.change(tx, id, {
          ...{ name, url },
          ...(token === undefined ? {} : { token: this.wrapped(token) }),
        });
        await audit(tx, 'change', { feedSource: id }, `Source ${name} changed`);
        return { version };
      }),
    );
  }

  async remove(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      await tx.lockOrganization();
      const { name, feeds } = await this.need(tx, id);
      if (feeds > 0) throw new Conflict(sentence('feed.source-used', { feeds }));
      await this.sources.remove(tx, id);
      await audit(tx, 'delete', { feedSource: id }, `Source ${name} deleted`);
    });
  }

  async view(db: Scoped, id: number): Promise<FeedSourceView> {
    return viewOf(await this.need(db, id));
  }

  /** How a source is read, and where. */
  async connection(db: Scoped, id: number): Promise<{ source: FeedSource; at: Connection }> {
    const row = await this.need(db, id);
    return { source: this.kinds[row.kind], at: { url: row.url, token: this.tokenOf(row) } };
  }

  private async need(db: Scoped, id: number): Promise<FeedSourceRow> {
    const found = await this.sources.find(db, id);
    if (!found) throw new NotFound('source');
    return found;
  }

  private wrapped(token: string): string | null {
    return token === '' ? null : wrap(token, this.config.SECRET, USE);
  }

  private tokenOf({ token, name }: FeedSourceRow): string {
    if (token === null) return '';
    const open = unwrapByEither(token, this.config, USE);
    if (open === null) throw new Conflict(sentence('feed.token-lost', { source: name }));
    return open;
  }

  /** One that can't be reached as it is typed in would only fail later, when nobody looks. */
  private async reach(kind: SourceKind, at: Connection): Promise<void> {
    try {
      await this.kinds[kind].offer(at);
    } catch (error) {
      if (!(error instanceof FetchFault)) throw error;
      throw new Invalid([{ field: 'url', code: 'unreachable', message: error.message }]);
    }
  }

  private async named<T>(name: string, act: () => Promise<T>): Promise<T> {
    try {
      return await act();
    } catch (error) {
      if (isDuplicate(error)) throw new Conflict(sentence('feed.source-name', { name }));
      throw error;
    }
  }
}

/** Whatever stands in an address stands in logs and histories too. */
function checkUrl(text: string): void {
  const url = new URL(text);
  const secret = [...url.searchParams.keys()].some((key) => /token|key|secret|pass|auth|sig/i.test(key));
  if (url.username !== '' || url.password !== '' || secret)
    throw new Invalid([{ field: 'url', code: 'secret', message: sentence('feed.token-in-url') }]);
}

const viewOf = ({ id, version, name, kind, url, token, feeds }: FeedSourceRow): FeedSourceView => ({
  ...{ id, version, name, kind, url, hasToken: token !== null, feeds },
});
