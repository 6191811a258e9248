import { roleReaches } from '@goodword/core/team';
import { Inject, Injectable } from '@nestjs/common';
import type { BatchPreview, BatchRowView, BatchView, Page } from '@goodword/core/contract';
import { Database } from '../platform/database';
import { Conflict } from '../platform/errors';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { TeamRepository } from '../team/team.repository';
import { BatchesRepository, whyNotTakeOut, readingOf, type BatchRow } from './batches.repository';
import { NO_SUPPORTER, type RowsQuery, StagedRowsRepository } from './staged-rows.repository';
import { textLines, openingOf } from './reading/text-reading';
import { RowStoryRepository } from './checking/row-story.repository';
import { sentence } from '../platform/words';

const PREVIEW = 50;

/** Batches as they are shown: all of them, one with its counts, its first rows, its text. */
@Injectable()
export class BatchViewsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(RowStoryRepository) private readonly told: RowStoryRepository,
    @Inject(StagedRowsRepository) private readonly staged: StagedRowsRepository,
  ) {}

  async list(scope: AccessScope, query: Parameters<BatchesRepository['page']>[1]): Promise<BatchView[]> {
    const db = this.database.read(scope);
    const rows = await this.batches.page(db, query);
    const counts = await this.batches.countsOfAll(
      db,
      rows.map((row) => row.id),
    );
    const nothing = { looks: {}, withFaults: 0, withHints: 0 };
    return rows.map((row) =>
      this.seenBy(
        scope,
        view(
          row,
          {
            counts: Object.fromEntries(
              counts.filter((c) => c.batch_id === row.id).map((c) => [c.verdict, c.n]),
            ),
            ...nothing,
          },
          null,
        ),
      ),
    );
  }

  async show(scope: AccessScope, id: number): Promise<BatchView> {
    const db = this.database.read(scope);
    const batch = await this.batches.need(db, id);
    const shown = view(batch, await this.batches.counts(db, id), whyNotTakeOut(batch));
    // Taking out counts in steps, as Work does.
    const steps = batch.state === 'taking-out' ? await this.batches.stepsOfTakingOut(db, id) : null;
    return this.seenBy(scope, steps ? { ...shown, ...steps } : shown);
  }

  /**
   * Counts are for everybody; cells of the file, and what was settled about them, for those who see sensitive
   * fields.
   */
  private seenBy(scope: AccessScope, batch: BatchView): BatchView {
    return roleReaches(scope.role, 'organizer') ? batch : { ...batch, found: null, plan: null, draft: null };
  }

  /** The file as it is read, with what was found, the guesses and the first rows. */
  async preview(scope: AccessScope, id: number): Promise<BatchPreview> {
    const batch = await this.batches.need(this.database.read(scope), id);
    if (!batch.found)
      throw new Conflict(batch.problem ?? 'The file is still being read. Try again in a moment.');
    const rows: string[][] = [];
    const key = await this.fileKey(batch);
    for await (const lines of textLines(
      this.storage,
      key,
      await openingOf(this.storage, key, readingOf(batch)),
    )) {
      rows.push(...lines.filter((line) => line.aside === null).map((line) => line.cells));
      if (rows.length >= PREVIEW) break;
    }
    const plan = batch.plan ?? batch.draft?.plan;
    const guesses = batch.guesses ?? [];
    return {
      found: batch.found,
      guesses,
      what: plan?.what ?? batch.what,
      rows: rows.slice(0, PREVIEW),
      mends: plan?.mends ?? [],
      columns: plan?.columns ?? guesses.map(({ choice }) => choice),
    };
  }

  /** The file's text, for reading it in the page. */
  async text(scope: AccessScope, id: number): Promise<AsyncIterable<Uint8Array>> {
    return this.storage.pieces(await this.fileKey(await this.batches.need(this.database.read(scope), id)));
  }

  async rows(
    scope: AccessScope,
    id: number,
    query: RowsQuery & { after?: string; limit: number },
  ): Promise<Page<BatchRowView>> {
    const db = this.database.read(scope);
    const batch = await this.batches.need(db, id);
    const after = Number(decodeCursor(query.after, 1)?.[0] ?? 0);
    const { rows, total } = await this.staged.rows(db, id, query, after, query.limit);
    const last = rows.length === query.limit ? rows.at(-1)! : null;
    const { locale, currency } = await this.team.organization(scope);
    const facts = { rules: await this.houseRules.rules(db), now: Date.now() };
    const [meets, changes, writes] = await Promise.all([
      this.told.met(db, batch, rows),
      this.told.changes(db, batch, rows, { locale, currency }),
      this.told.writes(db, batch, rows, { locale, currency }, facts),
    ]);
    return {
      total,
      next: last ? encodeCursor([last.row_no]) : null,
      rows: rows.map((row) => ({
        row: row.row_no,
        verdict: row.verdict,
        firstName: row.first_name,
        lastName: row.last_name,
        email: row.email_shown,
        mobile: row.mobile_shown,
        reason: row.reason,
        hint: row.hint,
        why: row.why,
        candidates: row.candidates ?? [],
        supporterId: row.supporter_id === NO_SUPPORTER ? null : row.supporter_id,
        meets: meets.get(row.row_no) ?? null,
        changes: changes.get(row.row_no) ?? [],
        writes: writes.get(row.row_no) ?? null,
      })),
    };
  }

  /** The key of the batch's text, unless its file is gone. */
  async fileKey(batch: BatchRow): Promise<string> {
    if (batch.file_gone_at) throw new Conflict(sentence('batch.file-deleted'));
    return batch.text_key ?? batch.storage_key;
  }
}

function view(
  batch: BatchRow,
  counted: Pick<BatchView, 'counts' | 'looks' | 'withFaults' | 'withHints'>,
  canTakeOut: string | null,
): BatchView {
  return {
    id: batch.id,
    name: batch.name,
    fileName: batch.file_name,
    state: batch.state,
    what: batch.what,
    chapterId: batch.chapter_id,
    rows: batch.row_count,
    createdAt: batch.created_at.toISOString(),
    createdBy: batch.created_by_name ?? '',
    found: batch.found,
    plan: batch.plan,
    draft: batch.draft,
    draftVersion: batch.draft_version,
    ...counted,
    will: batch.will,
    stayNo: batch.stay_no,
    done: batch.next_row,
    total: batch.row_count,
    rate: batch.rate,
    problem: batch.problem,
    canTakeOut,
    fileKept: batch.file_gone_at === null,
    stayed: batch.stayed,
    ofFeed: batch.feed_run_id !== null,
  };
}
