import { Inject, Injectable } from '@nestjs/common';
import * as XLSX from '@e965/xlsx';
import { FIELD_TYPE_WORDS } from '@goodword/core/words';
import { FILE_LIMITS, menderOf, writeCsv, type TextLine, type Mender } from '@goodword/core/intake';
import { Database } from '../../platform/database';
import { Conflict, NotFound } from '../../platform/errors';
import type { AccessScope } from '../../platform/scope';
import { STORAGE, type Storage } from '../../platform/storage';
import { FieldsRepository } from '../../supporters/fields.repository';
import { TeamRepository } from '../../team/team.repository';
import { BatchesRepository, readingOf, type BatchRow } from '../batches.repository';
import { textLines, openingOf } from './text-reading';
import { sentence } from '../../platform/words';
import { StagedRowsRepository } from '../staged-rows.repository';

export type SheetForm = 'csv' | 'xlsx';

export interface SheetFile {
  name: string;
  mime: string;
  bytes: Buffer;
}

const MIME: Record<SheetForm, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
};

/** Sheets that go out: a blank one to fill in, the rows of a batch that came in, and those to mend. */
@Injectable()
export class SheetsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(StagedRowsRepository) private readonly staged: StagedRowsRepository,
  ) {}

  /**
   * A header of what can be filled in, the organization's own fields among it, and an explaining line under
   * it.
   */
  async prepared(scope: AccessScope, form: SheetForm): Promise<SheetFile> {
    const db = this.database.read(scope);
    const fields = await this.fields.all(db);
    const own = await Promise.all(
      fields.map(async (field) => [field.name, await this.howTo(db, field)] as const),
    );
    const columns: (readonly [string, string])[] = [
      ['Email', 'one address, or several with commas between'],
      ['First name', 'used alone in a greeting'],
      ['Last name', ''],
      ['Mobile', 'with the country code where it is not your own country'],
      ['Street', ''],
      ['Town', ''],
      ['Postcode', ''],
      ['Country', ''],
      ['Agreed on', 'the day they agreed, such as 2026-03-31'],
      ['OK to email', 'yes or no'],
      ['OK to text', 'yes or no'],
      ['Tags', 'several with commas between'],
      ...own,
    ];
    const explaining = columns.map(([, hint], i) => (i === 0 ? `Delete this line. ${hint}` : hint));
    return sheet(
      'People to bring in',
      form,
      columns.map(([name]) => name),
      [explaining],
    );
  }

  private async howTo(
    db: Parameters<FieldsRepository['choices']>[0],
    field: { id: number; type: keyof typeof FIELD_TYPE_WORDS },
  ): Promise<string> {
    if (field.type !== 'choice') return FIELD_TYPE_WORDS[field.type];
    const choices = await this.fields.choices(db, field.id);
    return choices.length === 0 ? 'choice' : `one of: ${choices.slice(0, 12).join(' / ')}`;
  }

  /** Rows to mend, in the file's own columns with the reason behind, ready to be brought in again. */
  async toMend(scope: AccessScope, id: number, form: SheetForm): Promise<SheetFile> {
    const { batch, db } = await this.open(scope, id);
    const reasons = new Map((await this.staged.faulty(db, id)).map((row) => [row.row_no, [row.reason]]));
    const { plan } = batch;
    const country = plan?.phoneCountry ?? (await this.team.organization(scope)).country;
    // As they stand in the grid: what was mended there is not lost.
    const mend = plan ? menderOf(plan.mends, plan.columns, country) : undefined;
    const { header, rows } = await this.pick(batch, reasons, mend);
    return sheet(`${batch.name} - rows with errors`, form, [...header, 'Why'], rows);
  }

  /** Rows that came in, with our id of each person and what became of them. */
  async came(scope: AccessScope, id: number, form: SheetForm): Promise<SheetFile> {
    const { batch, db } = await this.open(scope, id);
    const came = new Map(
      (await this.batches.came(db, id)).map((row) => [row.row_no, [String(row.supporter_id), row.verdict]]),
    );
    const { header, rows } = await this.pick(batch, came);
    return sheet(`${batch.name} - brought in`, form, [...header, 'Good Word id', 'What became of it'], rows);
  }

  private async open(scope: AccessScope, id: number) {
    const db = this.database.read(scope);
    const batch = await this.batches.find(db, id);
    if (!batch) throw new NotFound('batch');
    if (batch.file_gone_at) throw new Conflict(sentence('batch.rows-deleted'));
    return { batch, db };
  }

  /**
   * The chosen rows as they stood in the file, or mended, with cells added behind; one pass over the file.
   */
  private async pick(
    batch: BatchRow,
    added: ReadonlyMap<number, readonly string[]>,
    mend: Mender = (cells) => [...cells],
  ): Promise<{ header: string[]; rows: string[][] }> {
    const key = batch.text_key ?? batch.storage_key;
    const header = batch.found?.header ?? [];
    const rows: string[][] = [];
    let rowNo = 0;
    const take = ({ cells }: TextLine) => {
      const behind = added.get(++rowNo);
      if (!behind) return;
      const own = mend(cells, rowNo - 1);
      rows.push([
        ...Array.from({ length: Math.max(header.length, own.length) }, (_none, i) => own[i] ?? ''),
        ...behind,
      ]);
    };
    for await (const lines of textLines(
      this.storage,
      key,
      await openingOf(this.storage, key, readingOf(batch)),
    ))
      lines.forEach(take);
    return { header, rows };
  }
}

function sheet(
  name: string,
  form: SheetForm,
  header: readonly string[],
  rows: readonly (readonly string[])[],
): SheetFile {
  const plain = name.replace(/[^\p{L}\p{N} _-]/gu, '').slice(0, 100);
  if (form === 'csv')
    return { name: `${plain}.csv`, mime: MIME.csv, bytes: Buffer.from(`\ufeff${writeCsv(header, rows)}`) };
  if (rows.length > FILE_LIMITS.sheetRows)
    throw new Conflict(sentence('workbook.rows-out', { sheetRows: FILE_LIMITS.sheetRows }));
  // Texts are kept as texts: no cell of a workbook is a formula unless it is written as one.
  const book = XLSX.utils.book_new();
  XLSX.utils.book_append_sheet(
    book,
    XLSX.utils.aoa_to_sheet([[...header], ...rows.map((row) => [...row])]),
    'Rows',
  );
  return {
    name: `${plain}.xlsx`,
    mime: MIME.xlsx,
    bytes: XLSX.write(book, { type: 'buffer', bookType: 'xlsx', compression: true }) as Buffer,
  };
}
