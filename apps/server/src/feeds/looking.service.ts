import { Inject, Injectable } from '@nestjs/common';
import type { FeedOffer, FeedRows, FeedSampleQuery } from '@goodword/core/contract';
import { ColumnSampler, guessAll } from '@goodword/core/intake';
import { Database } from '../platform/database';
import { Conflict } from '../platform/errors';
import { FetchFault } from '../platform/fetch-out';
import type { AccessScope } from '../platform/scope';
import { FieldsRepository } from '../supporters/fields.repository';
import { TeamRepository } from '../team/team.repository';
import { FeedsService } from './feeds.service';
import { FeedSourcesService } from './sources/feed-sources.service';
import type { SourceRow } from './sources/source';

/** Rows that are shown as they come. */
const SHOWN = 20;
/** Rows that columns are guessed from. */
const SAMPLED = 500;

/** Looks at what is over there while a feed is being set up; nothing is kept of it. */
@Injectable()
export class LookingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FeedsService) private readonly feeds: FeedsService,
    @Inject(FeedSourcesService) private readonly sources: FeedSourcesService,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  async offer(scope: AccessScope, id: number): Promise<FeedOffer> {
    const { source, at } = await this.connection(scope, id);
    return told(() => source.offer(at));
  }

  async rows(scope: AccessScope, id: number, { type, filter }: FeedSampleQuery): Promise<FeedRows> {
    const { source, at } = await this.connection(scope, id);
    const asked = { type, filter: filter ? filter : null, since: null, etag: null };
    const { header, rows } = await told(async () => {
      const answer = await source.read(at, asked);
      return answer.unchanged
        ? { header: [], rows: [] }
        : { header: answer.header, rows: await first(answer.pages) };
    });
    const db = this.database.read(scope);
    const [organization, fields] = [await this.team.organization(scope), await this.fields.all(db)];
    const profiles = header.map((_name, i) => {
      const sampler = new ColumnSampler();
      for (const row of rows) sampler.add(row[i]);
      return sampler.profile(organization.country);
    });
    const guesses = guessAll(header, profiles, fields);
    const at0 = guesses.findIndex(({ choice }) => choice.to === 'externalId');
    const byName = header.findIndex((name) => /^(?:.*\b)?id$/i.test(name.trim()));
    const byEmail = guesses.findIndex(({ choice }) => choice.to === 'email');
    const key = [at0, byName, byEmail].find((place) => place >= 0);
    return { header, rows: rows.slice(0, SHOWN), guesses, key: key === undefined ? null : header[key]! };
  }

  private async connection(scope: AccessScope, id: number) {
    const db = this.database.read(scope);
    const { source_id } = await this.feeds.need(db, id);
    return this.sources.connection(db, source_id);
  }
}

async function first(pages: AsyncIterable<SourceRow[]>): Promise<string[][]> {
  const rows: string[][] = [];
  for await (const page of pages) {
    rows.push(...page.map(({ cells }) => cells));
    if (rows.length >= SAMPLED) break;
  }
  return rows.slice(0, SAMPLED);
}

/** Somebody waits for the answer: what is wrong over there is told them as it is. */
async function told<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof FetchFault) throw new Conflict(error.message);
    throw error;
  }
}
